import { useQuery } from '@tanstack/react-query'
import { api, ask, type Market } from './api'
import { useChanges } from './changes'
import { counted } from './numbers'
import { queryKey } from './queries'
import { useConnected } from './shop'

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

/** In a shop of one's own: what an older version left of simulated markets, and a clock that was set right. */
export function SampleNotice() {
  const connected = useConnected()
  const { run } = useChanges()
  const left = useQuery({
    queryKey: queryKey('sample'),
    queryFn: () => ask(api.GET('/api/sample-data')),
    enabled: !connected,
  }).data
  if (!left) return null
  const parts = [
    left.terms > 0 && counted(left.terms, 'term'),
    left.checks > 0 && counted(left.checks, 'check'),
    left.figures > 0 && counted(left.figures, 'day of figures', 'days of figures'),
    left.notes > 0 && counted(left.notes, 'note'),
  ].filter((p) => p !== false)
  if (left.daysAhead === 0 && parts.length === 0) return null
  const keep = (
    <button type="button" className="link" onClick={() => run(() => ask(api.POST('/api/sample-data/keep')))}>
      {parts.length > 0 ? 'Keep it' : 'Close'}
    </button>
  )
  return (
    <aside className="border-l-4 border-primary pl-3 py-1 mb-3 text-[14px]" data-testid="sample-notice" role="status">
      {left.daysAhead > 0 && (
        <p>
          <b>The clock of this shop is set right.</b> An earlier version could move it; it was {counted(left.daysAhead, 'day')} ahead. The
          shop was backed up before.
        </p>
      )}
      {parts.length > 0 && (
        <p>
          Sample data, or data of a day to come, is in your shop: {parts.join(', ')}.{' '}
          <button type="button" className="link" onClick={() => run(() => ask(api.POST('/api/sample-data/delete')))}>
            Delete it
          </button>{' '}
          {keep}
        </p>
      )}
      {parts.length === 0 && keep}
    </aside>
  )
}
