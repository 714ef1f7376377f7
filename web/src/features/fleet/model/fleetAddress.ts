import { name, text } from '../../../shared/address'

/** What the address says of the list of devices. */
export const FLEET_ADDRESS = {
  q: text,
  ou: name,
  title: name,
  outcome: name,
  stands: name,
  state: name,
  order: name,
}
