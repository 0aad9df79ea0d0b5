import type { Measured, Schemas } from './api'
import { withoutMarks, wordsOf } from './words'

type Shape = NonNullable<Schemas['Shape']>

export const shapes = ['rising', 'fading', 'seasonal', 'steady', 'one-off', 'sparse'] as const satisfies readonly Shape[]

/** What a shelf is filtered by; null or empty filters nothing. */
export type Limits = {
  has: string
  volume: number | null
  competition: number | null
  headroom: number | null
  titles: number | null
  cost: number | null
  last: number | null
  growth3: number | null
  growth: number | null
  web: number | null
  clicks: number | null
  orders: number | null
  sales: number | null
  shape: Shape | ''
  source: string
}

/** The filters as the address names them. */
export const filterParams = [
  'has',
  'volume',
  'competition',
  'headroom',
  'titles',
  'cost',
  'last',
  'growth3',
  'growth',
  'web',
  'clicks',
  'orders',
  'sales',
  'shape',
  'source',
]

/** The filters that an address has. */
export function limitsOf(params: URLSearchParams): Limits {
  const number = (key: string) => {
    const value = params.get(key)
    return value && Number.isFinite(Number(value)) ? Number(value) : null
  }
  return {
    has: params.get('has') ?? '',
    volume: number('volume'),
    competition: number('competition'),
    headroom: number('headroom'),
    titles: number('titles'),
    cost: number('cost'),
    last: number('last'),
    growth3: number('growth3'),
    growth: number('growth'),
    web: number('web'),
    clicks: number('clicks'),
    orders: number('orders'),
    sales: number('sales'),
    shape: shapes.find((s) => s === params.get('shape')) ?? '',
    source: params.get('source') ?? '',
  }
}

/** The filters that are numbers or a source, as the shelf takes them. */
export const bounds = (l: Limits) => ({
  volumeFrom: l.volume,
  competitionTo: l.competition,
  headroomFrom: l.headroom,
  titlesTo: l.titles,
  clickCostTo: l.cost,
  lastMonthFrom: l.last,
  change3From: l.growth3,
  change12From: l.growth,
  webVolumeFrom: l.web,
  clicksFrom: l.clicks,
  ordersFrom: l.orders,
  salesFrom: l.sales,
  shape: l.shape || null,
  source: l.source || null,
})

/** A question to the shelf for what the filters of an address let pass. */
export const shelfQuery = (params: URLSearchParams) => {
  const limits = limitsOf(params)
  return { has: limits.has || null, ...bounds(limits) }
}

/**
 * Whether a row passes the filters, as the server decides it for the shelf (ShelfColumns): every word typed is part of the term, with
 * its accents or without them, and no word typed after a minus is.
 */
export const passing = (l: Limits) => {
  const typed = l.has.split(/\s+/).filter(Boolean)
  const isExcluded = (w: string) => w.length > 1 && w.startsWith('-')
  const without = typed.filter(isExcluded).flatMap((w) => wordsOf(w.slice(1)))
  const words = typed.filter((w) => !isExcluded(w)).flatMap(wordsOf)
  const least = (value: number | null, bound: number | null) => bound === null || (value !== null && value >= bound)
  const most = (value: number | null, bound: number | null) => bound === null || (value !== null && value <= bound)
  return ({ key, numbers: n }: { key: string; numbers: Measured }) => {
    const text = `${key}\n${withoutMarks(key)}`
    return (
      words.every((w) => text.includes(w)) &&
      !without.some((w) => text.includes(w)) &&
      least(n.volume, l.volume) &&
      most(n.competition, l.competition) &&
      least(n.headroom, l.headroom) &&
      most(n.titlesHolding, l.titles) &&
      most(n.clickCost, l.cost) &&
      least(n.trend?.lastMonth ?? null, l.last) &&
      least(n.trend?.change3 ?? null, l.growth3) &&
      least(n.trend?.change12 ?? null, l.growth) &&
      least(n.webVolume ?? null, l.web) &&
      least(n.clicks ?? null, l.clicks) &&
      least(n.orders ?? null, l.orders) &&
      least(n.sales ?? null, l.sales) &&
      (!l.shape || n.trend?.shape === l.shape) &&
      (!l.source || n.source === l.source)
    )
  }
}
