import { Field } from '@chakra-ui/react'
import { Select } from './TextField'

interface Props {
  label: string
  /** Whether the label is only for those who do not see. */
  labelHidden?: boolean
  value: string
  /** What can be chosen: each value with its words. */
  options: readonly (readonly [value: string, words: string])[]
  onChange: (value: string) => void
  onBlur?: () => void
}

/** A labelled choice among a few. */
export function SelectField({ label, labelHidden = false, value, options, onChange, onBlur }: Props) {
  return (
    <Field.Root w="auto">
      <Field.Label fontWeight="600" textStyle="compact" srOnly={labelHidden}>
        {label}
      </Field.Label>
      <Field.Context>
        {field => (
          <Select
            id={field.ids.control}
            w="100%"
            value={value}
            onChange={event => onChange(event.target.value)}
            onBlur={onBlur}
          >
            {options.map(([one, words]) => (
              <option key={one} value={one}>
                {words}
              </option>
            ))}
          </Select>
        )}
      </Field.Context>
    </Field.Root>
  )
}
