// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { expect, test } from 'vitest'
import { answering, draw } from '../../testing/draw'
import { RuleField } from './RuleField'

function Written() {
  const [rule, setRule] = useState('')
  return <RuleField value={rule} onChange={setRule} />
}

test('a rule says for how many devices it holds, while it is written', async () => {
  const fetched = answering((_, body) => ({ devices: (body as { rule: string }).rule.length, fleet: 6480 }))
  draw(<Written />)
  expect(screen.getByText('Every device')).toBeTruthy()
  await userEvent.type(screen.getByLabelText('Devices where'), 'arch eq "x64" ')
  expect(await screen.findByText('13')).toBeTruthy()
  expect(screen.getByRole('status').textContent).toBe('13 of 6,480 devices')
  expect(fetched.mock.calls.length).toBeLessThan(13)
})

test('what is wrong with it stands at the field', async () => {
  answering(() => ({ fleet: 6480, problem: 'Line 1, column 6: a value is missing.', line: 1, column: 6 }))
  draw(<Written />)
  await userEvent.type(screen.getByLabelText('Devices where'), 'arch ')
  expect(await screen.findByText('Line 1, column 6: a value is missing.')).toBeTruthy()
  expect(screen.getByLabelText('Devices where').getAttribute('aria-invalid')).toBe('true')
})
