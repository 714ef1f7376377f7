// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { expect, test } from 'vitest'
import { answering, draw } from '../../../testing/draw'
import { useTriedRule } from '../api/rules'
import { RuleEditor } from './RuleEditor'

const LINE = { attribute: '', operator: '', value: '', devices: 0, parts: [] }
const ARM = { ...LINE, kind: 'clause', attribute: 'arch', operator: 'eq', value: 'arm64', devices: 43 }
const RAM = { ...LINE, kind: 'clause', attribute: 'ramGiB', operator: 'ge', value: '8', devices: 12 }

const READ: Record<string, object> = {
  'arch eq "arm64"': ARM,
  'arch eq "arm64" and ramGiB ge 8': { ...LINE, kind: 'all', devices: 12, parts: [ARM, RAM] },
}

/** Reads the two rules above, and says of others what is wrong with them. */
const serve = () =>
  answering((url, body) => {
    if (url.startsWith('/api/rules/attributes')) {
      return [
        { name: 'arch', type: 'text' },
        { name: 'ramGiB', type: 'number' },
      ]
    }
    if (url.startsWith('/api/rules/values')) {
      return [
        { value: 'arm64', label: 'arm64', devices: 43 },
        { value: 'x64', label: 'x64', devices: 6437 },
      ]
    }
    const { rule } = body as { rule: string }
    const shared = { fleet: 6480, comingIn: 0, goingOut: 0, comesIn: [], goesOut: [], spread: [] }
    return READ[rule] === undefined
      ? { ...shared, problem: 'expected a text in double quotes', line: 1, column: 9 }
      : { ...shared, devices: 12, outline: READ[rule] }
  })

function Editor({ first }: { first: string }) {
  const [rule, setRule] = useState(first)
  const trial = useTriedRule({ rule })
  return (
    <RuleEditor rule={rule} tried={trial.data?.tried} triedText={trial.data?.written.rule ?? ''} onChange={setRule} />
  )
}

const text = () => screen.getByLabelText<HTMLTextAreaElement>('The same as text')
const clauses = () => within(screen.getByRole('list', { name: 'Clauses' })).getAllByRole('listitem')

test('a rule stands there as clauses with what is left after each', async () => {
  serve()
  draw(<Editor first={'arch eq "arm64" and ramGiB ge 8'} />)
  await waitFor(() => expect(clauses()).toHaveLength(2))
  expect(clauses()[0]?.textContent).toContain('43')
  expect(clauses()[1]?.textContent).toContain('12')
  expect(screen.getByLabelText<HTMLInputElement>('Value of ramGiB').value).toBe('8')
})

test('what is typed as text becomes clauses, and what cannot be read says where', async () => {
  serve()
  draw(<Editor first={'arch eq "arm64"'} />)
  await waitFor(() => expect(clauses()).toHaveLength(1))
  await userEvent.type(text(), ' and ramGiB ge 8')
  await waitFor(() => expect(clauses()).toHaveLength(2))
  await userEvent.type(text(), ' and')
  expect(await screen.findByText('Line 1, column 9: expected a text in double quotes')).toBeTruthy()
  expect(clauses()).toHaveLength(2)
})

test('clauses are edited, negated and deleted, and the text follows', async () => {
  serve()
  draw(<Editor first={'arch eq "arm64"'} />)
  await waitFor(() => expect(clauses()).toHaveLength(1))
  await userEvent.click(screen.getByRole('button', { name: /^Add a clause/ }))
  expect(text().value).toBe('arch eq "arm64" and arch eq ""')
  expect(screen.getByText('A value is still missing above.')).toBeTruthy()
  const second = clauses()[1]
  if (second === undefined) {
    throw new Error('there is no second clause')
  }
  await userEvent.selectOptions(within(second).getByLabelText('Attribute'), 'ramGiB')
  await userEvent.type(screen.getByLabelText('Value of ramGiB'), '8')
  expect(text().value).toBe('arch eq "arm64" and ramGiB ge 8')
  const [not] = screen.getAllByRole('button', { name: 'not' })
  if (not === undefined) {
    throw new Error('there is nothing to negate')
  }
  await userEvent.click(not)
  expect(text().value).toBe('not (arch eq "arm64") and ramGiB ge 8')
  await userEvent.click(screen.getAllByRole('button', { name: 'Delete this line' })[0] ?? not)
  expect(text().value).toBe('ramGiB ge 8')
})

test('a value is chosen from those that the fleet has', async () => {
  serve()
  draw(<Editor first={'arch eq "arm64"'} />)
  const field = await screen.findByLabelText('Value of arch')
  await userEvent.clear(field)
  await userEvent.type(field, 'x')
  expect(await screen.findByRole('option', { name: /x64.*on 6,437 devices/ })).toBeTruthy()
  expect(screen.queryByRole('option', { name: /arm64/ })).toBeNull()
  await userEvent.keyboard('{ArrowDown}{Enter}')
  expect(text().value).toBe('arch eq "x64"')
})
