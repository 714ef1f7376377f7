import { expect, test } from 'vitest'
import { changedAddress, readAddress } from '../../../shared/address'
import { REACH_ADDRESS } from './reachAddress'

test('OUs that are shown whole stand in the address one after the other', () => {
  const said = changedAddress(REACH_ADDRESS, new URLSearchParams('ou=labs'), { all: ['root', 'labs'], in: 'root' })
  expect(readAddress(REACH_ADDRESS, said)).toEqual({ ou: 'labs', in: 'root', all: ['root', 'labs'], as: 'map' })
  expect(changedAddress(REACH_ADDRESS, said, { all: [], in: '' }).toString()).toBe('ou=labs')
})
