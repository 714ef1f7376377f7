import type { Offer } from '../api/shelf'

type Asks = NonNullable<Offer['asks']>
export type Choice = Asks['choices'][number]
export type Chosen = Readonly<Record<string, string>>

/** What is chosen of a choice: what one has chosen, else what it is without that. */
export function chosenOf(choice: Choice, chosen: Chosen): readonly string[] {
  const value = chosen[choice.id] ?? choice.value
  return choice.many ? value.split(',').filter(one => one !== '') : [value]
}

/** With one of its values chosen, or no longer. */
export function withChoice(choice: Choice, chosen: Chosen, value: string, on: boolean): Chosen {
  if (!choice.many) {
    return { ...chosen, [choice.id]: value }
  }
  const before = new Set(chosenOf(choice, chosen))
  const after = choice.values.map(one => one.value).filter(one => (one === value ? on : before.has(one)))
  return { ...chosen, [choice.id]: after.join(',') }
}

/** Whether somebody has to be asked before they take it. */
export function hasToBeAsked(offer: Offer): boolean {
  return offer.asks?.approval === true || offer.asks?.licence !== undefined
}
