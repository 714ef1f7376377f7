import { Input } from '@chakra-ui/react'

interface Props {
  label: string
  /** Such as `2026-12-04T18:00`. */
  value: string
  onChange: (text: string) => void
}

/** A day and a time. */
export function LocalField({ label, value, onChange }: Props) {
  return (
    <Input
      type="datetime-local"
      aria-label={label}
      value={value}
      onChange={event => onChange(event.target.value)}
      w="200px"
      h="8"
      px="2"
      bg="panel"
      borderColor="line"
    />
  )
}
