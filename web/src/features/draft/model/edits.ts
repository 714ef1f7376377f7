import type { Edit } from '../api/draft'

type Place = Edit['places'][number]

/** An edit in words: "Require Siltscope Lab on Trunk mains, where nothing was assigned". */
export interface EditWords {
  readonly verb: string
  readonly name: string
  /** Empty where the edit is about no place. */
  readonly where: string
  readonly was: string
  readonly choices: string
}

export function editWords(edit: Edit): EditWords {
  const first = edit.places[0]
  const choices = Object.entries(edit.choices).map(([choice, value]) => `${choice} ${value === '' ? 'none' : value}`)
  return {
    verb: verb(edit, first),
    name: edit.name,
    where: edit.places.length === 0 ? '' : places(edit.places),
    was: was(edit, first),
    choices: choices.join(', '),
  }
}

const KINDS: Record<Edit['kind'], string> = {
  assignment: 'assignment',
  collection: 'collection',
  fence: 'fence around',
  kit: 'kit',
  window: 'maintenance window',
  title: 'title',
}

function verb(edit: Edit, place: Place | undefined): string {
  if (edit.act === 'open-wave') {
    return 'Open the next wave of'
  }
  if (edit.act === 'accept') {
    return 'Accept the licence text of'
  }
  if (place === undefined) {
    return edit.act === 'retire'
      ? `Delete the ${KINDS[edit.kind]}`
      : `${edit.revision === 0 ? 'Add' : 'Edit'} the ${KINDS[edit.kind]}`
  }
  switch (place.intent) {
    case 'required':
      return edit.binding ? 'Require, binding' : 'Require'
    case 'available':
      return edit.binding ? 'Offer, binding' : 'Offer'
    case 'uninstall':
      return edit.binding ? 'Remove, binding' : 'Remove'
    case 'none':
      return 'End'
  }
}

function was(edit: Edit, place: Place | undefined): string {
  if (place === undefined) {
    return ''
  }
  switch (place.was) {
    case 'required':
      return 'was Require'
    case 'available':
      return 'was Offer'
    case 'uninstall':
      return 'was Remove'
    case undefined:
      return edit.revision === 0 ? 'nothing was assigned here' : 'was not assigned here'
  }
}

function places(all: readonly Place[]): string {
  const names = all.slice(0, 2).map(placeName)
  return all.length <= 2 ? names.join(' and ') : `${names.join(', ')} and ${all.length - 2} more`
}

function placeName(place: Place): string {
  return place.name ?? 'an OU that has gone'
}

/** What somebody else has made of it meanwhile; null where nobody has. */
export function changedSince(edit: Edit): string | null {
  const theirs = edit.changedSince
  if (theirs === undefined) {
    return null
  }
  return theirs.by === undefined || theirs.now === undefined
    ? 'It has been deleted since you edited it.'
    : `${theirs.by} has changed it since: ${theirs.now}.`
}

/** The edit that concerns an OU, and what it shall be there. */
export function editAt(edits: readonly Edit[], subject: string, ou: string): Edit | undefined {
  return edits.find(edit => edit.subject === subject && edit.places.some(place => place.target === `ou:${ou}`))
}
