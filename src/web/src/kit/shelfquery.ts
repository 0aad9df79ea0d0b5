/** What a shelf is filtered by; null or empty filters nothing. */
export type Limits = {
  has: string
  volume: number | null
  competition: number | null
  headroom: number | null
  titles: number | null
  cost: number | null
  source: string
}

/** The filters as the address names them. */
export const filterParams = ['has', 'volume', 'competition', 'headroom', 'titles', 'cost', 'source']

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
  source: l.source || null,
})

/** A question to the shelf for what the filters of an address let pass. */
export const shelfQuery = (params: URLSearchParams) => {
  const limits = limitsOf(params)
  return { has: limits.has || null, ...bounds(limits) }
}
