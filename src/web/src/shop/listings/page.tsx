import { useMemo, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useAddress } from '../../kit/address'
import { api, ask, type ListingLine } from '../../kit/api'
import { useChanges } from '../../kit/changes'
import { Key } from '../../kit/key'
import { useListings, useNextSteps } from '../../kit/listings'
import { messages } from '../../kit/messages'
import { counted, full } from '../../kit/numbers'
import { useResearch } from '../../kit/research'
import { SampleBadge, SampleNotice } from '../../kit/sample'
import { useSelection } from '../../kit/selection'
import { useShop } from '../../kit/shop'
import { ShopHead } from '../../kit/shophead'
import { useShortcuts } from '../../kit/shortcuts'
import { sortChanges, sortIn } from '../../kit/sort'
import { sortRows, Table } from '../../kit/table'
import { ToastLine, toast } from '../../kit/toast'
import { byGain, columns, nextColumn } from './columns'
import { EditMany, type ManyKind } from './editmany'
import { kindName } from './kinds'
import { ProductGrid } from './productgrid'

// Beside an edit there is room for the scores, not for the dates.
const ColumnsBesideEdit = 6
// Until the table says which rows are in sight.
const FirstRows = 20

/** All listings of the shop, the most to gain first: where a seller begins. */
export function ListingsPage() {
  const [params, set] = useAddress()
  const navigate = useNavigate()
  const shop = useShop().data
  const { run } = useChanges()
  const research = useResearch()
  const { query, rows, progress, stop, resume } = useListings(params.get('country'))
  const [marked, mark, clear] = useSelection()
  const [editing, setEditing] = useState<ManyKind | null>(null)
  const box = useRef<HTMLInputElement>(null)
  const text = params.get('text') ?? ''
  const platform = params.get('platform')
  const kind = params.get('finding')
  const of = params.get('of')
  const archived = params.get('archived') !== null
  const grid = params.get('view') === 'platforms'
  const sort = useMemo(() => sortIn(params), [params])
  const passing = useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean)
    return rows.filter(
      (l) =>
        (l.archivedAt !== null) === archived &&
        (platform === null || l.platformId === platform) &&
        (of === null || l.isPage === (of === 'pages')) &&
        (kind === null || (kind === 'any' ? (l.score?.kinds.length ?? 0) > 0 : l.score?.kinds.includes(kind))) &&
        words.every((w) => `${l.product} ${l.platform}`.toLowerCase().includes(w)),
    )
  }, [rows, text, platform, of, kind, archived])
  const sorted = useMemo(() => (sort ? sortRows(passing, columns, sort) : byGain(passing)), [passing, sort])
  const at = Math.max(
    0,
    sorted.findIndex((l) => String(l.id) === params.get('at')),
  )
  const [range, setRange] = useState<[number, number]>([0, FirstRows])
  const steps = useNextSteps(grid ? [] : sorted.slice(range[0], range[1] + 1))
  const allColumns = useMemo(() => [...columns, nextColumn(steps)], [steps])
  const open = (l: ListingLine) =>
    navigate(`/${l.productId}/${l.marketId ?? shop?.markets.find((m) => m.platformId === l.platformId)?.id}/weigh`)
  const selected = sorted.filter((l) => marked.has(String(l.id)))
  const target = selected.length > 0 ? selected : sorted[at] ? [sorted[at]] : []
  // The two views have other columns, so an order of one is none of the other.
  const show = (asGrid: boolean) => set({ view: asGrid ? 'platforms' : null, sort: null, dir: null })
  const begin = (kind: ManyKind) => () => (target.length > 0 ? setEditing(kind) : toast(messages.selectFirst))
  const archive = () => {
    if (target.length === 0) return toast(messages.selectFirst)
    clear()
    run(() => ask(api.POST('/api/listings/archive', { body: { ids: target.map((l) => l.id), isArchived: !archived } })))
  }
  useShortcuts({
    filterListings: () => box.current?.focus(),
    findReplace: begin('replace'),
    tagMany: begin('addTag'),
    archive,
    gridOfPlatforms: () => show(!grid),
    close: editing ? () => setEditing(null) : marked.size > 0 && (() => clear()),
  })
  const platforms = [...new Map(rows.map((l) => [l.platformId, l.platform]))].sort((a, b) => a[1].localeCompare(b[1]))
  const kinds = useMemo(() => {
    const counts = new Map<string, number>()
    for (const l of rows)
      if ((l.archivedAt !== null) === archived) for (const k of l.score?.kinds ?? []) counts.set(k, (counts.get(k) ?? 0) + 1)
    if (kind !== null && kind !== 'any' && !counts.has(kind)) counts.set(kind, 0)
    return [...counts].sort((a, b) => b[1] - a[1])
  }, [rows, archived, kind])
  const archivedCount = rows.filter((l) => l.archivedAt !== null).length
  const lost = passing.reduce((sum, l) => sum + (l.score?.lost ?? 0), 0)
  const lostPicks = passing.reduce((sum, l) => sum + (l.score?.lostPicks ?? 0), 0)
  const required = passing.filter((l) => (l.score?.required ?? 0) > 0).length
  const market = shop?.markets[0]
  return (
    <div className="frame of-shop">
      <ShopHead name="Listings" />
      <main className="work" style={{ gridTemplateColumns: editing ? 'minmax(0,1fr) 470px' : 'minmax(0,1fr)' }}>
        <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid="listings">
          <div>
            <SampleNotice />
            <h1 className="text-[24px] font-bold leading-tight">
              {counted(passing.length, archived ? 'archived listing' : 'listing')}
              {!archived && passing.length > 0 && !progress && (
                <span className="font-normal text-[17px]">
                  {' '}
                  {lostWords(passing.length, lost, lostPicks)}
                  {required > 0 && `; ${counted(required, 'needs', 'need')} a required fix`}
                </span>
              )}
            </h1>
            <p className="quiet text-[13.5px]">
              Lost: the searches of a listing’s picks that can’t find it.{' '}
              {grid
                ? 'In each place: what is lost there; the bar is grip.'
                : sort
                  ? 'Start at the top:'
                  : 'Most to gain first: what is lost × sales of the last 28 days.'}{' '}
              <kbd>Enter</kbd> opens {grid ? 'the place that loses the most.' : 'a listing’s moves.'}
            </p>
          </div>
          <div className="flex flex-wrap gap-2 items-center py-2">
            <input
              ref={box}
              className="input input-sm w-52"
              placeholder="Filter by product"
              aria-label="Filter by product or platform"
              value={text}
              maxLength={120}
              onChange={(e) => set({ text: e.target.value })}
              onKeyDown={(e) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()}
            />
            <select
              className="select select-sm w-40"
              aria-label="Platform"
              value={platform ?? ''}
              onChange={(e) => set({ platform: e.target.value || null })}
            >
              <option value="">All platforms</option>
              {platforms.map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
            <select
              className="select select-sm w-40"
              aria-label="Country"
              value={query.data?.country ?? ''}
              onChange={(e) => set({ country: e.target.value })}
            >
              {Object.entries(query.data?.countries ?? {}).map(([code, name]) => (
                <option key={code} value={code}>
                  {name}
                </option>
              ))}
            </select>
            <select
              className="select select-sm w-44"
              aria-label="Products and pages"
              value={of ?? ''}
              onChange={(e) => set({ of: e.target.value || null })}
            >
              <option value="">Products and pages</option>
              <option value="products">Products only</option>
              <option value="pages">Pages only</option>
            </select>
            <select
              className="select select-sm w-44"
              aria-label="Finding"
              title="Only listings that have such a finding"
              value={kind ?? ''}
              onChange={(e) => set({ finding: e.target.value || null })}
            >
              <option value="">With or without findings</option>
              <option value="any">Any finding</option>
              {kinds.map(([id, count]) => (
                <option key={id} value={id}>
                  {kindName(id)} ({full(count)})
                </option>
              ))}
            </select>
            {market && <SampleBadge market={market} />}
            <span className="flex gap-1 ml-auto" role="group" aria-label="Show as">
              <button type="button" className="choice" aria-pressed={!grid} onClick={() => show(false)}>
                List
              </button>
              <button type="button" className="choice" aria-pressed={grid} onClick={() => show(true)}>
                Products by platform <Key of="gridOfPlatforms" />
              </button>
            </span>
            {(archivedCount > 0 || archived) && (
              <button type="button" className="choice" aria-pressed={archived} onClick={() => set({ archived: archived ? null : '1' })}>
                Archived ({full(archivedCount)})
              </button>
            )}
            <span className="basis-full flex flex-wrap gap-2 items-center min-h-8">
              {selected.length > 0 ? (
                <b className="text-[14px]">{full(selected.length)} selected</b>
              ) : (
                <span className="quiet text-[13.5px]">
                  <kbd>Space</kbd> selects, <kbd>Ctrl A</kbd> all
                </span>
              )}
              <button type="button" className="pill" onClick={begin('replace')}>
                Find and replace… <Key of="findReplace" />
              </button>
              <button type="button" className="pill" onClick={begin('addTag')}>
                Add or remove a tag… <Key of="tagMany" />
              </button>
              <button type="button" className="pill" onClick={archive}>
                {archived ? 'Restore' : 'Archive'} <Key of="archive" />
              </button>
              <span className="ml-auto" />
              {progress && (
                <span className=" text-[13.5px] flex items-center gap-2" role="status" data-testid="weighing">
                  {progress.problem ? (
                    <span className="text-accent">Not all were weighed: {progress.problem}</span>
                  ) : (
                    <>
                      {progress.stopped ? 'Stopped at' : 'Weighing'} {full(progress.done)} of {full(progress.all)}
                      <progress className="progress progress-primary w-28" value={progress.done} max={Math.max(1, progress.all)} />
                    </>
                  )}
                  <button type="button" className="link" onClick={progress.stopped || progress.problem ? resume : stop}>
                    {progress.stopped || progress.problem ? 'Resume' : 'Stop'}
                  </button>
                </span>
              )}
              <button type="button" className="pill" title="Dig and pick before there is a product" onClick={() => research(market)}>
                Research…
              </button>
              <Link className="pill" to="/new">
                Add product…
              </Link>
            </span>
          </div>
          {grid ? (
            <ProductGrid rows={passing.filter((l) => !l.isPage)} platforms={platforms} open={open} />
          ) : (
            <Table
              name="Listings"
              rows={sorted}
              columns={editing ? columns.slice(0, ColumnsBesideEdit) : allColumns}
              id={(l) => String(l.id)}
              at={sorted.length > 0 ? at : -1}
              rowHeight={38}
              onAt={(_, l) => set({ at: l ? String(l.id) : null })}
              onEnter={open}
              marked={marked}
              onMark={mark}
              onRange={(from, to) => setRange([from, to])}
              sort={sort}
              onSort={(s) => set(sortChanges(s))}
              empty={
                <span className="quiet">
                  {query.isError
                    ? `Couldn’t load the listings: ${query.error.message} Your data is safe; reload to try again.`
                    : query.isPending
                      ? 'Loading…'
                      : archived
                        ? 'No archived listings.'
                        : text || platform || kind
                          ? 'No listing passes the filter.'
                          : 'No listings yet. Add a product to begin.'}
                </span>
              }
            />
          )}
        </section>
        {editing && (
          <EditMany
            kind={editing}
            listings={target}
            country={query.data?.country ?? ''}
            close={() => setEditing(null)}
            change={setEditing}
          />
        )}
      </main>
      <ToastLine />
    </div>
  )
}

/** What listings lose, as their sentence goes on. */
const lostWords = (listings: number, searches: number, picks: number) =>
  searches > 0
    ? `${listings === 1 ? 'loses' : 'lose'} ${full(searches)} searches/mo`
    : picks > 0
      ? `can’t be found for ${counted(picks, 'pick')}`
      : `${listings === 1 ? 'loses' : 'lose'} nothing`
