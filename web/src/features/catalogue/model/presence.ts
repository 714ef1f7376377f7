import type { PresenceCheck } from '../api/catalogue'

/** The kinds of presence checks with their words. */
export const PRESENCE_KINDS: Record<PresenceCheck['kind'], string> = {
  inventory: 'inventory name',
  'product-code': 'product code',
  package: 'package',
  file: 'file',
  registry: 'registry value',
  script: 'script that ends with 0',
}

/** A presence check in words. */
export function seenBy(check: PresenceCheck): string {
  const by = check.order === undefined ? '' : check.order === 'deb' ? ', as dpkg compares' : ', as rpm compares'
  const version = check.version === '' ? '' : ` at ${check.version} or later${by}`
  return `${PRESENCE_KINDS[check.kind]} ${check.subject}${version}`
}
