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

/** Presence checks as they are written in their window. */
export interface PresenceFields {
  readonly checks: readonly PresenceCheck[]
  /** Whether any of them is enough, where all have to hold otherwise. */
  readonly any: boolean
}

export const EMPTY_CHECK: PresenceCheck = { kind: 'inventory', subject: '', version: '' }

/** Those that look at something. */
export function filledChecks(checks: readonly PresenceCheck[]): PresenceCheck[] {
  return checks.filter(check => check.subject.trim() !== '')
}

/** What is wrong with what a check looks at: one without any content may go without. */
export function subjectProblem(check: PresenceCheck): string | undefined {
  return check.subject.trim() === '' && check.version.trim() !== ''
    ? 'Fill in what the check looks at, or delete it.'
    : undefined
}

/** The first thing that is wrong with any of them. */
export function presenceProblem(checks: readonly PresenceCheck[]): string | undefined {
  return checks.map(subjectProblem).find(problem => problem !== undefined)
}
