import { useQuery } from '@tanstack/react-query'
import { useAddress } from '../kit/address'
import { api, ask, type FoundRival } from '../kit/api'
import { wholePercent } from '../kit/demand'
import { Key } from '../kit/key'
import { Num } from '../kit/num'
import { counted, fixed, full, money } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { useSelection } from '../kit/selection'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { type Column, Table } from '../kit/table'
import { seenOn, ToBring } from '../kit/tobring'
import { Bar } from '../kit/viewframe'

/** The market's results for a term, to choose rivals from: Space selects, Enter saves. */
export function RivalChoice({ desk, add }: { desk: Desk; add: (ids: string[]) => Promise<unknown> }) {
  const [params, set] = useAddress()
  const [marked, mark, clear] = useSelection()
  const term = params.get('rivalterm') ?? ''
  const found = useQuery({
    queryKey: queryKey('rivals', 'found', desk.listingId, desk.market.id, term),
    queryFn: ({ signal }) =>
      ask(
        api.GET('/api/listings/{id}/rivals/found', {
          params: { path: { id: desk.listingId }, query: { marketId: desk.market.id, term: term || undefined } },
          signal,
        }),
      ),
    placeholderData: (before) => before,
  })
  const rows = found.data?.results ?? []
  const id = (r: FoundRival) => r.id ?? `${r.shop} ${r.title}`
  const at = Math.max(
    0,
    rows.findIndex((r) => id(r) === params.get('at')),
  )
  const free = (r: FoundRival | undefined) => r?.id != null && !r.isSaved && !r.isMine
  const row = rows[at]
  const read = () => row && set({ read: String(at + 1), readterm: found.data?.term ?? null })
  useShortcuts({ readRival: read })
  const save = async (row?: FoundRival) => {
    const ids = marked.size > 0 ? [...marked] : row?.id && free(row) ? [row.id] : []
    if (ids.length === 0) return
    clear()
    set({ choose: null, at: null })
    await add(ids)
  }
  return (
    <div className="grid min-h-0" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
      <form
        className="flex flex-wrap gap-2 items-baseline mb-1"
        onSubmit={(e) => {
          e.preventDefault()
          set({ rivalterm: new FormData(e.currentTarget).get('term') as string, at: null })
        }}
      >
        <label className="text-[14px] flex items-baseline gap-2">
          Results for
          <input
            key={found.data?.term}
            name="term"
            className="inline-input"
            defaultValue={term || found.data?.term}
            maxLength={200}
            size={28}
          />
        </label>
        <span className="quiet text-[13.5px]">
          {found.data
            ? `${found.data.results === null ? '' : rows.length === 0 ? 'No results' : `${found.data.found === null ? '' : `${counted(found.data.found, 'result')}; `}the first ${full(rows.length)}, weighed for your picks${found.data.seen ? `. ${seenOn(found.data.seen)}` : ''}`}`
            : 'Searching…'}
        </span>
        <button type="button" className="pill ml-auto" disabled={!row} onClick={read}>
          Its text and terms <Key of="readRival" />
        </button>
        <button
          type="button"
          className="btn btn-sm btn-primary"
          disabled={marked.size === 0 && !free(rows[at])}
          onClick={() => save(rows[at])}
        >
          {marked.size > 1 ? `Save ${full(marked.size)} rivals` : 'Save as rival'}{' '}
          <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
      </form>
      <Table
        name="Search results"
        rows={rows}
        columns={columnsFor(desk.market.currency)}
        id={id}
        at={rows.length > 0 ? at : -1}
        rowHeight={46}
        onAt={(_, r) => set({ at: r ? id(r) : null })}
        onEnter={save}
        marked={marked}
        onMark={(ids, on) =>
          mark(
            ids.filter((i) => free(rows.find((r) => id(r) === i))),
            on,
          )
        }
        empty={
          <span className="quiet">
            {found.isError ? (
              found.error.message
            ) : found.isPending ? (
              'Searching…'
            ) : found.data?.term === '' ? (
              'No picks yet, so there is nothing to search for. Enter a term above.'
            ) : found.data?.results === null ? (
              <ToBring market={desk.market} term={found.data.term} what="No results of this term known here." />
            ) : (
              'The market shows no listings for this term. Try another term, paste a rival’s listing, or import a file.'
            )}
          </span>
        }
      />
    </div>
  )
}

const columnsFor = (currency: string): Column<FoundRival>[] => [
  {
    key: 'name',
    head: 'Listing',
    width: 'minmax(200px,1fr)',
    cell: (r) => (
      <span className="block leading-tight overflow-hidden">
        <b className="font-semibold">{r.shop}</b>
        {r.isSaved && <span className="mark ml-2">saved</span>}
        {r.isMine && <span className="mark ml-2">yours</span>}
        {r.id === null && <span className="quiet ml-2 text-[12.5px]">can’t be looked up again; paste it instead</span>}
        <span className="block quiet text-[13px] truncate" title={r.title}>
          {r.title}
        </span>
      </span>
    ),
  },
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly it holds your picks, 0–100',
    width: '140px',
    cell: (r) => <Bar value={r.grip} shown={fixed(r.grip, 0)} />,
  },
  { key: 'reach', head: 'Reach', width: '52px', right: true, cell: (r) => <span className="num">{wholePercent(r.reach)}%</span> },
  { key: 'price', head: 'Price', width: '72px', right: true, cell: (r) => <span className="num">{money(r.price, currency)}</span> },
  { key: 'ratings', head: 'Ratings', width: '64px', right: true, cell: (r) => <Num value={r.ratings} unit="ratings" /> },
  {
    key: 'sales',
    head: 'Sales/mo',
    width: '70px',
    right: true,
    cell: (r) =>
      r.occupancy !== null ? <span className="num">{fixed(r.occupancy * 100, 0)}% taken</span> : <Num value={r.sales} unit="sales/mo" />,
  },
]
