import { Checkbox } from '@chakra-ui/react'
import type { ComponentProps } from 'react'
import type { FieldValues, Path, RegisterOptions } from 'react-hook-form'
import { useController, useFormContext } from 'react-hook-form'
import { NumberField } from './NumberField'
import { RuleField } from './RuleField'
import { SelectField } from './SelectField'
import { TextField } from './TextField'

interface Bound<V extends FieldValues> {
  name: Path<V>
  /** What has to hold of it, each with a sentence that says so. */
  rules?: RegisterOptions<V, Path<V>>
}

type TextProps<V extends FieldValues> = Bound<V> &
  Omit<ComponentProps<typeof TextField>, 'value' | 'onChange' | 'onBlur' | 'problem' | 'ref'>

/** A text of the form around it. */
export function FormText<V extends FieldValues>({ name, rules, ...rest }: TextProps<V>) {
  const { control } = useFormContext<V>()
  const { field, fieldState } = useController({ control, name, ...(rules !== undefined && { rules }) })
  const { ref, value, onChange, onBlur } = field
  return (
    <TextField
      {...rest}
      ref={ref}
      value={String(value ?? '')}
      onChange={onChange}
      onBlur={onBlur}
      problem={fieldState.error?.message}
    />
  )
}

type RuleProps<V extends FieldValues> = Bound<V> &
  Omit<ComponentProps<typeof RuleField>, 'value' | 'onChange' | 'problem'>

/** A rule of the form around it. */
export function FormRule<V extends FieldValues>({ name, rules, ...rest }: RuleProps<V>) {
  const { control } = useFormContext<V>()
  const { field, fieldState } = useController({ control, name, ...(rules !== undefined && { rules }) })
  return (
    <RuleField
      {...rest}
      value={String(field.value ?? '')}
      onChange={field.onChange}
      onBlur={field.onBlur}
      problem={fieldState.error?.message}
    />
  )
}

type NumberProps<V extends FieldValues> = Bound<V> &
  Omit<ComponentProps<typeof NumberField>, 'value' | 'onChange' | 'problem'>

/** A number of the form around it, kept as it is written. */
export function FormNumber<V extends FieldValues>({ name, rules, ...rest }: NumberProps<V>) {
  const { control } = useFormContext<V>()
  const { field, fieldState } = useController({ control, name, ...(rules !== undefined && { rules }) })
  return (
    <NumberField
      {...rest}
      value={String(field.value ?? '')}
      onChange={field.onChange}
      problem={fieldState.error?.message}
    />
  )
}

type SelectProps<V extends FieldValues> = Bound<V> & Omit<ComponentProps<typeof SelectField>, 'value' | 'onChange'>

/** A choice among a few of the form around it. */
export function FormSelect<V extends FieldValues>({ name, rules, ...rest }: SelectProps<V>) {
  const { control } = useFormContext<V>()
  const { field } = useController({ control, name, ...(rules !== undefined && { rules }) })
  return <SelectField {...rest} value={String(field.value ?? '')} onChange={field.onChange} onBlur={field.onBlur} />
}

type FormTickProps<V extends FieldValues> = Bound<V> & Omit<TickProps, 'on' | 'onChange'>

/** Something of the form around it that is so or not. */
export function FormTick<V extends FieldValues>({ name, rules, ...rest }: FormTickProps<V>) {
  const { control } = useFormContext<V>()
  const { field } = useController({ control, name, ...(rules !== undefined && { rules }) })
  return <Tick {...rest} on={field.value === true} onChange={field.onChange} />
}

interface TickProps {
  label: string
  /** Whether the label is only for those who do not see. */
  labelHidden?: boolean
  on: boolean
  onChange: (on: boolean) => void
}

/** Something that is so or not. */
export function Tick({ label, labelHidden = false, on, onChange }: TickProps) {
  return (
    <Checkbox.Root size="sm" checked={on} onCheckedChange={change => onChange(change.checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control borderColor="ink3" _checked={{ bg: 'lagoon', borderColor: 'lagoon', color: 'panel' }} />
      <Checkbox.Label fontWeight="400" textStyle="body" srOnly={labelHidden}>
        {label}
      </Checkbox.Label>
    </Checkbox.Root>
  )
}
