import { useQuery } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { type Alike, api, ask, type Dug, type Grid, type Pick, type ShelfOrder, type ShelfQuery, type ShelfRow } from '../kit/api'
import { Silhouette } from '../kit/charts'
import { competitionColumn, DoubtMark, headroomColumn, volumeColumn } from '../kit/columns'
import { useKeys } from '../kit/keys'
import { useNote } from '../kit/note'
import { compact, full } from '../kit/numbers'
import { type Place, usePickActions, usePicks } from '../kit/shop'
import { download } from '../kit/stream'
import { type Column, changed, type Rows, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { toast } from '../kit/toast'
import { sentence, titleQuery } from '../kit/words'
import { Filters, filterParams, type Limits, limitsOf } from './filters'
import { GridSheet } from './grid'
import { Import } from './import'
import { Paste } from './paste'
import { Scatter } from './scatter'
import { Trail } from './trail'
import { useDig } from './usedig'
import { useShelf } from './useshelf'

export type Row = Omit<Dug, 'typed' | 'sellers'> & {
  typed?: number | null
  sellers?: Dug['sellers']
  /** Why it is an alike word. */
  alike?: string
  /** Which word of which facet the head was mixed with. */
  mixed?: string
  pick?: Pick
}

const sources = [
  ['typed', 'Shoppers type', 'What the market’s search box offers, for the head and for the alphabet after it'],
  ['used', 'Sellers use', 'Words and tags of the top 100 results'],
  ['alike', 'Alike', 'Words that mean the same or nearly so, by part of speech'],
  ['mixed', 'Mixed', 'The head with material, style, colour, size, audience, occasion; the product’s facts first'],
  ['shelf', 'My shelf', 'All terms known for this market'],
] as const
type Source = (typeof sources)[number][0]

const orders: Record<string, ShelfOrder> = {
  text: 'text',
  volume: 'volume',
  competition: 'competition',
  headroom: 'headroom',
  titles: 'titlesHolding',
  cost: 'clickCost',
}

/** Who says that a term is worth having, in words. */
const saidBy = (r: Row) =>
  [
    r.typed ? `shoppers type it (place ${r.typed})` : null,
    r.sellers ? `${r.sellers.count} of the top ${r.sellers.among} sellers use it` : null,
    r.alike ? r.alike : null,
    r.mixed ? `mixed with ${r.mixed}` : null,
    !r.typed && !r.sellers && !r.alike && !r.mixed && r.numbers.source ? `from ${r.numbers.source}` : null,
  ]
    .filter(Boolean)
    .join('; ')

/** A head term → what shoppers type and sellers use, words alike, mixtures, the shelf; judged and picked. */
export function Dig({ place }: { place: Place }) {
  const [params, set] = useAddress()
  const term = params.get('term') ?? ''
  const parent = params.get('parent')
  const view = params.get('view') ?? 'table'
  const from = new Set<Source>((params.get('from') ?? (term ? 'typed used' : 'shelf')).split(' ') as Source[])
  if (!term) {
    from.clear()
    from.add('shelf')
  }
  const [asked, setAsked] = useState(term)
  const [side, setSide] = useState<'term' | 'paste'>('term')
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const [shelfAt, setShelfAt] = useState(0)
  const [file, setFile] = useState<File | null>(null)
  const box = useRef<HTMLInputElement>(null)
  const filterBox = useRef<HTMLInputElement>(null)
  const { product, market } = place
  const picks = usePicks(place).data?.picks
  const actions = usePickActions(place)
  const dug = useDig(place, term, parent)
  const alike = useQuery({
    queryKey: ['alike', market.id, term.toLowerCase()],
    queryFn: () => ask(api.GET('/api/markets/{marketId}/alike', { params: { path: { marketId: market.id }, query: { text: term } } })),
    enabled: term !== '' && from.has('alike'),
    staleTime: Infinity,
  })
  const grid = useQuery({
    queryKey: ['grid', product.id, market.id, term.toLowerCase(), product.facts],
    queryFn: () =>
      ask(
        api.GET('/api/products/{id}/grid/{marketId}', { params: { path: { id: product.id, marketId: market.id }, query: { head: term } } }),
      ),
    enabled: term !== '' && (from.has('mixed') || view === 'grid'),
    staleTime: 60_000,
  })

  const onAll = useQuery({
    queryKey: ['shelf', market.id, 'count'],
    queryFn: () =>
      ask(api.POST('/api/markets/{marketId}/shelf', { params: { path: { marketId: market.id } }, body: { down: true, skip: 0, take: 0 } })),
  }).data?.all
  const counts: Record<Source, number | undefined> = {
    typed: dug.data && [...dug.data.rows.values()].filter((r) => r.typed).length,
    used: dug.data && [...dug.data.rows.values()].filter((r) => r.sellers).length,
    alike: alike.data?.reduce((n, a) => n + a.alike.length, 0),
    mixed: grid.data?.facets.reduce(
      (n, f) => n + f.rows.reduce((m, r) => m + r.cells.filter((c) => c.numbers.volume !== null).length, 0),
      0,
    ),
    shelf: undefined,
  }
  const key = [...from].sort().join(' ')
  // biome-ignore lint/correctness/useExhaustiveDependencies: key says what stands in from
  const found = useMemo(() => gather(from, dug.data?.rows, dug.data?.key, alike.data, grid.data), [key, dug.data, alike.data, grid.data])

  const limits = limitsOf(params)
  const sort: Sort = params.get('sort') ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' } : null
  const onShelf = from.has('shelf')
  const query: ShelfQuery | null = useMemo(
    () =>
      onShelf || !term
        ? {
            has: limits.has || null,
            head: term || null,
            also: term ? [...found.keys()] : null,
            ...bounds(limits),
            by: orders[sort?.key ?? 'volume'] ?? 'volume',
            down: sort ? sort.down : true,
            skip: 0,
            take: 200,
          }
        : null,
    [onShelf, term, found, limits, sort],
  )
  const shelf = useShelf(market.id, query)
  const byPick = useMemo(() => new Map(picks?.map((p) => [p.key, p])), [picks])
  const rows: Rows<Row> = useMemo(() => {
    if (query) {
      const made = new WeakMap<ShelfRow, Row>()
      // What was found and lies on no shelf comes last, as all that is unknown does.
      const absent = (shelf.data?.absent ?? []).flatMap((k) => found.get(k) ?? []).filter(passing(limits))
      return {
        length: shelf.rows.length + absent.length,
        at: (i) => {
          if (i >= shelf.rows.length) return absent[i - shelf.rows.length]
          const r = shelf.rows.at(i)
          if (!r) return undefined
          const row = made.get(r) ?? { ...r, ...found.get(r.key), numbers: r.numbers, pick: byPick.get(r.key) }
          made.set(r, row)
          return row
        },
      }
    }
    const all = [...found.values()].map((r) => ({ ...r, pick: byPick.get(r.key) }))
    return sortRows(all.filter(passing(limits)), allColumns, sort)
  }, [query, shelf.rows, shelf.data, found, byPick, limits, sort])

  const list = Array.isArray(rows) ? (rows as Row[]) : null
  const wanted = params.get('at')
  const at = list
    ? Math.max(
        list.length ? 0 : -1,
        list.findIndex((r) => r.key === wanted),
      )
    : Math.min(shelfAt, rows.length - 1)
  const row = view === 'grid' ? (cellRow(grid.data, wanted, byPick) ?? rows.at(at)) : rows.at(at)
  const norm = (term ? dug.data?.norm : undefined) ?? shelf.data?.norm
  const filtered = filterParams.some((k) => params.get(k))

  const dig = (text: string, inside: boolean) => {
    const clean = text.trim()
    if (!clean) return
    setAsked(clean)
    setSide('term')
    setMarked(new Set())
    set(
      {
        ...Object.fromEntries(['at', 'sort', 'dir', 'view', ...filterParams].map((k) => [k, null])),
        from: params.get('from') === 'shelf' ? null : params.get('from'),
        term: clean,
        parent: inside && dug.data ? String(dug.data.stepId) : null,
      },
      true,
    )
  }
  const source = term || 'shelf'
  /** The rows a key is about: those marked, or the one one is on. */
  const chosen = (): Row[] => {
    if (marked.size === 0) return row ? [row] : []
    const some: Row[] = []
    for (let i = 0; i < rows.length && some.length < marked.size; i++) {
      const r = rows.at(i)
      if (r && marked.has(r.key)) some.push(r)
    }
    return some
  }
  const pick = (what: Row[]) => {
    if (what.length === 1) actions.toggle(what[0].text, what[0].pick, source, saidBy(what[0]))
    else if (what.length > 1)
      actions.change(
        what.map((r) => r.text),
        { source, saidBy: what.map(saidBy) },
      )
    setMarked(new Set())
  }
  const avoid = (what: Row[]) => {
    if (what.length === 1) actions.avoid(what[0].text, what[0].pick, source)
    else if (what.length > 1)
      actions.change(
        what.map((r) => r.text),
        { source, home: 'avoid' },
      )
    setMarked(new Set())
  }
  const copyQueries = async () => {
    const some = marked.size > 0 ? chosen() : shownRows(rows)
    await navigator.clipboard.writeText(some.map((r) => titleQuery(r.key)).join('\n'))
    toast(
      `${some.length} title ${some.length === 1 ? 'query' : 'queries'} copied: each asks which pages have the exact phrase in their title`,
    )
  }
  const out = async (format: 'csv' | 'xlsx') => {
    try {
      const body = query ?? {
        also: shownRows(rows).map((r) => r.key),
        by: orders[sort?.key ?? 'volume'] ?? 'volume',
        down: sort?.down ?? true,
      }
      await download(`/api/markets/${market.id}/shelf/export.${format}`, body)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const turn = (s: Source) => {
    const next = new Set(from)
    next.has(s) ? next.delete(s) : next.add(s)
    set({ from: next.size === 0 ? null : [...next].join(' ') })
  }
  const show = (v: string) => set({ view: v === 'table' ? null : v })
  useKeys({
    p: () => pick(chosen()),
    x: () => avoid(chosen()),
    '/': () => box.current?.select(),
    f: () => filterBox.current?.focus(),
    v: () => setSide('paste'),
    i: () => show('import'),
    g: () => term && show(view === 'grid' ? 'table' : 'grid'),
    s: () => show(view === 'scatter' ? 'table' : 'scatter'),
    q: copyQueries,
    Escape: () => {
      if (dug.data?.doing) dug.stop()
      else if (marked.size > 0) setMarked(new Set())
      else if (view !== 'table') show('table')
      else setSide('term')
    },
  })

  const columns = from.has('used') && !from.has('typed') ? sellersColumns : allColumns
  return (
    <main
      className="work"
      style={{ gridTemplateColumns: view === 'import' ? '164px minmax(0,1fr)' : '164px minmax(0,1fr) 304px' }}
      onDragOver={(e) => e.dataTransfer.types.includes('Files') && e.preventDefault()}
      onDrop={(e) => {
        if (e.dataTransfer.files.length === 0) return
        e.preventDefault()
        setFile(e.dataTransfer.files[0])
        show('import')
      }}
    >
      <Trail
        place={place}
        here={dug.data?.stepId}
        go={(text, p) => {
          setAsked(text)
          set({ at: null, view: null, term: text, parent: p ? String(p) : null }, true)
        }}
      />
      {view === 'import' ? (
        <Import
          place={place}
          file={file}
          close={(taken) => {
            setFile(null)
            set({ view: null, ...(taken && { from: 'shelf', term: null }) })
          }}
        />
      ) : (
        <section className="sheet !overflow-hidden !px-5 grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
          <form
            className="flex gap-2 items-center mb-2"
            onSubmit={(e) => {
              e.preventDefault()
              dig(asked, false)
              box.current?.blur()
            }}
          >
            <input
              ref={box}
              className="flex-1 min-w-0 bg-transparent outline-none border-b-2 border-secondary text-[20px] font-semibold px-0.5 pb-1"
              value={asked}
              onChange={(e) => setAsked(e.target.value)}
              placeholder="A head term: bird house"
              aria-label="Head term"
              onKeyDown={(e) => e.key === 'Escape' && box.current?.blur()}
            />
            <button type="submit" className="pill">
              Dig <kbd>Enter</kbd>
            </button>
            <button type="button" className="pill" onClick={() => setSide('paste')}>
              Paste <kbd>V</kbd>
            </button>
            <button type="button" className="pill" onClick={() => show('import')}>
              Import a file <kbd>I</kbd>
            </button>
          </form>
          <div className="flex flex-wrap gap-x-2.5 gap-y-1 items-center text-[13px] quiet mb-1">
            {sources.map(([s, name, about]) => (
              <label
                key={s}
                title={about}
                className={`inline-flex gap-1.5 items-center cursor-pointer ${!term && s !== 'shelf' ? 'opacity-50' : ''}`}
              >
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
                  checked={from.has(s)}
                  disabled={!term}
                  onChange={() => turn(s)}
                />
                <b className="text-base-content font-semibold">{name}</b>
                <span className="num text-[12.5px]">
                  {s === 'shelf' ? compact(onAll) : counts[s] !== undefined ? compact(counts[s]) : ''}
                </span>
              </label>
            ))}
            <span className="ml-auto inline-flex gap-1" role="group" aria-label="Show as">
              {(
                [
                  ['table', 'Table'],
                  ['grid', 'Grid'],
                  ['scatter', 'Scatter'],
                ] as const
              ).map(([v, name]) => (
                <button
                  type="button"
                  key={v}
                  className="choice"
                  aria-pressed={view === v}
                  disabled={v === 'grid' && !term}
                  title={
                    v === 'grid'
                      ? 'The head term and other names for it, mixed with material, style, colour, size, audience, occasion (G)'
                      : v === 'scatter'
                        ? 'Demand against competition (S)'
                        : 'A row for each term'
                  }
                  onClick={() => show(v)}
                >
                  {name}
                </button>
              ))}
            </span>
          </div>
          <div className="min-h-[26px]">
            {view === 'grid' ? (
              <p className="quiet text-[13px]">
                Searches a month of the phrase. <b className="text-base-content">Bold words</b> are true by the product’s facts. An en dash
                says that nobody is known to type it.
              </p>
            ) : (
              <Filters
                marketId={market.id}
                box={filterBox}
                params={params}
                set={set}
                filtered={filtered}
                passing={rows.length}
                out={out}
                copyQueries={copyQueries}
              />
            )}
            {dug.isError && <p className="text-accent py-1">{dug.error.message} What you had stays as it was.</p>}
            {dug.data?.doing && (
              <p className="flex gap-2 items-center text-[13px] quiet" role="status" data-testid="digging">
                <progress className="progress progress-primary w-28 h-1.5" value={dug.data.done} max={dug.data.of} aria-label="How far" />
                {dug.data.doing}
                <button type="button" className="link" onClick={dug.stop}>
                  Stop
                </button>
                <kbd>Esc</kbd>
              </p>
            )}
            {dug.data?.stopped && !dug.isFetching && (
              <p className="text-[13px] quiet">
                Stopped after {dug.data.done} of {dug.data.of} questions; what was found stays.{' '}
                <button type="button" className="link" onClick={() => dug.refetch()}>
                  Go on
                </button>
              </p>
            )}
          </div>
          {view === 'grid' && term ? (
            <GridSheet grid={grid.data} byPick={byPick} at={wanted} onAt={(k) => set({ at: k })} onDig={(text) => dig(text, true)} />
          ) : view === 'scatter' ? (
            <Scatter
              rows={shownRows(rows)}
              norm={norm}
              at={row?.key}
              marked={marked}
              onAt={(k) => (list ? set({ at: k }) : setShelfAt(shownRows(rows).findIndex((r) => r.key === k)))}
              onMark={(ids, on) => setMarked(changed(marked, ids, on))}
            />
          ) : (
            <Table
              name="Terms"
              rows={rows}
              columns={columns}
              id={(r) => r.key}
              at={at}
              onAt={(i, r) => {
                setShelfAt(i)
                set({ at: r?.key ?? null })
              }}
              onEnter={(r) => dig(r.text, true)}
              marked={marked}
              onMark={(ids, on) => setMarked(changed(marked, ids, on))}
              sort={sort}
              onSort={(s) => set({ sort: s?.key ?? null, dir: s && !s.down ? 'up' : null })}
              onRange={shelf.look}
              rowClass={(r) => (r.pick?.home === 'avoid' ? 'struck' : '')}
              empty={
                dug.isFetching || shelf.fetching ? (
                  <span className="quiet">Asking {market.platformName}…</span>
                ) : filtered ? (
                  <span className="quiet">No term passes these filters.</span>
                ) : term ? (
                  <span className="quiet">Nobody types “{term}” here. Try a broader word, or another spelling.</span>
                ) : (
                  <span className="quiet">
                    Your shelf is empty. Type a broad term above, such as what the product is, and press Enter; or paste a column of terms,
                    or drop a CSV or XLSX file here.
                  </span>
                )
              }
            />
          )}
        </section>
      )}
      {view !== 'import' && (
        <aside className="side">
          {side === 'paste' ? (
            <Paste
              place={place}
              close={() => setSide('term')}
              done={() => set({ from: 'shelf' })}
              asFile={(text) => {
                setFile(new File([text], 'pasted'))
                setSide('term')
                show('import')
              }}
            />
          ) : marked.size > 1 ? (
            <Marked
              rows={chosen()}
              pick={() => pick(chosen())}
              avoid={() => avoid(chosen())}
              queries={copyQueries}
              none={() => setMarked(new Set())}
            />
          ) : row ? (
            <TermDetail
              place={place}
              text={row.text}
              numbers={row.numbers}
              norm={norm}
              dig={(text) => dig(text, true)}
              actions={
                <>
                  <p className="flex flex-wrap gap-2 mt-3">
                    <button type="button" className="pill" onClick={() => pick([row])}>
                      {row.pick && row.pick.home !== 'avoid' ? 'Drop' : 'Pick'} <kbd>P</kbd>
                    </button>
                    <button type="button" className="pill" onClick={() => avoid([row])}>
                      {row.pick?.home === 'avoid' ? 'Stop avoiding' : 'Avoid'} <kbd>X</kbd>
                    </button>
                    <button type="button" className="pill" onClick={() => dig(row.text, true)}>
                      Dig here <kbd>Enter</kbd>
                    </button>
                  </p>
                  {row.pick?.home === 'avoid' && <WhyAvoid key={row.key} pick={row.pick} save={actions.note} />}
                  {saidBy(row) && <p className="text-[13px] mt-2">{sentence(saidBy(row))}</p>}
                  {row.sellers && (
                    <p className="quiet text-[13px]">
                      Those who use it ask {row.sellers.price.toFixed(2)} at the mean, with {Math.round(row.sellers.ratings)} ratings and{' '}
                      {row.sellers.sales !== null
                        ? `${Math.round(row.sellers.sales)} sales a month`
                        : `${Math.round((row.sellers.occupancy ?? 0) * 100)}% of nights taken`}
                      .
                    </p>
                  )}
                </>
              }
            />
          ) : (
            <p className="quiet">A term’s numbers open here: its year, its family, what a shopper sees, and what headroom is made of.</p>
          )}
        </aside>
      )}
    </main>
  )
}

const MostShown = 2000

function shownRows(rows: Rows<Row>): Row[] {
  const some: Row[] = []
  for (let i = 0; i < Math.min(rows.length, MostShown); i++) {
    const r = rows.at(i)
    if (r) some.push(r)
  }
  return some
}

/** A cell of the grid as a row: what opens beside it, and what a key is about. */
function cellRow(grid: Grid | undefined, key: string | null, byPick: ReadonlyMap<string, Pick>): Row | undefined {
  for (const f of grid?.facets ?? [])
    for (const r of f.rows)
      for (const c of r.cells)
        if (c.key === key) return { text: c.text, key: c.key, numbers: c.numbers, mixed: `${r.word} (${f.facet})`, pick: byPick.get(c.key) }
}

/** All rows of the sources that are on, each once, with everything that is said of it. */
function gather(
  from: ReadonlySet<Source>,
  dug: ReadonlyMap<string, Dug> | undefined,
  head: string | undefined,
  alike: Alike[] | undefined,
  grid: Grid | undefined,
): Map<string, Row> {
  const rows = new Map<string, Row>()
  const add = (row: Row) => {
    const known = rows.get(row.key)
    rows.set(row.key, known ? { ...row, ...known, alike: known.alike ?? row.alike, mixed: known.mixed ?? row.mixed } : row)
  }
  for (const r of dug?.values() ?? []) if (r.key === head || (from.has('typed') && r.typed) || (from.has('used') && r.sellers)) add(r)
  // Of words alike, those that the market knows come first.
  const ofAlike = (alike ?? []).flatMap((a) => a.alike.map((t) => ({ a, t })))
  ofAlike.sort((x, y) => (y.t.numbers.volume ?? -1) - (x.t.numbers.volume ?? -1))
  if (from.has('alike'))
    for (const { a, t } of ofAlike)
      add({ text: t.term, key: t.key, numbers: t.numbers, alike: `alike: ${likeness[t.likeness]} “${a.word}” (${t.part})` })
  if (from.has('mixed'))
    for (const f of grid?.facets ?? [])
      for (const r of f.rows)
        for (const c of r.cells)
          if (c.numbers.volume !== null) add({ text: c.text, key: c.key, numbers: c.numbers, mixed: `${r.word} (${f.facet})` })
  return rows
}

const likeness = { same: 'the same as', similar: 'near', broader: 'broader than', narrower: 'narrower than', beside: 'beside' }

const bounds = (l: Limits) => ({
  volumeFrom: l.volume,
  competitionTo: l.competition,
  headroomFrom: l.headroom,
  titlesTo: l.titles,
  clickCostTo: l.cost,
  source: l.source || null,
})

const passing = (l: Limits) => {
  const words = l.has.toLowerCase().split(/\s+/).filter(Boolean)
  const least = (value: number | null, bound: number | null) => bound === null || (value !== null && value >= bound)
  const most = (value: number | null, bound: number | null) => bound === null || (value !== null && value <= bound)
  return ({ text, numbers: n }: Row) =>
    words.every((w) => (w.startsWith('-') && w.length > 1 ? !text.toLowerCase().includes(w.slice(1)) : text.toLowerCase().includes(w))) &&
    least(n.volume, l.volume) &&
    most(n.competition, l.competition) &&
    least(n.headroom, l.headroom) &&
    most(n.titlesHolding, l.titles) &&
    most(n.clickCost, l.cost) &&
    (!l.source || n.source === l.source)
}

function Marked({
  rows,
  pick,
  avoid,
  queries,
  none,
}: {
  rows: Row[]
  pick: () => void
  avoid: () => void
  queries: () => void
  none: () => void
}) {
  const volume = rows.reduce((sum, r) => sum + (r.numbers.volume ?? 0), 0)
  const unknown = rows.filter((r) => r.numbers.volume === null).length
  return (
    <div data-testid="marked">
      <h3>{rows.length} marked</h3>
      <p className="quiet text-[13.5px]">
        {full(volume)} searches a month between them{unknown > 0 ? `, ${unknown} unknown` : ''}.
      </p>
      <p className="flex flex-wrap gap-2 my-3">
        <button type="button" className="pill" onClick={pick}>
          Pick them <kbd>P</kbd>
        </button>
        <button type="button" className="pill" onClick={avoid}>
          Avoid them <kbd>X</kbd>
        </button>
        <button type="button" className="pill" onClick={queries}>
          Copy title queries <kbd>Q</kbd>
        </button>
        <button type="button" className="pill" onClick={none}>
          Unmark <kbd>Esc</kbd>
        </button>
      </p>
      <ul className="text-[13.5px]">
        {rows.slice(0, 40).map((r) => (
          <li key={r.key} className="flex justify-between gap-3 border-b border-base-300 py-0.5">
            <span className="truncate">{r.text}</span>
            <span className="num text-[12.5px]">{compact(r.numbers.volume)}</span>
          </li>
        ))}
      </ul>
    </div>
  )
}

function WhyAvoid({ pick, save }: { pick: Pick; save: ReturnType<typeof usePickActions>['note'] }) {
  const { text, setText, leave, state } = useNote(pick, save)
  const box = useRef<HTMLInputElement>(null)
  useKeys({ n: () => box.current?.focus() })
  return (
    <div>
      <label className="block mt-2 text-[13px]">
        <span className="quiet">
          Why: it guards all copy of the shop <kbd>N</kbd>
        </span>
        <input
          ref={box}
          className="inline-input w-full"
          placeholder="someone’s trademark, not true of it…"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={leave}
          onKeyDown={(e) => (e.key === 'Enter' || e.key === 'Escape') && e.currentTarget.blur()}
        />
      </label>
      {state}
    </div>
  )
}

const termColumn: Column<Row> = {
  key: 'text',
  head: 'Term',
  width: 'minmax(150px,1fr)',
  words: true,
  value: (r) => r.text,
  cell: (r) => (
    // biome-ignore lint/a11y/noStaticElementInteractions: what dragging to the pocket does, P does too
    <span draggable title={r.text} onDragStart={(e) => e.dataTransfer.setData('text/plain', r.text)}>
      {r.text}
      <DoubtMark numbers={r.numbers} />
    </span>
  ),
}
const fromColumn: Column<Row> = {
  key: 'from',
  head: 'From',
  title:
    'Where the term comes from: its place among what the market’s search box offers, how many of the top 100 sellers use it, or the shelf',
  width: '112px',
  words: true,
  value: (r) => r.typed,
  cell: (r) => (
    <span className="quiet text-[12px]" title={saidBy(r)}>
      {[
        r.typed ? `typed ${r.typed}` : null,
        r.sellers ? `used ${r.sellers.count}` : null,
        r.alike ? r.alike.split(' “')[0].replace('alike: ', '') : null,
        r.mixed ? `mixed` : null,
        !r.typed && !r.sellers && !r.alike && !r.mixed ? (r.numbers.source ?? 'unmeasured') : null,
      ]
        .filter(Boolean)
        .join(' · ')}
    </span>
  ),
}
const pickColumn: Column<Row> = {
  key: 'pick',
  head: '',
  width: '42px',
  cell: (r) => <span className="mark">{r.pick ? (r.pick.home === 'avoid' ? 'avoid' : 'picked') : ''}</span>,
}
const allColumns: Column<Row>[] = [
  termColumn,
  fromColumn,
  volumeColumn,
  competitionColumn,
  headroomColumn,
  { key: 'months', head: '30 months', width: '88px', cell: (r) => <Silhouette months={r.numbers.months} width={88} /> },
  pickColumn,
]
const sellersColumns: Column<Row>[] = [
  termColumn,
  {
    key: 'used',
    head: 'used by',
    title: 'How many of the top 100 have it in their title or tags',
    width: '56px',
    right: true,
    value: (r) => r.sellers?.count,
    cell: (r) => <span className="num text-[13px]">{r.sellers?.count ?? '–'}</span>,
  },
  {
    key: 'price',
    head: 'price',
    title: 'Mean price of those who use it',
    width: '56px',
    right: true,
    value: (r) => r.sellers?.price,
    cell: (r) => <span className="num text-[13px]">{r.sellers?.price.toFixed(2) ?? '–'}</span>,
  },
  {
    key: 'ratings',
    head: 'ratings',
    title: 'Mean number of ratings of those who use it',
    width: '54px',
    right: true,
    value: (r) => r.sellers?.ratings,
    cell: (r) => <span className="num text-[13px]">{compact(r.sellers?.ratings)}</span>,
  },
  {
    key: 'sales',
    head: 'sales',
    title: 'Mean sales a month of those who use it; for stays, the share of nights taken',
    width: '54px',
    right: true,
    value: (r) => r.sellers?.sales ?? r.sellers?.occupancy,
    cell: (r) => (
      <span className="num text-[13px]">
        {r.sellers?.occupancy ? `${Math.round(r.sellers.occupancy * 100)}%` : compact(r.sellers?.sales)}
      </span>
    ),
  },
  volumeColumn,
  competitionColumn,
  headroomColumn,
  pickColumn,
]
