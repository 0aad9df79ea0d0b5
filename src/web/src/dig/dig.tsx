import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type Dug, type Pick } from '../kit/api'
import { HeadroomBar, Silhouette } from '../kit/charts'
import { useKeys } from '../kit/keys'
import { compact, full } from '../kit/numbers'
import { type Place, usePickActions, usePicks } from '../kit/shop'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { Paste } from './paste'
import { Trail } from './trail'

type Row = Dug & { shelf: boolean; pick?: Pick }

const filters = [
  ['volume', 'a month', 'at least'],
  ['competition', 'listings', 'at most'],
  ['headroom', 'headroom', 'at least'],
] as const

/** A head term → what shoppers type, judged and picked. */
export function Dig({ place }: { place: Place }) {
  const [params, set] = useAddress()
  const term = params.get('term') ?? ''
  const parent = params.get('parent')
  const typedOn = params.get('from') !== 'shelf'
  const shelfOn = !term || params.get('from') === 'shelf' || params.get('from') === 'both'
  const [asked, setAsked] = useState(term)
  const [side, setSide] = useState<'term' | 'paste'>('term')
  const box = useRef<HTMLInputElement>(null)
  const filterBox = useRef<HTMLInputElement>(null)
  const cache = useQueryClient()
  const { product, market } = place

  const dug = useQuery({
    queryKey: ['dig', product.id, market.id, term.toLowerCase()],
    queryFn: async () => {
      const found = await ask(
        api.POST('/api/products/{id}/dig', {
          params: { path: { id: product.id } },
          body: { marketId: market.id, text: term, parentId: parent ? Number(parent) : null },
        }),
      )
      cache.invalidateQueries({ queryKey: ['trail'] })
      return found
    },
    enabled: term !== '',
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  })
  const shelf = useQuery({
    queryKey: ['shelf', market.id, term.toLowerCase()],
    queryFn: () => ask(api.GET('/api/markets/{marketId}/shelf', { params: { path: { marketId: market.id }, query: { contains: term } } })),
    placeholderData: keepPreviousData,
  })
  const picks = usePicks(place).data?.picks
  const actions = usePickActions(place)

  const all = useMemo(() => {
    const byPick = new Map(picks?.map((p) => [p.key, p]))
    const rows = new Map<string, Row>()
    if (typedOn && term) for (const r of dug.data?.rows ?? []) rows.set(r.key, { ...r, shelf: false, pick: byPick.get(r.key) })
    if (shelfOn) for (const r of shelf.data?.rows ?? []) rows.set(r.key, { ...r, ...rows.get(r.key), shelf: true, pick: byPick.get(r.key) })
    return [...rows.values()]
  }, [dug.data, shelf.data, picks, typedOn, shelfOn, term])

  const words = (params.get('has') ?? '').toLowerCase().split(/\s+/).filter(Boolean)
  const limit = (key: string) => (params.get(key) ? Number(params.get(key)) : null)
  const passes = (r: Row) =>
    words.every((w) =>
      w.startsWith('-') && w.length > 1 ? !r.text.toLowerCase().includes(w.slice(1)) : r.text.toLowerCase().includes(w),
    ) &&
    filters.every(([key, , how]) => {
      const bound = limit(key)
      const value = r.numbers[key]
      return bound === null || Number.isNaN(bound) || (value !== null && (how === 'at least' ? value >= bound : value <= bound))
    })
  const sort: Sort = params.get('sort') ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' } : null
  const rows = sortRows(all.filter(passes), columns, sort)
  const filtered = words.length > 0 || filters.some(([k]) => params.get(k))
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  const row = rows.find((r) => r.key === at)
  const norm = (term ? dug.data?.norm : undefined) ?? shelf.data?.norm

  const dig = (text: string, inside: boolean) => {
    const clean = text.trim()
    if (!clean) return
    setAsked(clean)
    setSide('term')
    set(
      {
        ...Object.fromEntries(['at', 'has', 'volume', 'competition', 'headroom', 'sort', 'dir'].map((key) => [key, null])),
        from: params.get('from') === 'shelf' ? null : params.get('from'),
        term: clean,
        parent: inside && dug.data ? String(dug.data.stepId) : null,
      },
      true,
    )
  }
  const source = term || 'shelf'
  useKeys({
    p: () => row && actions.toggle(row.text, row.pick, source),
    x: () => row && actions.avoid(row.text, row.pick, source),
    '/': () => box.current?.select(),
    f: () => filterBox.current?.focus(),
    v: () => setSide('paste'),
    Escape: () => setSide('term'),
  })

  return (
    <main className="work" style={{ gridTemplateColumns: '164px minmax(0,1fr) 304px' }}>
      <Trail
        place={place}
        here={dug.data?.stepId}
        go={(text, p) => {
          setAsked(text)
          set({ at: null, term: text, parent: p ? String(p) : null }, true)
        }}
      />
      <section className="sheet !overflow-hidden !px-5 grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
        <form
          className="flex gap-3 items-center mb-2"
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
            Paste terms <kbd>V</kbd>
          </button>
        </form>
        <div className="flex flex-wrap gap-x-4 gap-y-1 items-center text-[13.5px] quiet mb-1">
          {(
            [
              ['typed', 'Shoppers type', typedOn && !!term, dug.data?.rows.filter((r) => r.typed).length],
              ['shelf', 'My shelf', shelfOn, shelf.data?.all],
            ] as const
          ).map(([key, name, on, count]) => (
            <label key={key} className="inline-flex gap-1.5 items-center cursor-pointer">
              <input
                type="checkbox"
                className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
                checked={on}
                disabled={!term}
                onChange={() => {
                  const [t, s] = key === 'typed' ? [!typedOn, shelfOn] : [typedOn, !shelfOn]
                  set({ from: t && s ? 'both' : s ? 'shelf' : null })
                }}
              />
              <b className="text-base-content font-semibold">{name}</b> {term || key === 'shelf' ? compact(count) : ''}
            </label>
          ))}
          <span className="ml-auto flex flex-wrap gap-2 items-center text-[13px]">
            <input
              ref={filterBox}
              className="inline-input w-32"
              placeholder="has… -not"
              title="Words the term must have; a minus before one that it must not"
              aria-label="Has the words"
              value={params.get('has') ?? ''}
              onChange={(e) => set({ has: e.target.value })}
              onKeyDown={(e) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()}
            />
            {filters.map(([key, name, how]) => (
              <input
                key={key}
                className="inline-input w-[84px] num !text-[12.5px]"
                inputMode="numeric"
                placeholder={`${name} ${how === 'at least' ? '≥' : '≤'}`}
                aria-label={`${name} ${how}`}
                title={`Only terms with ${name} ${how} this; unknown ones are left out`}
                value={params.get(key) ?? ''}
                onChange={(e) => set({ [key]: e.target.value.replace(/[^\d.]/g, '') })}
                onKeyDown={(e) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()}
              />
            ))}
            {filtered && (
              <button type="button" className="link" onClick={() => set({ has: null, volume: null, competition: null, headroom: null })}>
                All {all.length}
              </button>
            )}
          </span>
        </div>
        {dug.isError ? <p className="text-accent py-1">{dug.error.message} What you had stays as it was.</p> : <span />}
        <Table
          name="Terms"
          rows={rows}
          columns={columns}
          id={(r) => r.key}
          cursor={at}
          onCursor={(id) => set({ at: id })}
          onEnter={(r) => dig(r.text, true)}
          sort={sort}
          onSort={(s) => set({ sort: s?.key ?? null, dir: s && !s.down ? 'up' : null })}
          rowClass={(r) => (r.pick?.home === 'avoid' ? 'struck' : '')}
          empty={
            dug.isFetching || shelf.isFetching ? (
              <span className="quiet">Asking {market.platformName}…</span>
            ) : filtered ? (
              <span className="quiet">No term passes these filters.</span>
            ) : term ? (
              <span className="quiet">Nobody types “{term}” here. Try a broader word, or another spelling.</span>
            ) : (
              <span className="quiet">
                Your shelf is empty. Type a broad term above, such as what the product is, and press Enter; or paste a column of terms you
                have.
              </span>
            )
          }
        />
      </section>
      <aside className="side">
        {side === 'paste' ? (
          <Paste place={place} close={() => setSide('term')} done={() => set({ from: 'shelf' })} />
        ) : row ? (
          <TermDetail
            text={row.text}
            numbers={row.numbers}
            norm={norm}
            marketName={`${market.platformName}, ${market.countryName}`}
            actions={
              <p className="flex flex-wrap gap-2 mt-3">
                <button type="button" className="pill" onClick={() => actions.toggle(row.text, row.pick, source)}>
                  {row.pick && row.pick.home !== 'avoid' ? 'Drop' : 'Pick'} <kbd>P</kbd>
                </button>
                <button type="button" className="pill" onClick={() => actions.avoid(row.text, row.pick, source)}>
                  {row.pick?.home === 'avoid' ? 'Stop avoiding' : 'Avoid'} <kbd>X</kbd>
                </button>
                <button type="button" className="pill" onClick={() => dig(row.text, true)}>
                  Dig here <kbd>Enter</kbd>
                </button>
              </p>
            }
          />
        ) : (
          <p className="quiet">A term’s numbers open here: its year, its listings, and what headroom is made of.</p>
        )}
      </aside>
    </main>
  )
}

const columns: Column<Row>[] = [
  {
    key: 'text',
    head: 'Term',
    width: 'minmax(150px,1fr)',
    value: (r) => r.text,
    cell: (r) => (
      <span draggable title={r.text} onDragStart={(e) => e.dataTransfer.setData('text/plain', r.text)}>
        {r.text}
      </span>
    ),
  },
  {
    key: 'from',
    head: 'From',
    title: 'Where the term comes from: its place among what the market’s search box offers, or the shelf',
    width: '74px',
    value: (r) => r.typed,
    cell: (r) => (
      <span className="quiet text-[12px]">
        {[r.typed ? `typed ${r.typed}` : null, !r.typed && r.numbers.source ? r.numbers.source : null].filter(Boolean).join(' · ') ||
          'shelf'}
      </span>
    ),
  },
  {
    key: 'volume',
    head: 'a month',
    title: 'Searches a month in this market',
    width: '64px',
    right: true,
    value: (r) => r.numbers.volume,
    cell: (r) => (
      <span className="num text-[13px]" title={full(r.numbers.volume)}>
        {compact(r.numbers.volume)}
      </span>
    ),
  },
  {
    key: 'competition',
    head: 'listings',
    title: 'Competing listings, and the third of this market’s shelf they fall in',
    width: '102px',
    right: true,
    value: (r) => r.numbers.competition,
    cell: (r) => (
      <span title={full(r.numbers.competition)}>
        <span className="quiet text-[12px]">{r.numbers.band} </span>
        <span className="num text-[13px]">{compact(r.numbers.competition)}</span>
      </span>
    ),
  },
  {
    key: 'headroom',
    head: 'headroom',
    title: 'Demand against supply, 0 to 100; 50 is typical for this market',
    width: '84px',
    right: true,
    value: (r) => r.numbers.headroom,
    cell: (r) => <HeadroomBar value={r.numbers.headroom} />,
  },
  { key: 'months', head: '30 months', width: '88px', cell: (r) => <Silhouette months={r.numbers.months} width={88} /> },
  {
    key: 'pick',
    head: '',
    width: '42px',
    cell: (r) => <span className="mark">{r.pick ? (r.pick.home === 'avoid' ? 'avoid' : 'picked') : ''}</span>,
  },
]
