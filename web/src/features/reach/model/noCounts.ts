import { SHOWN } from '../../../shared/outcomes'
import type { Counts } from '../api/reach'

/** No devices of any outcome. */
export const NO_COUNTS = Object.fromEntries(SHOWN.map(kind => [kind, 0])) as Counts
