import { useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Mover } from '../kit/api'
import { Num } from '../kit/num'
import { counted, dayName, full } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { signed } from './names'

const periods = [7, 14, 28]

/** The watched listings of the shop, those that moved most first. */
export function Movers({ head }: { head: React.ReactNode }) {
  const [params, set] = useAddress()
  const navigate = useNavigate()
  const days = periods.find((d) => String(d) === params.get('days')) ?? 14
  const query = useQuery({
    queryKey: queryKey('movers', days),
    queryFn: () => ask(api.GET('/api/movers', { params: { query: { days } } })),
    placeholderData: (before) => before,
  })
  const sort = sortIn(params, null)
  const columns = moverColumns
  const rows = sortRows(query.data?.listings ?? [], columns, sort)
  const at = Math.max(
    0,
    rows.findIndex((m) => `${m.listingId} ${m.marketId}` === params.get('at')),
  )
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr)' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid="movers">
        {head}
        <div className="mb-2">
          <h1 className="text-[24px] font-bold leading-tight">{counted(rows.length, 'watched listing')}, the largest movers first</h1>
          <p className="quiet text-[13.5px]">
            {query.data && `The last ${full(days)} days up to ${dayName(query.data.until)} against the ${full(days)} before. `}
            <kbd>Enter</kbd> opens a listing by day.
          </p>
          <span className="flex gap-1 mt-2" role="group" aria-label="Period">
            {periods.map((d) => (
              <button key={d} type="button" className="choice" aria-pressed={d === days} onClick={() => set({ days: String(d) })}>
                {full(d)} days
              </button>
            ))}
          </span>
        </div>
        <Table
          name="Watched listings"
          rows={rows}
          columns={columns}
          id={(m) => `${m.listingId} ${m.marketId}`}
          at={rows.length > 0 ? at : -1}
          rowHeight={38}
          onAt={(_, m) => set({ at: m ? `${m.listingId} ${m.marketId}` : null })}
          onEnter={(m) => navigate(`/${m.productId}/${m.marketId}/watch?view=days`)}
          sort={sort}
          onSort={(s) => set(sortChanges(s))}
          empty={
            <span>
              <b className="block">{query.isError ? query.error.message : query.isPending ? 'Loading…' : 'No listing is watched yet'}</b>
              {!query.isPending && <span className="quiet">A listing is watched from its first send on.</span>}
            </span>
          }
        />
      </section>
    </main>
  )
}

const figure = (key: 'views' | 'clicks' | 'sales', head: string): Column<Mover>[] => [
  {
    key,
    head,
    width: '76px',
    narrow: key === 'clicks' ? false : '52px',
    right: true,
    value: (m) => m[key].now,
    cell: (m) => <Num value={m[key].now} unit={key} />,
  },
  {
    key: `${key}-moved`,
    head: 'Moved',
    title: `${head}: how much more or less than before`,
    width: '76px',
    narrow: false,
    right: true,
    value: (m) => (m[key].now === null || m[key].before === null ? null : m[key].now - m[key].before),
    cell: (m) => <Moved before={m[key].before} now={m[key].now} />,
  },
]

const moverColumns: Column<Mover>[] = [
  {
    key: 'listing',
    head: 'Listing',
    width: 'minmax(200px,1fr)',
    narrow: 'minmax(0,1fr)',
    words: true,
    value: (m) => m.product,
    cell: (m) => (
      <span className="block truncate" title={`${m.product}, ${m.platform}, ${m.country}`}>
        {m.product}{' '}
        <span className="quiet">
          {m.platform}, {m.country}
        </span>
      </span>
    ),
  },
  { key: 'line', head: 'Views by day', width: '170px', narrow: false, cell: (m) => <Line values={m.daily} /> },
  ...figure('views', 'Views'),
  ...figure('clicks', 'Clicks'),
  ...figure('sales', 'Sales'),
  {
    key: 'found',
    head: 'Found for',
    title: 'Terms of the last check that find it',
    width: '92px',
    narrow: '72px',
    right: true,
    value: (m) => m.found,
    cell: (m) => (m.found === null ? <Num value={null} /> : <span className="num">{`${full(m.found)} of ${full(m.checked)}`}</span>),
  },
  {
    key: 'flips',
    head: 'Flipped',
    title: 'Terms that find it now and did not, or the reverse',
    width: '96px',
    narrow: false,
    right: true,
    value: (m) => m.appeared + m.disappeared,
    cell: (m) =>
      m.appeared + m.disappeared === 0 ? (
        <span className="quiet">none</span>
      ) : (
        <span className="num">{`+${m.appeared} −${m.disappeared}`}</span>
      ),
  },
]

function Moved({ before, now }: { before: number | null; now: number | null }) {
  if (before === null || now === null) return <Num value={null} />
  const moved = now - before
  return (
    <span className="num" title={`${full(before)} before`}>
      {before > 0 ? signed((moved / before) * 100) : moved === 0 ? '0' : `+${full(moved)}`}
    </span>
  )
}

/** The days of two periods as a small line; the later period stronger. */
function Line({ values }: { values: (number | null)[] }) {
  const most = Math.max(1, ...values.map((v) => v ?? 0))
  const [wide, tall] = [160, 24]
  const step = wide / values.length
  return (
    <svg width={wide} height={tall} aria-hidden="true">
      {values.map((v, i) =>
        v === null ? null : (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: one bar a day
            key={i}
            x={i * step}
            y={tall - (v / most) * tall}
            width={Math.max(1, step - 1)}
            height={(v / most) * tall}
            fill={i >= values.length / 2 ? 'var(--color-primary)' : 'var(--tin-2)'}
          />
        ),
      )}
    </svg>
  )
}
