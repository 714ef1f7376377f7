import type { Program, ReleaseRecord, Step, TitleRecord, VariantRecord } from '../api/catalogue'

/** Where in a title one is. */
export interface Spot {
  readonly version: string
  readonly variant: string
}

/** The record with another variant in the place of the one at the spot. */
export function withVariant(
  record: TitleRecord,
  spot: Spot,
  change: (variant: VariantRecord) => VariantRecord,
): TitleRecord {
  return withRelease(record, spot.version, release => ({
    ...release,
    variants: release.variants.map(variant => (variant.id === spot.variant ? change(variant) : variant)),
  }))
}

/** The record with another release in the place of the one of this version. */
export function withRelease(
  record: TitleRecord,
  version: string,
  change: (release: ReleaseRecord) => ReleaseRecord,
): TitleRecord {
  return {
    ...record,
    releases: record.releases.map(release => (release.version === version ? change(release) : release)),
  }
}

/** The record with other steps in one program of the variant at the spot. */
export function withSteps(
  record: TitleRecord,
  spot: Spot,
  program: Program,
  change: (steps: readonly Step[]) => readonly Step[],
): TitleRecord {
  return withVariant(record, spot, variant => ({ ...variant, [program]: [...change(variant[program])] }))
}

/** The variant with another rule; an empty one fits every device. */
export function withFits(variant: VariantRecord, rule: string): VariantRecord {
  const { fits, ...rest } = variant
  const text = rule.trim() === '' ? undefined : rule
  return text === fits ? variant : { ...rest, ...(text !== undefined && { fits: text }) }
}

/** The title with so many seats; uncounted where the text is empty. */
export function withSeats(record: TitleRecord, text: string): TitleRecord {
  const { seats, ...rest } = record
  const count = text.trim() === '' ? undefined : Number(text)
  return count === seats ? record : { ...rest, ...(count !== undefined && { seats: count }) }
}

type Words = Pick<TitleRecord, 'name' | 'maker' | 'about' | 'scope' | 'asks'>

/**
 * The newest version of a title with those words changed that somebody changed in what they had before them: what another
 * person changed meanwhile stays.
 */
export function reworded(newest: TitleRecord, before: TitleRecord, after: Words, seats: string): TitleRecord {
  const about = Object.fromEntries(
    Object.entries(after.about).filter(([field, text]) => text !== before.about[field as keyof Words['about']]),
  )
  const record = {
    ...newest,
    name: after.name === before.name ? newest.name : after.name,
    maker: after.maker === before.maker ? newest.maker : after.maker,
    about: { ...newest.about, ...about },
    scope: after.scope === before.scope ? newest.scope : after.scope,
    asks: {
      approval: after.asks.approval === before.asks.approval ? newest.asks.approval : after.asks.approval,
      licence: after.asks.licence === before.asks.licence ? newest.asks.licence : after.asks.licence,
    },
  }
  return seats.trim() === String(before.seats ?? '') ? record : withSeats(record, seats)
}

/** The list with the entry at one place moved by so many places; unchanged where that leads outside. */
export function moved<T>(list: readonly T[], at: number, by: number): readonly T[] {
  const to = at + by
  const entry = list[at]
  if (entry === undefined || to < 0 || to >= list.length) {
    return list
  }
  const rest = list.filter((_, i) => i !== at)
  return [...rest.slice(0, to), entry, ...rest.slice(to)]
}

/** The step moved to another place; those that lead to steps still lead to the same ones. */
export function movedStep(steps: readonly Step[], at: number, to: number): readonly Step[] {
  return relinked(steps, moved(steps, at, to - at))
}

/** Without one step; what led to it leads to the one that came after it. */
export function withoutStep(steps: readonly Step[], at: number): readonly Step[] {
  return relinked(
    steps,
    steps.filter((_, i) => i !== at),
  )
}

/** How many steps are the device's; those after them are carried out at each person's sign-in. */
export function deviceSteps(steps: readonly Step[]): number {
  return steps.filter(step => !step.atSignIn).length
}

/** A step put in the place of another, or added where there is none there; those at sign-in come after the device's. */
export function withStep(steps: readonly Step[], at: number, step: Step): readonly Step[] {
  const all = at >= steps.length ? [...steps, step] : steps.map((one, i) => (i === at ? step : one))
  const own = deviceSteps(all)
  const end = (to: number | undefined) => (to === undefined ? undefined : Math.min(to, own + 1))
  return relinked(all, [...all.filter(one => !one.atSignIn), ...all.filter(one => one.atSignIn)]).map(one =>
    one.atSignIn ? one : led(one, end(one.thenTo), end(one.failsTo)),
  )
}

function relinked(before: readonly Step[], after: readonly Step[]): readonly Step[] {
  const number = (old: number | undefined): number | undefined => {
    if (old === undefined) {
      return undefined
    }
    for (let at = old - 1; at < before.length; at++) {
      const step = before[at]
      const now = step === undefined ? -1 : after.indexOf(step)
      if (now >= 0) {
        return now + 1
      }
    }
    return after.length + 1
  }
  return after.map(step => led(step, number(step.thenTo), number(step.failsTo)))
}

/** The step with other leads; without one it leads to the next, or stops. */
export function led(step: Step, thenTo: number | undefined, failsTo: number | undefined): Step {
  const { thenTo: _, failsTo: __, ...rest } = step
  return { ...rest, ...(thenTo !== undefined && { thenTo }), ...(failsTo !== undefined && { failsTo }) }
}

/** A step with nothing in it yet. */
export function emptyStep(): Step {
  return {
    kind: 'run',
    text: '',
    command: '',
    to: '',
    limitSeconds: 1200,
    asPerson: false,
    atSignIn: false,
    folder: '',
    onlyWith: '',
    environment: {},
    exitCodes: [
      { code: 0, meaning: 'done', againMinutes: 0 },
      { code: 3010, meaning: 'restart', againMinutes: 0 },
      { code: 1618, meaning: 'again', againMinutes: 5 },
    ],
    goesOn: false,
    says: '',
  }
}

/** What an exit code means, in words. */
export function exitWords(code: Step['exitCodes'][number]): string {
  switch (code.meaning) {
    case 'done':
      return `${code.code} done`
    case 'restart':
      return `${code.code} restart needed`
    case 'sign-out':
      return `${code.code} sign-out needed`
    case 'again':
      return `${code.code} busy, again in ${code.againMinutes} min`
    case 'failed':
      return `${code.code} failed`
  }
}

/** Exit codes as one writes them, a line each: "3010 restart", "1618 again 5". */
export function exitText(codes: Step['exitCodes']): string {
  return codes.map(c => `${c.code} ${c.meaning}${c.meaning === 'again' ? ` ${c.againMinutes}` : ''}`).join('\n')
}

const MEANINGS = ['done', 'restart', 'sign-out', 'again', 'failed'] as const

/** The reverse of {@link exitText}; a sentence where a line cannot be read. */
export function exitCodes(text: string): Step['exitCodes'] | string {
  const codes: Step['exitCodes'] = []
  for (const line of text.split('\n').filter(l => l.trim() !== '')) {
    const [, code, word, minutes] = /^\s*(-?\d+)\s+([a-z-]+)(?:\s+(\d+))?\s*$/.exec(line) ?? []
    const meaning = MEANINGS.find(m => m === word)
    if (code === undefined || meaning === undefined) {
      return `“${line.trim()}” is not read: write a number and one of ${MEANINGS.join(', ')}.`
    }
    codes.push({ code: Number(code), meaning, againMinutes: meaning === 'again' ? Number(minutes ?? 5) : 0 })
  }
  return codes
}
