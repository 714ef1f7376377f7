import { fullInstant, some } from '../../../shared/format'
import type { Assignment, Courtesy, Rollout, Wave } from './sheet'

const HOURS = 3600
const DAYS = 24 * HOURS

/** A period of ISO 8601 in seconds, as far as it is made of days, hours and minutes; nothing where it is not. */
export function seconds(period: string): number | undefined {
  const parts = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?)?$/.exec(period)
  return parts === null || period === 'P' || period.endsWith('T')
    ? undefined
    : Number(parts[1] ?? 0) * DAYS + Number(parts[2] ?? 0) * HOURS + Number(parts[3] ?? 0) * 60
}

/** "a day", "2 hours", "30 minutes". */
export function periodWords(period: string): string {
  const all = seconds(period)
  if (all === undefined) {
    return period
  }
  if (all % DAYS === 0) {
    return all === DAYS ? 'a day' : some(all / DAYS, 'day')
  }
  return all % HOURS === 0 ? (all === HOURS ? 'an hour' : some(all / HOURS, 'hour')) : some(all / 60, 'minute')
}

const RESTARTS = {
  none: 'a restart waits until somebody restarts',
  ask: 'a restart is asked for',
  night: 'a restart comes in the next window when nobody is signed in',
  now: 'a restart comes after 5 minutes',
  wait: 'a restart waits',
}

/** How people are treated, in one line. */
export function courtesyWords(courtesy: Courtesy | undefined): string {
  const { before = [], start = false, done = true } = courtesy?.tell ?? {}
  const times = [
    ...(before.length > 0 ? [`${before.map(periodWords).join(' and ')} before`] : []),
    ...(start ? ['when it begins'] : []),
    ...(done ? ['when it is done'] : []),
  ]
  const told =
    courtesy?.quiet === true
      ? 'People are told only what asks or counts down'
      : times.length === 0
        ? 'People are told only if it did not work'
        : `People are told ${times.length > 1 ? `${times.slice(0, -1).join(', ')} and ` : ''}${times[times.length - 1]}`
  const restart = courtesy?.restart
  const way = RESTARTS[restart?.way ?? 'ask']
  const defer =
    (restart?.way ?? 'ask') === 'ask' || restart?.way === 'night'
      ? ` and may be put off for ${periodWords(restart?.defer?.until ?? 'PT8H')}`
      : ''
  return `${told}; ${way}${defer}.`
}

/** All that is seldom changed, in one line. */
export function otherwiseWords(assignment: Assignment): string {
  return [
    assignment.binding === true ? 'Binding: it crosses fences and cannot be undone below.' : 'Not binding.',
    `Priority ${assignment.priority ?? 500}.`,
    courtesyWords(assignment.courtesy),
    assignment.leaving === 'remove'
      ? 'Removed when a device leaves its reach.'
      : 'Stays when a device leaves its reach.',
    ...(assignment.menu === true ? ['It stands in the device’s menu.'] : []),
    ...(assignment.note === undefined ? [] : [`Note: ${assignment.note}.`]),
  ].join(' ')
}

/** A wave in a few words; the last one takes whoever is left. */
export function waveWords(wave: Wave, last: boolean, name: (target: string) => string): string {
  const taken = wave.share === undefined ? (wave.to ?? []).map(name).join(', ') : `${wave.share} in 100`
  return last ? (taken === '' || wave.share !== undefined ? 'the rest' : `${taken} and the rest`) : taken
}

/** How far an open wave has come. */
export function laneWords(lane: {
  readonly decided: number
  readonly inPlace: number
  readonly failed: number
}): string {
  return `${lane.inPlace} of ${lane.decided} in place${lane.failed > 0 ? `, ${lane.failed} failed` : ''}`
}

/** How waves go on, in one line. */
export function rolloutWords(rollout: Rollout | undefined): string {
  const { opens, stops } = rollout ?? {}
  const least = (n: number | undefined) => (n === undefined ? '' : `, and at least ${n}`)
  const when = [
    ...(opens?.inPlace === undefined
      ? []
      : [`when ${opens.inPlace} in 100 of the last are in place${least(opens.atLeast)}`]),
    ...(opens?.after === undefined ? [] : [`${periodWords(opens.after)} after the last at the earliest`]),
    ...(opens?.notBefore === undefined ? [] : [`not before ${fullInstant(opens.notBefore)}`]),
  ]
  const open = when.length === 0 ? 'Each opens by hand' : `The next opens by itself ${when.join(', ')}`
  const stop =
    stops === undefined
      ? ''
      : `; they stop when more than ${stops.failed} in 100 of those that tried have failed${least(stops.atLeast)}`
  return `${open}${stop}. Closing a wave puts those that do not have it yet back to later.`
}

/** What is wrong with the deadline by itself; nothing where it is well. */
export function deadlineProblem(assignment: Assignment, now: number): string | undefined {
  const { deadline, from } = assignment
  const at = deadline?.at ?? deadline?.local
  if (at === undefined) {
    return undefined
  }
  const instant = Date.parse(at)
  if (from !== undefined && instant <= Date.parse(from)) {
    return 'The deadline is before it begins; move one of the two.'
  }
  return instant < now
    ? `This deadline has passed (${fullInstant(at)}): devices do it as soon as they may. Choose a later one, or none.`
    : undefined
}
