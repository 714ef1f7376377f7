import { chakra, Field, Input, Textarea } from '@chakra-ui/react'
import type { ComponentProps, Ref } from 'react'

interface Props {
  label: string
  /** Whether the label is only for those who do not see. */
  labelHidden?: boolean
  value: string
  onChange: (value: string) => void
  onBlur?: () => void
  mono?: boolean
  rows?: number
  hint?: string
  required?: boolean
  /** What is wrong with it. */
  problem?: string | undefined
  placeholder?: string
  type?: 'date' | 'datetime-local'
  ref?: Ref<HTMLInputElement & HTMLTextAreaElement>
}

/** A labelled line or block of text, with what is wrong with it below. */
export function TextField(props: Props) {
  const {
    label,
    labelHidden = false,
    onChange,
    mono = false,
    rows,
    hint,
    required = false,
    problem,
    type,
    ...rest
  } = props
  const common = {
    ...rest,
    borderColor: 'line',
    fontFamily: mono ? 'mono' : 'body',
    textStyle: mono ? 'code' : 'body',
    px: '2',
  } as const
  return (
    <Field.Root required={required} invalid={problem !== undefined}>
      <Field.Label fontWeight="600" textStyle="compact" srOnly={labelHidden}>
        {label}
      </Field.Label>
      {rows === undefined ? (
        <Input
          {...common}
          {...(type !== undefined && { type })}
          h="8"
          onChange={event => onChange(event.target.value)}
        />
      ) : (
        <Textarea {...common} rows={rows} onChange={event => onChange(event.target.value)} />
      )}
      {problem !== undefined && (
        <Field.ErrorText color="trouble" textStyle="second">
          {problem}
        </Field.ErrorText>
      )}
      {problem === undefined && hint !== undefined && (
        <Field.HelperText color="ink3" textStyle="second">
          {hint}
        </Field.HelperText>
      )}
    </Field.Root>
  )
}

/** A choice among a few. */
export const Select = chakra('select', {
  base: {
    h: '8',
    px: '1.5',
    borderWidth: '1px',
    borderColor: 'line',
    borderRadius: 'md',
    bg: 'panel',
    color: 'ink',
    textStyle: 'body',
    fontWeight: '400',
  },
})

interface SearchProps extends Omit<ComponentProps<typeof Input>, 'onChange'> {
  label: string
  onChange: (text: string) => void
}

/** A field that narrows what is below it; Escape empties it. */
export function SearchField({ label, value, onChange, ...rest }: SearchProps) {
  return (
    <Input
      type="search"
      aria-label={label}
      value={value}
      onChange={event => onChange(event.target.value)}
      onKeyDown={event => {
        if (event.key === 'Escape' && value !== '') {
          event.preventDefault()
          onChange('')
        }
      }}
      h="8"
      px="2.5"
      bg="panel"
      borderColor="line"
      {...rest}
    />
  )
}
