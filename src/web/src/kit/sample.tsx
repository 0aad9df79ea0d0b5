import type { Market } from './api'

/** Says that a market's numbers are made up. */
export function SampleBadge({ market }: { market: Pick<Market, 'simulated'> }) {
  if (!market.simulated) return null
  return (
    <span
      className="sample"
      title="These numbers are simulated by the market that ships with Tin Rabbit. They describe no real shoppers."
      data-testid="sample"
    >
      Sample data
    </span>
  )
}
