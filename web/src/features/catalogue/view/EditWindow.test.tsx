// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { beforeEach, expect, test, vi } from 'vitest'
import { answering, draw } from '../../../testing/draw'
import type { Choice, ReleaseRecord, Step, TitlePageData, TitleRecord } from '../api/catalogue'
import { emptyStep, withRelease } from '../model/record'
import type { Edit, Editing } from '../state/useEdit'
import { ChoicesWindow } from './ChoicesWindow'
import { PresenceWindow } from './PresenceWindow'
import { RelationsWindow } from './RelationsWindow'
import { StepWindow } from './StepWindow'

const value = (name: string, bytes: number) => ({ value: name, text: name, reads: '', file: '', bytes })
const languages: Choice = {
  id: 'languages',
  text: 'Languages',
  kind: 'languages',
  usual: 'en',
  allowed: [value('cy', 1048576), value('de', 2097152), value('en', 0)],
}
const checks = [
  { kind: 'file' as const, subject: 'C:/silt.exe', version: '4' },
  { kind: 'inventory' as const, subject: 'Siltscope', version: '' },
]
const variant = { id: 'windows', presence: { any: false, checks }, contents: [], install: [] }
const release = { version: '4.2', choices: [languages], needs: [], replaces: [], variants: [variant] }
const record = {
  id: 'silt',
  name: 'Siltscope',
  releases: [release],
  conflictsWith: ['rival'],
} as unknown as TitleRecord
const saved = vi.fn<(edit: Edit) => void>()
const editing: Editing = {
  save: edit => saved(edit),
  change: edit => ({ record: edit(record), revision: 3 }),
  revision: 3,
  pending: false,
  refusal: undefined,
}

beforeEach(() => {
  saved.mockClear()
  answering(url => (url.includes('/titles') && !url.includes('silt') ? [] : { effects: [] }))
})

function open(window: ReactNode) {
  draw(window)
  return screen.findByText('Save')
}

/** What the title becomes when it is saved. */
async function afterSaving(): Promise<ReleaseRecord> {
  await waitFor(async () => {
    await userEvent.click(screen.getByText('Save'))
    expect(saved).toHaveBeenCalled()
  })
  return saved.mock.lastCall?.[0](record).releases[0] as ReleaseRecord
}

test('the values of a choice stay with their lines when one above goes', async () => {
  await open(
    <ChoicesWindow release={record.releases[0] as ReleaseRecord} editing={editing} onClose={() => undefined} />,
  )
  await userEvent.click(screen.getByLabelText('Delete value 1'))
  expect(screen.getByLabelText<HTMLInputElement>('Value 1: extra MiB').value).toBe('2')
  await userEvent.type(screen.getByLabelText('Value 2: extra MiB'), '0.5')
  const after = await afterSaving()
  expect(after.choices[0]?.allowed.map(one => `${one.value} ${one.bytes}`)).toEqual(['de 2097152', 'en 524288'])
  expect(after.choices[0]?.id).toBe('languages')
})

test('of two choices the one that stays keeps what steps call it by', async () => {
  const edition: Choice = { ...languages, id: 'edition', text: 'Renamed since', kind: 'text', allowed: [] }
  const two = { ...release, choices: [languages, edition] } as unknown as ReleaseRecord
  await open(<ChoicesWindow release={two} editing={editing} onClose={() => undefined} />)
  await userEvent.click(screen.getByLabelText('Delete choice 1'))
  expect((await afterSaving()).choices.map(choice => `${choice.id} ${choice.text}`)).toEqual(['edition Renamed since'])
})

test('what is not a number stays as typed, is said at its field, and is not saved', async () => {
  await open(
    <ChoicesWindow release={record.releases[0] as ReleaseRecord} editing={editing} onClose={() => undefined} />,
  )
  const size = screen.getByLabelText<HTMLInputElement>('Value 3: extra MiB')
  await userEvent.type(size, 'much')
  await waitFor(() => expect(size.getAttribute('aria-invalid')).toBe('true'))
  expect(size.value).toBe('much')
  expect(screen.getByText<HTMLButtonElement>('Save').disabled).toBe(true)
})

test('a presence check is taken out, and any of the rest is made enough', async () => {
  await open(
    <PresenceWindow
      spot={{ version: '4.2', variant: 'windows' }}
      presence={{ any: false, checks: [...checks, { kind: 'script', subject: 'exit 0', version: '' }] }}
      editing={editing}
      onClose={() => undefined}
    />,
  )
  await userEvent.click(screen.getByLabelText('Delete check 1'))
  await userEvent.selectOptions(screen.getByLabelText('How many'), 'any')
  await userEvent.clear(screen.getAllByLabelText('Name, path or code')[0] as HTMLElement)
  await userEvent.type(screen.getAllByLabelText('Name, path or code')[0] as HTMLElement, 'Silt')
  const after = await afterSaving()
  expect(after.variants[0]?.presence).toEqual({
    any: true,
    checks: [
      { kind: 'inventory', subject: 'Silt', version: '' },
      { kind: 'script', subject: 'exit 0', version: '' },
    ],
  })
})

test('a relation becomes another kind, with a version where there is one', async () => {
  const page = { record, revision: 3 } as unknown as TitlePageData
  await open(<RelationsWindow page={page} version="4.2" editing={editing} onClose={() => undefined} />)
  expect(screen.queryByLabelText('Version from')).toBeNull()
  await userEvent.selectOptions(screen.getByLabelText('Relation 1'), 'needs')
  await userEvent.type(screen.getByLabelText('Version from'), '8')
  expect((await afterSaving()).needs).toEqual([{ title: 'rival', min: '8' }])
  await userEvent.click(screen.getByText('Add a relation'))
  await userEvent.type(screen.getAllByLabelText('Version from')[1] as HTMLElement, '9')
  expect(await screen.findByText('Choose the title that is needed, or delete the relation.')).toBeTruthy()
})

test('a step changes its kind without losing what was typed', async () => {
  const step: Step = { ...emptyStep(), command: 'setup.exe', environment: { MODE: 'quiet' } }
  await open(
    <StepWindow
      step={step}
      isNew
      number={1}
      part={{ first: 1, last: 3, end: 'the presence check' }}
      choices={[languages]}
      forDevice
      editing={editing}
      onClose={() => undefined}
      change={next => title =>
        withRelease(title, '4.2', r => ({
          ...r,
          variants: r.variants.map(v => ({ ...v, install: next === undefined ? [] : [next] })),
        }))
      }
    />,
  )
  const select = (name: string, to: string) => userEvent.selectOptions(screen.getByLabelText(name), to)
  await userEvent.type(screen.getByLabelText('Environment'), '{Enter}nonsense')
  expect((await screen.findAllByText('“nonsense” is not read: write NAME=value.')).length).toBeGreaterThan(0)
  await select('Step type', 'copy')
  expect(screen.queryByLabelText('Environment')).toBeNull()
  await select('Step type', 'script')
  expect(screen.getByLabelText<HTMLTextAreaElement>('Environment').value).toBe('MODE=quiet\nnonsense')
  await userEvent.type(screen.getByLabelText('Environment'), '=b')
  await select('On failure', 'go to step 3')
  await select('Only with the choice', 'Languages: cy')
  await userEvent.click(screen.getByLabelText('Run as the person signed in'))
  expect((await afterSaving()).variants[0]?.install[0]).toEqual({
    ...step,
    kind: 'script',
    environment: { MODE: 'quiet', nonsense: 'b' },
    failsTo: 3,
    onlyWith: 'languages=cy',
    asPerson: true,
  })
})
