import type { Measured, Pick, PickWeight } from '../api'

/** A term as a row of a table, with what is known of it here. */
export type TermLine = {
  key: string
  text: string
  numbers: Measured
  /** The pick of this product that it is. */
  pick?: Pick
  /** How the listing holds it; only for picks that are weighed. */
  weight?: PickWeight
  /** Whether the listing is built around it. */
  lead?: boolean
}

/** The numbers of a term that nobody has measured. */
export const unknownNumbers: Measured = {
  volume: null,
  volumeBelow: null,
  competition: null,
  titlesHolding: null,
  clickCost: null,
  popularity: null,
  headroom: null,
  band: null,
  months: null,
  from: null,
  source: null,
  takenAt: null,
  kept: [],
  doubts: [],
  trend: null,
  webVolume: null,
  bands: { volume: null, competition: null, titles: null, clickCost: null, headroom: null, webVolume: null },
  clicks: null,
  orders: null,
  sales: null,
}

/** Picks that are weighed as rows, in their order. A row stays the same object while its weight and its pick do, so that it is not drawn again. */
export function weighedLines(terms: PickWeight[] | undefined, picks: Pick[] | undefined, leadKey: string | null | undefined): TermLine[] {
  const byKey = new Map(picks?.map((p) => [p.key, p]))
  return (terms ?? []).map((weight) => {
    const [pick, lead] = [byKey.get(weight.key), weight.key === leadKey]
    const made = lines.get(weight)
    if (made && made.pick === pick && made.lead === lead) return made
    const line: TermLine = { key: weight.key, text: weight.text, numbers: pick?.numbers ?? unknownNumbers, pick, weight, lead }
    lines.set(weight, line)
    return line
  })
}

const lines = new WeakMap<PickWeight, TermLine>()
