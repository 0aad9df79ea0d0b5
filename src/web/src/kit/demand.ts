import type { Schemas, WeighedListing } from './api'
import { counted, fixed, full } from './numbers'

type Counted = Pick<Schemas['WeighingView'], 'basis' | 'assumed' | 'picks' | 'unknownVolume'>

/** What the picks count by, as a sentence, where some of their searches are not known; otherwise nothing. */
export function countedBy({ basis, assumed, picks, unknownVolume }: Counted): string {
  if (picks === 0 || basis === 'measured') return ''
  if (basis === 'counted') return 'No search numbers: each pick counts the same.'
  const some = `${full(unknownVolume)} of ${counted(picks, 'pick')} without numbers`
  return unknownVolume === 1 ? `${some} counts as ${full(assumed)}.` : `${some} count as ${full(assumed)} each.`
}

/** A share in percent without decimals: 100 only where all of it is meant, 0 only where nothing is. */
export const wholePercent = (share: number) => fixed(share > 99 && share < 100 ? 99 : share > 0 && share < 1 ? 1 : share, 0)

/** Picks in the order of what they count for, the most first. */
export const dearest = <T extends { worth: number | null }>(terms: readonly T[]) =>
  [...terms].sort((a, b) => (b.worth ?? -1) - (a.worth ?? -1))

/**
 * What a listing is ordered by: the searches that it loses. Where no pick has numbers, what it does not reach; such listings stand below those
 * that lose searches. Nothing while it is not weighed.
 */
export const lostRank = (score: WeighedListing | null | undefined) => score && (score.lost ?? (100 - (score.reach ?? 100)) / 100)
