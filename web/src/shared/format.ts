const whole = new Intl.NumberFormat('en-GB')
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' })
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const full = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'long' })

export function count(n: number): string {
  return whole.format(n)
}

/** "1 device", "12 devices". */
export function some(n: number, one: string, many = `${one}s`): string {
  return `${count(n)} ${n === 1 ? one : many}`
}

/** Bytes in binary units: 412 MiB. */
export function bytes(n: number): string {
  const units = ['B', 'KiB', 'MiB', 'GiB', 'TiB']
  let value = n
  let unit = 0
  while (value >= 1024 && unit < units.length - 1) {
    value /= 1024
    unit += 1
  }
  return `${value >= 100 || unit === 0 ? Math.round(value) : value.toFixed(1)} ${units[unit]}`
}

const MINUTE = 60
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR

/** A stretch of seconds in its two largest units: "4 d 11 h". */
export function stretch(seconds: number): string {
  const s = Math.max(0, Math.round(seconds))
  if (s < MINUTE) {
    return `${s} s`
  }
  if (s < HOUR) {
    return `${Math.floor(s / MINUTE)} min`
  }
  if (s < DAY) {
    return two(Math.floor(s / HOUR), 'h', Math.floor((s % HOUR) / MINUTE), 'min')
  }
  return two(Math.floor(s / DAY), 'd', Math.floor((s % DAY) / HOUR), 'h')
}

function two(large: number, largeUnit: string, small: number, smallUnit: string): string {
  return small === 0 ? `${large} ${largeUnit}` : `${large} ${largeUnit} ${small} ${smallUnit}`
}

/** "2 min ago", "in 4 d 11 h", "now". */
export function fromNow(instant: string, now: number): string {
  const seconds = (Date.parse(instant) - now) / 1000
  if (Math.abs(seconds) < 2) {
    return 'now'
  }
  return seconds < 0 ? `${stretch(-seconds)} ago` : `in ${stretch(seconds)}`
}

export function timeOfDay(instant: string): string {
  return clock.format(new Date(instant))
}

/** "3 Nov"; today's as the time of day. */
export function date(instant: string, now: number): string {
  const sameDay = new Date(instant).toDateString() === new Date(now).toDateString()
  return sameDay ? `today ${clock.format(new Date(instant)).slice(0, 5)}` : day.format(new Date(instant))
}

/** "3 Nov 2036". */
export function dateWithYear(instant: string): string {
  return new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}

/** "Tue 1 Dec 02:30"; today's as the time of day, to the minute. */
export function moment(instant: string, now: number): string {
  const at = new Date(instant)
  const minute = clock.format(at).slice(0, 5)
  return at.toDateString() === new Date(now).toDateString()
    ? `today ${minute}`
    : `${at.toLocaleDateString('en-GB', { weekday: 'short' })} ${day.format(at)} ${minute}`
}

/** "between today 10:02 and today 10:20"; where both are the same minute, about that. */
export function between(from: string, to: string, now: number): string {
  const first = moment(from, now)
  const last = moment(to, now)
  return first === last ? `about ${first}` : `between ${first} and ${last}`
}

export function fullInstant(instant: string): string {
  return full.format(new Date(instant))
}

/** An id made of a name: at most 40 small letters, digits and single hyphens, none of those at an end. */
export function idOf(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-/, '')
    .slice(0, 40)
    .replace(/-$/, '')
}
