import { useQuery } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type ShelfQuery, type ShelfRow } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { Menu } from '../kit/menu'
import { messages } from '../kit/messages'
import { compact, counted, money, percent } from '../kit/numbers'
import { type Desk, usePickActions, usePicks } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { download } from '../kit/stream'
import { changed, type Rows, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { toast } from '../kit/toast'
import { titleQuery } from '../kit/words'
import { allColumns, sellersColumns } from './columns'
import { Filters, filterParams, limitsOf } from './filters'
import { GridSheet } from './grid'
import { Import } from './import'
import { Marked, NoTerm, WhyAvoid } from './notices'
import { Paste } from './paste'
import { bounds, cellRow, gather, orders, passing, type Row, type Source, saidBy, shownRows, sources } from './rows'
import { Scatter } from './scatter'
import { Trail } from './trail'
import { useDig } from './usedig'
import { useShelf } from './useshelf'

/** A term → search suggestions, what sellers use, related words, combinations, the shelf; judged and picked. */
export function Dig({ desk }: { desk: Desk }) {
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
  const { product, market } = desk
  const picks = usePicks(desk).data?.picks
  const actions = usePickActions(desk)
  const changes = useChanges(product.id)
  const dug = useDig(desk, term, parent)
  const alike = useQuery({
    queryKey: ['alike', product.id, market.id, term.toLowerCase()],
    queryFn: () =>
      ask(
        api.GET('/api/markets/{marketId}/alike', { params: { path: { marketId: market.id }, query: { text: term, product: product.id } } }),
      ),
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
  // Where the market knows nothing of a term, the shelf joins in by itself when it has terms with those words.
  const finished = dug.data !== undefined && dug.data.doing === null
  const unknown = finished && [...dug.data.rows.values()].every((r) => r.numbers.volume === null && !r.typed)
  const onShelf = from.has('shelf') || unknown
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
      // Found terms that are on no shelf come last, as all that is unknown does.
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
    toast(messages.searchesCopied(some.length))
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
  const toggle = (s: Source) => {
    const next = new Set(from)
    next.has(s) ? next.delete(s) : next.add(s)
    set({ from: next.size === 0 ? null : [...next].join(' ') })
  }
  const show = (v: string) => set({ view: v === 'table' ? null : v })
  const [naming, setNaming] = useState<Row | null>(null)
  const remove = async (what: Row[]) => {
    const texts = what.map((r) => r.text)
    if (texts.length === 0) return
    await changes.run(() =>
      ask(
        api.POST('/api/markets/{marketId}/terms/delete', {
          params: { path: { marketId: market.id } },
          body: { texts: texts.slice(0, 1000) },
        }),
      ),
    )
    setMarked(new Set())
  }
  useShortcuts({
    pick: () => pick(chosen()),
    avoid: () => avoid(chosen()),
    searchTerm: () => box.current?.select(),
    filter: () => filterBox.current?.focus(),
    paste: () => setSide('paste'),
    importFile: () => show('import'),
    grid: () => term && show(view === 'grid' ? 'table' : 'grid'),
    scatter: () => show(view === 'scatter' ? 'table' : 'scatter'),
    titleQueries: () => copyQueries(),
    deleteTerm: onShelf || !term ? () => remove(chosen()) : undefined,
    renameTerm: () => row && setNaming(row),
    close: () => {
      if (dug.data?.doing) dug.stop()
      else if (marked.size > 0) setMarked(new Set())
      else if (view !== 'table') show('table')
      else setSide('term')
    },
  })

  const columns = from.has('used') && !from.has('typed') ? sellersColumns : allColumns
  const views = (
    <span className="inline-flex gap-1" role="group" aria-label="Show as">
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
              ? 'The term and other names for it, combined with materials, styles, colours, sizes, audiences and occasions'
              : v === 'scatter'
                ? 'Demand against competition'
                : 'One row for each term'
          }
          onClick={() => show(v)}
        >
          {name}
        </button>
      ))}
    </span>
  )
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
        desk={desk}
        here={dug.data?.stepId}
        go={(text, p) => {
          setAsked(text)
          set({ at: null, view: null, term: text, parent: p ? String(p) : null }, true)
        }}
      />
      {view === 'import' ? (
        <Import
          desk={desk}
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
              placeholder="Search for a term, e.g. bird house"
              aria-label="Search for a term"
              onKeyDown={(e) => e.key === 'Escape' && box.current?.blur()}
            />
            <button type="submit" className="pill">
              Search <kbd>Enter</kbd>
            </button>
            <button type="button" className="pill" onClick={() => setSide('paste')}>
              Paste <Key of="paste" />
            </button>
            <button type="button" className="pill" onClick={() => show('import')}>
              Import <Key of="importFile" />
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
                  onChange={() => toggle(s)}
                />
                <b className="text-base-content font-semibold">{name}</b>
                <span className="num text-[12.5px]">
                  {s === 'shelf' ? compact(onAll) : counts[s] !== undefined ? compact(counts[s]) : ''}
                </span>
              </label>
            ))}
          </div>
          <div className="min-h-[26px]">
            {view === 'grid' ? (
              <p className="quiet text-[13px] flex flex-wrap items-center gap-2">
                {views}
                Searches/mo of each combination. <b className="text-base-content">Bold words</b> are in the product’s facts. A dash means no
                data.
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
                views={views}
              />
            )}
            {unknown && <NoTerm term={term} paste={() => setSide('paste')} importFile={() => show('import')} />}
            {dug.isError && <p className="text-accent py-1">{dug.error.message} Your earlier results are still here.</p>}
            {dug.data?.doing && (
              <p className="flex gap-2 items-center text-[13px] quiet" role="status" data-testid="digging">
                <progress className="progress progress-primary w-28 h-1.5" value={dug.data.done} max={dug.data.of} aria-label="Progress" />
                {dug.data.doing}
                <button type="button" className="link" onClick={dug.stop}>
                  Stop
                </button>
                <kbd>Esc</kbd>
              </p>
            )}
            {dug.data?.stopped && !dug.isFetching && (
              <p className="text-[13px] quiet">
                Stopped at {dug.data.done} of {dug.data.of}.{' '}
                <button type="button" className="link" onClick={() => dug.refetch()}>
                  Resume
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
                  <span className="quiet">Searching {market.platformName}…</span>
                ) : filtered ? (
                  <span className="quiet">No terms match these filters.</span>
                ) : term ? (
                  ''
                ) : (
                  <span className="quiet">
                    Your shelf is empty. Search for a broad term above, such as what the product is; or paste terms, or drop a CSV or XLSX
                    file here.
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
              desk={desk}
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
              desk={desk}
              text={row.text}
              numbers={row.numbers}
              norm={norm}
              dig={(text) => dig(text, true)}
              actions={
                <>
                  <p className="flex flex-wrap gap-2 mt-3">
                    <button type="button" className="pill" onClick={() => pick([row])}>
                      {row.pick && row.pick.home !== 'avoid' ? 'Remove pick' : 'Pick'} <Key of="pick" />
                    </button>
                    <button type="button" className="pill" onClick={() => avoid([row])}>
                      {row.pick?.home === 'avoid' ? 'Stop avoiding' : 'Avoid'} <Key of="avoid" />
                    </button>
                    <button type="button" className="pill" onClick={() => dig(row.text, true)}>
                      Search this <kbd>Enter</kbd>
                    </button>
                    {(onShelf || !term) && (
                      <Menu
                        label={`Term “${row.text}”`}
                        items={[
                          { label: 'Rename…', run: () => setNaming(row) },
                          { label: 'Delete from the shelf', run: () => remove([row]) },
                        ]}
                      />
                    )}
                  </p>
                  {row.pick?.home === 'avoid' && <WhyAvoid key={row.key} pick={row.pick} save={actions.note} />}
                  {saidBy(row) && <p className="text-[13px] mt-2">{saidBy(row)}</p>}
                  {row.sellers && (
                    <p className="quiet text-[13px]">
                      Sellers who use it: {money(row.sellers.price, market.currency)} on average,{' '}
                      {counted(Math.round(row.sellers.ratings), 'rating')},{' '}
                      {row.sellers.sales !== null
                        ? `${counted(Math.round(row.sellers.sales), 'sale')}/mo`
                        : `${percent(row.sellers.occupancy)} of nights booked`}
                      .
                    </p>
                  )}
                </>
              }
            />
          ) : (
            <p className="quiet">Select a term to see its year, its spelling variants, its search results and its numbers.</p>
          )}
        </aside>
      )}
      {naming && (
        <NameDialog
          title="Rename term"
          label="Term (its numbers stay)"
          value={naming.text}
          action="Rename"
          done={(name) =>
            changes.run(() =>
              ask(
                api.POST('/api/markets/{marketId}/terms/rename', {
                  params: { path: { marketId: market.id } },
                  body: { text: naming.text, name },
                }),
              ),
            )
          }
          close={() => setNaming(null)}
        />
      )}
    </main>
  )
}
