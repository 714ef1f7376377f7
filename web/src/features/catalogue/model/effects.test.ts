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
