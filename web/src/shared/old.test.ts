import { expect, test } from 'vitest'
import { madeOld } from './old'

test('a change of one title leaves what is shown of the others as it is', () => {
  const { keys, within } = madeOld('title:tidegate')
  expect(keys).toContainEqual(['title', 'tidegate'])
  expect(keys).toContainEqual(['reach', 'tidegate'])
  expect(keys).not.toContainEqual(['title'])
  expect(keys).not.toContainEqual(['reach'])
  expect(within).toBe(0)
})

test('what concerns everything makes everything old', () => {
  expect(madeOld('estate').keys.flat()).toEqual(expect.arrayContaining(['reach', 'titles', 'devices', 'draft']))
  expect(madeOld('estate').keys.flat()).not.toContain('session')
})

test('a draft is shown on the map and on audiences', () => {
  expect(madeOld('draft:imara.voss').keys).toEqual(
    ['draft', 'reach', 'counted', 'audience', 'audience-list', 'assignment', 'rule'].map(key => [key]),
  )
})

test('facts arrive without an end, and are asked for now and then', () => {
  expect(madeOld('facts').within).toBe(5000)
  expect(madeOld('mirrors').within).toBe(1000)
})

test('a topic that a newer server tells is no fault', () => {
  expect(madeOld('weather').keys).toEqual([])
})

test('whatever says whether a title is ready is old when windows or mirrors change', () => {
  for (const topic of ['windows', 'mirrors']) {
    expect(madeOld(topic).keys).toEqual(expect.arrayContaining([[topic], ['title'], ['titles'], ['draft']]))
  }
})

test('lists in which a title stands are old when it changes', () => {
  expect(madeOld('title:tidegate').keys.flat()).toEqual(
    expect.arrayContaining(['devices', 'device', 'kits', 'mirrors', 'draft', 'counted']),
  )
})
