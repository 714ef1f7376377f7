import { expect, it } from 'vitest'
import { intentVerb } from './outcomes'

it('has a verb for each intent', () => {
  expect([intentVerb('required'), intentVerb('available'), intentVerb('uninstall')]).toEqual([
    'Require',
    'Offer',
    'Remove',
  ])
})
