import type { ReactNode } from 'react'
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form'
import { FormProvider, useFormState } from 'react-hook-form'
import { isRefusal, sentence } from '../api'
import { Button } from './Button'
import { Window } from './Window'
import { WindowFoot } from './WindowFoot'

interface Props<V extends FieldValues> {
  heading: string
  width?: string
  form: UseFormReturn<V>
  /** Ends well when it has been done, and with what went wrong otherwise. */
  onSubmit: (values: V) => Promise<unknown>
  onClose: () => void
  /** What the button says that does it. */
  save?: string
  /** Whether it changes something for devices, which the button shows. */
  weighty?: boolean
  /** Why it cannot be done as it is, which no single field says. */
  problem?: string | undefined
  busy?: boolean
  /** What else can be done, before the buttons. */
  aside?: ReactNode
  /** What is said where nothing is wrong. */
  note?: string
  children: ReactNode
}

/**
 * A window with a form in it. What is wrong stands at the field that it is wrong with, or above the buttons; nothing that was typed is lost by
 * a refusal.
 */
export function FormWindow<V extends FieldValues>(props: Props<V>) {
  const {
    heading,
    width = '560px',
    form,
    onSubmit,
    onClose,
    save = 'Save',
    weighty = false,
    problem,
    busy = false,
  } = props
  const { errors, isSubmitting } = useFormState({ control: form.control })
  const said = problem ?? errors.root?.message
  const submit = form.handleSubmit(values =>
    onSubmit(values).catch((error: unknown) => {
      refuse(form, error)
    }),
  )
  return (
    <FormProvider {...form}>
      <Window
        open
        onClose={onClose}
        heading={heading}
        width={width}
        foot={
          <WindowFoot trouble={said} note={props.note} onCancel={onClose} before={props.aside}>
            <Button
              size="lg"
              variant={weighty ? 'honey' : 'chosen'}
              loading={isSubmitting || busy}
              disabled={problem !== undefined}
              onClick={() => void submit()}
            >
              {save}
            </Button>
          </WindowFoot>
        }
      >
        <form
          onSubmit={event => {
            event.preventDefault()
            if (!isSubmitting && !busy && problem === undefined) {
              void submit()
            }
          }}
        >
          {props.children}
          {/* Enter in a line of text does what the button does. */}
          <button type="submit" hidden aria-hidden="true" tabIndex={-1} />
        </form>
      </Window>
    </FormProvider>
  )
}

/** Puts each thing that was refused at the field that the server names; what belongs to none is said for the whole form. */
function refuse<V extends FieldValues>(form: UseFormReturn<V>, error: unknown): void {
  const names = Object.keys(form.getValues())
  const placed = isRefusal(error) ? error.problems.filter(one => names.includes(one.place)) : []
  placed.forEach((one, i) => form.setError(one.place as Path<V>, { message: one.sentence }, { shouldFocus: i === 0 }))
  if (placed.length === 0) {
    form.setError('root', { message: sentence(error) })
  }
}
