import { useMemo } from 'react'
import { useAddress } from '../../kit/address'
import type { ListingLine } from '../../kit/api'
import { lostRank, wholePercent } from '../../kit/demand'
import { compact, counted, fixed, full } from '../../kit/numbers'
import { sortChanges, sortIn } from '../../kit/sort'
import { type Column, sortRows, Table } from '../../kit/table'
import { Lost } from './columns'

type Row = { id: number; name: string; listings: Map<string, ListingLine>; lost: number | null; lostPicks: number; rank: number }

/** Products × platforms: reach, grip and what is lost in each place; the product that loses the most comes first. */
export function ProductGrid(p: { rows: ListingLine[]; platforms: [string, string][]; open: (l: ListingLine) => void }) {
  const [params, set] = useAddress()
  const rows = useMemo(() => {
    const products = new Map<number, Row>()
    for (const l of p.rows) {
      const row = products.get(l.productId) ?? { id: l.productId, name: l.product, listings: new Map(), lost: null, lostPicks: 0, rank: 0 }
      row.listings.set(l.platformId, l)
      const lost = l.score?.lost ?? null
      row.lost = lost === null ? row.lost : (row.lost ?? 0) + lost
      row.lostPicks += l.score?.lostPicks ?? 0
      row.rank += lostRank(l.score) ?? 0
      products.set(l.productId, row)
    }
    return [...products.values()]
  }, [p.rows])
  const columns = useMemo(() => columnsOf(p.platforms, p.open), [p.platforms, p.open])
  const sort = sortIn(params, { key: 'lost', down: true })
  const sorted = sortRows(rows, columns, sort)
  const at = Math.max(
    0,
    sorted.findIndex((r) => String(r.id) === params.get('product')),
  )
  const worst = (r: Row) => [...r.listings.values()].sort((a, b) => (lostRank(b.score) ?? -1) - (lostRank(a.score) ?? -1))[0]
  return (
    <Table
      name="Products by platform"
      rows={sorted}
      columns={columns}
      id={(r) => String(r.id)}
      at={sorted.length > 0 ? at : -1}
      rowHeight={48}
      onAt={(_, r) => set({ product: r ? String(r.id) : null })}
      onEnter={(r) => p.open(worst(r))}
      sort={sort}
      onSort={(s) => set(sortChanges(s))}
      empty={<span className="quiet">No listing passes the filter.</span>}
    />
  )
}

function columnsOf(platforms: [string, string][], open: (l: ListingLine) => void): Column<Row>[] {
  return [
    {
      key: 'name',
      head: 'Product',
      width: 'minmax(170px,1fr)',
      words: true,
      value: (r) => r.name,
      cell: (r) => <b className="font-semibold">{r.name}</b>,
    },
    {
      key: 'lost',
      head: 'Lost in all',
      title: 'Searches per month of its picks that can’t find it, in all places together',
      width: '84px',
      right: true,
      value: (r) => r.rank,
      cell: (r) => <Lost of={r} />,
    },
    ...platforms.map(
      ([id, name]): Column<Row> => ({
        key: `p-${id}`,
        head: name,
        title: `${name}: sort by lost searches`,
        width: 'minmax(104px,0.6fr)',
        value: (r) => lostRank(r.listings.get(id)?.score),
        cell: (r) => {
          const l = r.listings.get(id)
          if (!l) return <span className="quiet text-[13px]">not listed</span>
          if (!l.score) return <span className="quiet">…</span>
          const { reach, grip, lost, lostPicks, required } = l.score
          return (
            <button
              type="button"
              tabIndex={-1}
              className="block w-full text-left leading-tight cursor-pointer"
              title={`Reach ${reach === null ? 'no picks' : `${wholePercent(reach)}%`}, grip ${grip === null ? 'no picks' : fixed(grip, 0)}, ${lost === null ? `${counted(lostPicks, 'pick')}` : `${full(lost)} searches/mo`} lost. Open it.`}
              onClick={() => open(l)}
            >
              <span className={`num ${lost === 0 ? 'quiet' : ''}`}>{lost === null ? counted(lostPicks, 'pick') : compact(lost)}</span>
              {required > 0 && <span className="text-accent font-semibold text-[12.5px]"> {required} required</span>}
              <span className="block h-1.5 bg-base-300 rounded-sm overflow-hidden mt-1" aria-hidden="true">
                <span className="block h-full bg-base-content" style={{ width: `${grip ?? 0}%` }} />
              </span>
            </button>
          )
        },
      }),
    ),
  ]
}
