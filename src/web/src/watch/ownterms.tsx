import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useRef } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Market, type OwnTerm, type Schemas } from '../kit/api'
import { ownTermsQuery } from '../kit/listingqueries'
import { homeName } from '../kit/names'
import { Num } from '../kit/num'
import { counted, dayName, full } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { useShop } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { gradeWords, Thread } from '../kit/thread'

type Row = OwnTerm
type Use = Schemas['ListingWithTerm']

/** The terms of all own listings in a market: which are repeated, which listings hold one, which are found and compete. */
export function OwnTerms({ head }: { head: React.ReactNode }) {
  const [params, set] = useAddress()
  const shop = useShop().data
  const markets = (shop?.markets ?? []).filter((m) => shop?.products.some((p) => p.listings[m.platformId] !== undefined))
  const market = markets.find((m) => m.id === params.get('market')) ?? markets[0]
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 400px' }}>
      {market ? (
        <In key={market.id} market={market} markets={markets} head={head} choose={(id) => set({ market: id, term: null })} />
      ) : (
        <section className="sheet">
          {head}
          <p className="quiet">No listings yet. The terms of your listings will be here.</p>
        </section>
      )}
    </main>
  )
}

function In(p: { market: Market; markets: Market[]; head: React.ReactNode; choose: (id: string) => void }) {
  const { market } = p
  const [params, set] = useAddress()
  const uses = useRef<HTMLElement>(null)
  const query = useQuery(ownTermsQuery(market.id))
  const sort = sortIn(params)
  const text = params.get('text') ?? ''
  const repeated = params.get('repeated') !== null
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const all = query.data?.terms ?? []
  const passing = all.filter((t) => (!repeated || t.picked > 1) && words.every((w) => t.key.includes(w)))
  const rows = sortRows(passing, columns, sort)
  const asked = params.get('term')
  const at = Math.max(
    asked === null ? 0 : -1,
    rows.findIndex((r) => r.text === asked || r.key === asked),
  )
  // A term that no listing picks can be asked for, too: it may still be held.
  const term = rows[at]?.text ?? asked
  const often = all.filter((t) => t.picked > 1).length
  return (
    <>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid="own-terms">
        {p.head}
        <div className="mb-2">
          <h1 className="text-[24px] font-bold leading-tight">
            {query.data
              ? `${counted(all.length, 'term')} of ${counted(query.data.listings, 'listing')}, ${full(often)} in more than one`
              : 'Your terms'}
          </h1>
          <p className="quiet text-[13.5px]">For a repeated term, your listings can compete with each other.</p>
          <span className="flex flex-wrap gap-2 mt-2 items-center">
            <select className="select select-sm w-52" aria-label="Market" value={market.id} onChange={(e) => p.choose(e.target.value)}>
              {p.markets.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.platformName}, {m.countryName}
                </option>
              ))}
            </select>
            <input
              className="input input-sm w-44"
              placeholder="Filter by word"
              aria-label="Filter by word"
              value={text}
              maxLength={120}
              onChange={(e) => set({ text: e.target.value || null })}
              onKeyDown={(e) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()}
            />
            <button type="button" className="choice" aria-pressed={repeated} onClick={() => set({ repeated: repeated ? null : '1' })}>
              Only repeated
            </button>
          </span>
        </div>
        <Table
          name="Own terms"
          rows={rows}
          columns={columns}
          id={(r) => r.key}
          at={rows.length > 0 ? at : -1}
          onAt={(_, r) => set({ term: r?.text ?? null })}
          sort={sort}
          onSort={(s) => set(sortChanges(s))}
          onEnter={() => uses.current?.querySelector<HTMLElement>('a')?.focus()}
          empty={
            <span className="quiet">
              {query.isError
                ? query.error.message
                : query.isPending
                  ? 'Weighing your listings…'
                  : all.length > 0
                    ? 'No term passes the filter.'
                    : 'No picks yet. The picks of all listings in this market will be here.'}
            </span>
          }
        />
      </section>
      <aside className="side" ref={uses}>
        {term && <Across market={market} term={term} />}
      </aside>
    </>
  )
}

/** One term in every listing that has to do with it. */
function Across({ market, term }: { market: Market; term: string }) {
  const query = useQuery({
    queryKey: queryKey('ownterms', market.id, term),
    queryFn: ({ signal }) =>
      ask(
        api.GET('/api/markets/{marketId}/ownterms/listings', {
          params: { path: { marketId: market.id }, query: { term } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  })
  const uses = query.data?.listings ?? []
  const found = uses.filter((u) => u.found)
  const leads = uses.filter((u) => u.isLead).length
  return (
    <div data-testid="across">
      <h3 className="!mt-0">{term}</h3>
      <p className="text-[14px] mb-2">
        {query.isPending
          ? 'Looking through your listings…'
          : uses.length === 0
            ? 'None of your listings there picks it or holds it.'
            : found.length > 1
              ? `${counted(found.length, 'listing')} compete in its results.`
              : found.length === 1
                ? 'One listing is found for it.'
                : uses.some((u) => u.found === false)
                  ? 'None of those that were checked is found for it.'
                  : 'Not checked yet.'}
        {leads > 1 && ` It is the lead of ${leads} listings: give each a lead of its own.`}
      </p>
      <ul>
        {uses.map((u) => (
          <li key={u.listingId} className="border-b border-base-300 py-2 text-[14px]">
            <span className="flex items-baseline gap-2">
              <Link className="link font-semibold" to={`/${u.productId}/${market.id}/write`}>
                {u.product}
              </Link>
              {u.isLead && <span className="mark">lead</span>}
              <span className="ml-auto num whitespace-nowrap">{placeOf(u)}</span>
            </span>
            <span className="quiet text-[13px] flex items-center gap-2 flex-wrap">
              <Thread grade={u.holds} title={gradeWords[u.holds]} />
              {u.holds === 'missing' ? 'no match' : u.fields.length > 0 ? u.fields.join(', ') : 'over several fields'}
              {u.home && `; pick, home ${homeName[u.home]}`}
              {u.checkedOn && `; checked ${dayName(u.checkedOn)}`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}

const placeOf = (u: Use) => (u.found === null ? 'not checked' : !u.found ? 'not found' : u.rank === null ? 'found' : `rank ${u.rank}`)

const number = (key: keyof Row, head: string, title: string, unit: string): Column<Row> => ({
  key,
  head,
  title,
  width: '76px',
  narrow: key === 'picked' ? '76px' : false,
  right: true,
  value: (r) => r[key] as number | null,
  cell: (r) => <Num value={r[key] as number | null} unit={unit} />,
})

const columns: Column<Row>[] = [
  {
    key: 'text',
    head: 'Term',
    width: 'minmax(160px,1fr)',
    narrow: 'minmax(0,1fr)',
    words: true,
    value: (r) => r.text,
    cell: (r) => <b className={r.picked > 1 ? 'font-semibold' : 'font-normal'}>{r.text}</b>,
  },
  { ...number('volume', 'Searches', 'Searches per month', 'searches/mo'), width: '92px' },
  number('picked', 'Listings', 'Listings that pick it', 'listings'),
  number('held', 'Hold it', 'Those of them that hold it', 'listings'),
  number('leads', 'Lead of', 'Listings whose lead it is', 'listings'),
  {
    key: 'found',
    head: 'Found',
    title: 'Listings found at their last check, of those that were checked for it',
    width: '84px',
    narrow: false,
    right: true,
    value: (r) => (r.checked === 0 ? null : r.found),
    text: (r) => (r.checked === 0 ? '' : `${r.found} of ${r.checked}`),
    cell: (r) =>
      r.checked === 0 ? <span className="quiet text-[13px]">no check</span> : <span className="num">{`${r.found} of ${r.checked}`}</span>,
  },
  number('bestRank', 'Best rank', 'The rank of the listing that comes first', ''),
]
