import { Field, NumberInput } from '@chakra-ui/react'

interface Props {
  label: string
  /** Whether the label is only for those who do not see. */
  labelHidden?: boolean
  /** As it is written, so that what is not a number yet stays as typed. */
  value: string
  onChange: (value: string) => void
  min?: number
  max?: number
  hint?: string
  problem?: string | undefined
  width?: string
}

/** A labelled number. The arrow keys count up and down. */
export function NumberField({ label, labelHidden = false, value, onChange, min, max, hint, problem, width }: Props) {
  return (
    <Field.Root invalid={problem !== undefined} {...(width !== undefined && { w: width })}>
      <Field.Label fontWeight="600" textStyle="compact" srOnly={labelHidden}>
        {label}
      </Field.Label>
      <NumberInput.Root
        value={value}
        onValueChange={change => onChange(change.value)}
        {...(min !== undefined && { min })}
        {...(max !== undefined && { max })}
        clampValueOnBlur={false}
        size="sm"
        w="100%"
      >
        <NumberInput.Control />
        <NumberInput.Input borderColor="line" h="8" px="2" textStyle="body" />
      </NumberInput.Root>
      {problem === undefined ? (
        hint !== undefined && (
          <Field.HelperText color="ink3" textStyle="second">
            {hint}
          </Field.HelperText>
        )
      ) : (
        <Field.ErrorText color="trouble" textStyle="second">
          {problem}
        </Field.ErrorText>
      )}
    </Field.Root>
  )
}
