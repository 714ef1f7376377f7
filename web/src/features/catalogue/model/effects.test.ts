import { expect, it } from 'vitest'
import { effectWords } from './effects'

const effect = { title: 'fernote', name: 'Fernote Reader', devices: 820 }

it('says what happens to the devices', () => {
  expect(effectWords({ ...effect, effect: 'replaced' })).toBe('lose Fernote Reader, which is replaced')
  expect(effectWords({ ...effect, effect: 'other-release', version: '11.3' })).toBe('go to Fernote Reader 11.3')
})

it('still says something of an effect that has no words yet', () => {
  expect(effectWords({ ...effect, effect: 'drifts' })).toBe('drifts Fernote Reader')
})

it.each([
  ['gains', 'get X'],
  ['other-release', 'go to X'],
  ['other-reason', 'keep X, for another reason'],
  ['loses', 'no longer get X'],
  ['withdrawn', 'are no longer offered X'],
  ['settled', 'are settled on X'],
  ['offered', 'are offered X'],
  ['removed', 'have X removed'],
  ['contested', 'become contested on X'],
  ['later', 'get X later'],
  ['unfit', 'have no variant of X that fits'],
  ['blocked', 'are blocked on X'],
  ['replaced', 'lose X, which is replaced'],
  ['displaced', 'have X kept off'],
  ['waiting', 'wait for a seat of X'],
])('%s has its words', (kind, words) => {
  expect(effectWords({ ...effect, name: 'X', effect: kind })).toBe(words)
})

it('writes a name as it is', () => {
  expect(effectWords({ ...effect, name: 'A$& #1', effect: 'gains' })).toBe('get A$& #1')
})
