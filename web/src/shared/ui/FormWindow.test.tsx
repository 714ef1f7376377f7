// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useForm } from 'react-hook-form'
import { expect, test, vi } from 'vitest'
import { draw } from '../../testing/draw'
import { Refusal } from '../api'
import { FormText } from './fields'
import { FormWindow } from './FormWindow'

interface Fields {
  name: string
  address: string
}

function Form({ onSubmit, onClose }: { onSubmit: (fields: Fields) => Promise<unknown>; onClose: () => void }) {
  const form = useForm<Fields>({ defaultValues: { name: '', address: '' } })
  return (
    <FormWindow heading="A mirror" form={form} onSubmit={onSubmit} onClose={onClose} note="Nobody asks it yet.">
      <FormText<Fields> name="name" label="Name" rules={{ required: 'Give it a name.' }} />
      <FormText<Fields> name="address" label="Address" />
    </FormWindow>
  )
}

test('what is wrong stands at its field, and nothing is sent', async () => {
  const onSubmit = vi.fn(() => Promise.resolve())
  draw(<Form onSubmit={onSubmit} onClose={() => undefined} />)
  expect(await screen.findByText('Nobody asks it yet.')).toBeTruthy()
  await userEvent.click(screen.getByText('Save'))
  const field = await screen.findByLabelText('Name')
  await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'))
  expect(screen.getByText('Give it a name.').getAttribute('aria-live')).toBe('polite')
  expect(onSubmit).not.toHaveBeenCalled()
})

test('Enter in a line does what the button does', async () => {
  const onSubmit = vi.fn(() => Promise.resolve())
  draw(<Form onSubmit={onSubmit} onClose={() => undefined} />)
  await userEvent.type(await screen.findByLabelText('Name'), 'Hartsmere{Enter}')
  await waitFor(() => expect(onSubmit).toHaveBeenCalledWith({ name: 'Hartsmere', address: '' }))
})

test('what the server refuses stands at the field that it names, and what was typed stays', async () => {
  const refusal = new Refusal(422, 'bad-address', 'Two things are wrong.', [
    { code: 'bad-address', place: 'address', sentence: 'An address begins with http.' },
  ])
  draw(<Form onSubmit={() => Promise.reject(refusal)} onClose={() => undefined} />)
  await userEvent.type(await screen.findByLabelText('Name'), 'Hartsmere')
  await userEvent.type(screen.getByLabelText('Address'), 'ftp://x')
  await userEvent.click(screen.getByText('Save'))
  expect(await screen.findByText('An address begins with http.')).toBeTruthy()
  expect(screen.getByLabelText('Address').getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByLabelText<HTMLInputElement>('Address').value).toBe('ftp://x')
  expect(screen.queryByText('Two things are wrong.')).toBeNull()
})

test('what belongs to no field is said for the whole form', async () => {
  const onClose = vi.fn()
  draw(<Form onSubmit={() => Promise.reject(new Refusal(409, 'changed', 'Somebody changed it.'))} onClose={onClose} />)
  await userEvent.type(await screen.findByLabelText('Name'), 'Hartsmere')
  await userEvent.click(screen.getByText('Save'))
  expect((await screen.findByText('Somebody changed it.')).getAttribute('role')).toBe('alert')
  expect(onClose).not.toHaveBeenCalled()
})
