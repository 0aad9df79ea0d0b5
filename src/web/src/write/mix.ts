import type { Schemas } from '../kit/api'
import { noData } from '../kit/numbers'

/** How many terms have which competition, as a list of those that there are. */
export const mixText = (mix: Schemas['CompetitionMix']) =>
  [
    [mix.low, 'low'],
    [mix.medium, 'medium'],
    [mix.high, 'high'],
    [mix.unknown, noData.toLowerCase()],
  ]
    .filter(([n]) => n)
    .map(([n, name]) => `${n} ${name}`)
    .join(', ') || noData.toLowerCase()
