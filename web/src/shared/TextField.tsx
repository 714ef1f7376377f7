import { chakra, Field, Input, Textarea } from '@chakra-ui/react'

interface Props {
  label: string
  value: string
  onChange: (value: string) => void
  mono?: boolean
  rows?: number
  hint?: string
  required?: boolean
}

/** A labelled line or block of text. */
export function TextField({ label, value, onChange, mono = false, rows, hint, required = false }: Props) {
  const font = mono ? 'mono' : 'body'
  const common = { value, borderColor: 'line', fontFamily: font, fontSize: mono ? '12.5px' : '14px' } as const
  return (
    <Field.Root required={required}>
      <Field.Label fontWeight="600" fontSize="13px">
        {label}
      </Field.Label>
      {rows === undefined ? (
        <Input {...common} h="32px" px="8px" onChange={event => onChange(event.target.value)} />
      ) : (
        <Textarea {...common} rows={rows} px="8px" onChange={event => onChange(event.target.value)} />
      )}
      {hint !== undefined && (
        <Field.HelperText color="ink3" fontSize="12.3px">
          {hint}
        </Field.HelperText>
      )}
    </Field.Root>
  )
}

/** A choice among a few. */
export const Select = chakra('select', {
  base: {
    h: '32px',
    px: '6px',
    borderWidth: '1px',
    borderColor: 'line',
    borderRadius: '6px',
    bg: 'panel',
    color: 'ink',
    fontSize: '14px',
    fontWeight: '400',
  },
})
