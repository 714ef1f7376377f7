import { hasWords } from '../../../shared/text'
import type { Offer, Shelf } from '../api/shelf'

/** The categories of what is offered, in order; none where there would be no choice. */
export function categoriesOf(offers: readonly Offer[]): readonly string[] {
  const all = [...new Set(offers.map(offer => offer.category).filter(category => category !== ''))].sort()
  return all.length > 1 ? all : []
}

/** Those of a category, or of any, that are called so. */
export function offersWith(offers: readonly Offer[], words: string, category: string | undefined): readonly Offer[] {
  return offers.filter(
    offer =>
      (category === undefined || offer.category === category) &&
      hasWords(words, offer.name, offer.maker, offer.description, offer.category),
  )
}

const SOON_MS = 2500
const SELDOM_MS = 30_000
const NEAR_MS = 120_000

/** How long until it is looked at again: soon while something moves, or is expected to. */
export function nextLook(shelf: Shelf | undefined, now: number): number {
  const moves =
    shelf?.offers.some(offer => ['under-way', 'waiting', 'leaving'].includes(offer.state)) === true ||
    shelf?.coming.some(
      one => one.percent !== undefined || (one.due !== undefined && Math.abs(Date.parse(one.due) - now) < NEAR_MS),
    ) === true ||
    (shelf?.notices.length ?? 0) > 0
  return moves ? SOON_MS : SELDOM_MS
}
