import { expect, it } from 'vitest'
import type { ReleaseRecord, TitleRecord } from '../api/catalogue'
import { EMPTY_RELATION, relationsOf, relationsProblem, withRelations } from './relations'

const release = {
  version: '4.2',
  needs: [{ title: 'runtime', min: '8' }, { title: 'fonts' }],
  replaces: [
    { title: 'silt3', removeFirst: true },
    { title: 'silt2', removeFirst: false },
  ],
} as unknown as ReleaseRecord
const other = { version: '4.1', needs: [{ title: 'fonts' }], replaces: [] } as unknown as ReleaseRecord
const record = { releases: [release, other], conflictsWith: ['rival'] } as unknown as TitleRecord

it('come back as they went in, the other releases untouched', () => {
  const lines = relationsOf(release, record.conflictsWith)
  expect(lines.map(line => `${line.kind} ${line.title} ${line.min}`.trim())).toEqual([
    'needs runtime 8',
    'needs fonts',
    'off-first silt3',
    'in-place silt2',
    'conflicts rival',
  ])
  expect(withRelations(record, '4.2', lines)).toEqual(record)
})

it('are those that are written and no other', () => {
  const after = withRelations(record, '4.2', [
    { kind: 'conflicts', title: 'fonts', min: '' },
    { kind: 'needs', title: 'runtime', min: ' 9 ' },
    { kind: 'in-place', title: 'silt3', min: '7' },
    EMPTY_RELATION,
  ])
  expect(after.conflictsWith).toEqual(['fonts'])
  expect(after.releases[0]).toMatchObject({
    needs: [{ title: 'runtime', min: '9' }],
    replaces: [{ title: 'silt3', removeFirst: false }],
  })
  expect(after.releases[1]).toBe(other)
})

it('are none of a release that is not there', () => {
  expect(relationsOf(undefined, [])).toEqual([])
})

it('never leave out a version that was typed', () => {
  expect(relationsProblem([EMPTY_RELATION])).toBeUndefined()
  expect(relationsProblem([{ kind: 'conflicts', title: '', min: '3' }])).toBeUndefined()
  expect(relationsProblem([{ kind: 'needs', title: 'runtime', min: '3' }])).toBeUndefined()
  expect(relationsProblem([EMPTY_RELATION, { kind: 'needs', title: '', min: '3' }])).toBe(
    'Choose the title that is needed, or delete the relation.',
  )
})
