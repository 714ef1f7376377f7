import { bytes, count, some } from '../../../shared/format'
import type { MirrorContent, MirrorLine } from '../api/mirrors'

/** How a copy stands, in words. */
export function copyWords(content: Pick<MirrorContent, 'state' | 'held' | 'size' | 'message'>): string {
  switch (content.state) {
    case 'held':
      return 'there'
    case 'absent':
      return 'not there'
    case 'partly':
      return `${percent(content)} % there`
    case 'waiting':
      return 'waits to be copied'
    case 'copying':
      return `copying, ${percent(content)} %`
    case 'failed':
      return content.message
    default:
      return 'not asked yet'
  }
}

/** Whole percent; never 100 before all of it is there. */
export function percent(content: Pick<MirrorContent, 'held' | 'size'>): number {
  return content.size === 0 ? 100 : Math.floor((100 * content.held) / content.size)
}

/** What a mirror was good for, in words. */
export function savedWords(line: Pick<MirrorLine, 'fetchedBytes' | 'servedBytes' | 'savedBytes'>): string {
  if (line.fetchedBytes === 0) {
    return 'no device has fetched from it yet'
  }
  const saved = line.savedBytes === 0 ? '' : `: ${bytes(line.savedBytes)} less from the server`
  return `devices fetched ${bytes(line.fetchedBytes)} here, which itself fetched ${bytes(line.servedBytes)}${saved}`
}

/** How often devices took it there; empty when none did. */
export function fetchedWords(fetches: number): string {
  return fetches === 0 ? '' : fetches === 1 ? 'fetched once' : `fetched ${count(fetches)} times`
}

/** How a mirror stands, in words. */
export function standingWords(line: MirrorLine, contents: number): string {
  if (line.trouble !== undefined) {
    return line.trouble
  }
  if (line.lookedAt === undefined) {
    return 'not asked yet'
  }
  const held = `holds ${line.held} of ${some(contents, 'file')}`
  return line.copying === 0 ? held : `${held}, copying ${line.copying}`
}
