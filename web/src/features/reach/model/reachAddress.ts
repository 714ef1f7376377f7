import type { AddressPart } from '../../../shared/address'
import { name, oneOf, text } from '../../../shared/address'

/** OUs of which the map shows all, however small. */
const several: AddressPart<readonly string[]> = {
  read: given => (given ?? '').split(',').filter(one => one !== ''),
  write: value => (value.length === 0 ? undefined : value.join(',')),
}

/** What the address says of the map: the OU that is looked at, that which the map begins with, and what is shown whole, and the audience that is lit up. */
export const REACH_ADDRESS = { ou: name, in: text, all: several, as: oneOf('map', 'table'), lit: name }
