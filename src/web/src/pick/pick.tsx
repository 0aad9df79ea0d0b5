import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Fit, type Home, type Pick, type PickWeight } from '../kit/api'
import { HeadroomBar, Silhouette } from '../kit/charts'
import { useKeys } from '../kit/keys'
import { compact, full } from '../kit/numbers'
import { type Place, usePickActions, usePicks, useWeighing } from '../kit/shop'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { Thread } from '../kit/thread'
import { toast } from '../kit/toast'

type Row = Pick & { weight?: PickWeight; lead: boolean }

const fits: [Fit, string, string][] = [
  ['core', '1', 'What the product is. Counts whole.'],
  ['good', '2', 'True of it. Counts 0.7.'],
  ['stretch', '3', 'Not wrong. Counts 0.4.'],
]
const homes: [Home, string, string][] = [
  ['anywhere', 'A', 'anywhere'],
  ['title', 'T', 'title'],
  ['tags', 'G', 'tags'],
  ['bullets', 'B', 'bullets'],
  ['backend', 'K', 'backend'],
  ['body', 'D', 'description'],
  ['later', 'L', 'later'],
  ['avoid', 'X', 'avoid'],
]
const homeName = (home: Home) => homes.find((h) => h[0] === home)?.[2]

/** The picks of a product: fit, home, note, lead; ordered by any number, or by hand. */
export function PickList({ place }: { place: Place }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const note = useRef<HTMLTextAreaElement>(null)
  const picks = usePicks(place)
  const weighing = useWeighing(place)
  const actions = usePickActions(place)
  const listing = useQuery({
    queryKey: ['listing', place.listingId],
    queryFn: () => ask(api.GET('/api/listings/{id}', { params: { path: { id: place.listingId } } })),
  })
  const all = useMemo(() => {
    const weights = new Map(weighing?.terms.map((t) => [t.key, t]))
    return (picks.data?.picks ?? []).map((p): Row => ({ ...p, weight: weights.get(p.key), lead: p.key === listing.data?.leadKey }))
  }, [picks.data, weighing, listing.data])
  const sort: Sort = params.get('sort') ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' } : null
  const rows = sortRows(all, columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  const row = rows.find((r) => r.key === at)

  const lead = async (pick: Row) => {
    const before = listing.data?.leadKey ?? null
    const put = async (key: string | null) => {
      try {
        await ask(api.PUT('/api/listings/{id}/lead', { params: { path: { id: place.listingId } }, body: { key } }))
        await cache.invalidateQueries({ queryKey: ['listing', place.listingId] })
      } catch (e) {
        toast((e as Error).message)
      }
    }
    await put(pick.lead ? null : pick.key)
    toast(pick.lead ? `“${pick.text}” no longer leads` : `“${pick.text}” leads this listing`, () => put(before))
  }
  const move = (by: number) => {
    if (!row || sort) return toast('Picks are moved by hand in their own order: press the sorted heading once more')
    const keys = all.map((p) => p.key)
    const i = keys.indexOf(row.key)
    const to = i + by
    if (to < 0 || to >= keys.length) return
    keys.splice(to, 0, ...keys.splice(i, 1))
    actions.order(keys)
  }
  const keyed: Record<string, () => void> = {}
  for (const [fit, key] of fits) keyed[key] = () => row && actions.change([row.text], { fit })
  for (const [home, key] of homes)
    keyed[key.toLowerCase()] = () =>
      row && actions.change([row.text], { home: home === 'avoid' && row.home === 'avoid' ? 'anywhere' : home })
  useKeys({
    ...keyed,
    e: () => row && lead(row),
    n: () => note.current?.focus(),
    p: () => row && actions.drop([row.text]),
    Delete: () => row && actions.drop([row.text]),
    'Alt+ArrowUp': () => move(-1),
    'Alt+ArrowDown': () => move(1),
  })

  const counted = all.filter((p) => p.home !== 'avoid' && p.home !== 'later')
  const volume = counted.reduce((sum, p) => sum + (p.numbers.volume ?? 0), 0)
  const unknown = counted.filter((p) => p.numbers.volume === null).length
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 336px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
        <h1 className="text-[20px] font-bold mb-2">
          {counted.length} picks{' '}
          <small className="quiet text-[14px] font-normal font-sans">
            {full(volume)} searches a month between them{unknown > 0 ? `, ${unknown} unknown` : ''};{' '}
            {all.filter((p) => p.home === 'later').length} for later, {all.filter((p) => p.home === 'avoid').length} avoided
          </small>
        </h1>
        <Table
          name="Picks"
          rows={rows}
          columns={columns}
          id={(r) => r.key}
          cursor={at}
          onCursor={(id) => set({ at: id })}
          onEnter={(r) => navigate(`${place.base}/dig?term=${encodeURIComponent(r.text)}`)}
          sort={sort}
          onSort={(s) => set({ sort: s?.key ?? null, dir: s && !s.down ? 'up' : null })}
          rowClass={(r) => (r.home === 'avoid' ? 'struck' : r.home === 'later' ? 'quiet' : '')}
          rowHeight={38}
          empty={
            picks.isFetching ? (
              ''
            ) : (
              <span className="quiet">
                Nothing picked yet. In{' '}
                <button type="button" className="link" onClick={() => navigate(`${place.base}/dig`)}>
                  Dig
                </button>{' '}
                look up a term and press <kbd>P</kbd> on each one worth having.
              </span>
            )
          }
        />
      </section>
      <aside className="side">
        {row && (
          <TermDetail
            key={row.key}
            text={row.text}
            numbers={row.numbers}
            norm={picks.data?.norm}
            marketName={`${place.market.platformName}, ${place.market.countryName}`}
            actions={
              <div className="mt-3">
                <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Fit">
                  <span className="w-full quiet text-[13px]">Fit</span>
                  {fits.map(([fit, key, why]) => (
                    <button
                      type="button"
                      key={fit}
                      title={why}
                      aria-pressed={row.fit === fit}
                      className="choice"
                      onClick={() => actions.change([row.text], { fit })}
                    >
                      {fit} <kbd>{key}</kbd>
                    </button>
                  ))}
                </div>
                <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Home">
                  <span className="w-full quiet text-[13px]">Home</span>
                  {homes.map(([home, key, name]) => (
                    <button
                      type="button"
                      key={home}
                      aria-pressed={row.home === home}
                      className="choice"
                      onClick={() => actions.change([row.text], { home })}
                    >
                      {name} <kbd>{key}</kbd>
                    </button>
                  ))}
                </div>
                <Note key={row.key} box={note} pick={row} save={(text) => actions.change([row.text], { note: text })} />
                <p className="flex flex-wrap gap-2 mt-2">
                  <button type="button" className="pill" onClick={() => lead(row)} disabled={row.home === 'avoid'}>
                    {row.lead ? 'Stop leading' : 'Make it the lead'} <kbd>E</kbd>
                  </button>
                  <button type="button" className="pill" onClick={() => actions.drop([row.text])}>
                    Drop <kbd>Del</kbd>
                  </button>
                </p>
                {row.source && <p className="quiet text-[13px] mt-2">Found in “{row.source}”.</p>}
              </div>
            }
          />
        )}
        {picks.data?.undo && (
          <p className="mt-4 text-[13.5px]">
            <button type="button" className="link" onClick={actions.undo}>
              Undo
            </button>{' '}
            <kbd>U</kbd> <span className="quiet">{picks.data.undo}</span>
          </p>
        )}
      </aside>
    </main>
  )
}

function Note({ pick, save, box }: { pick: Pick; save: (text: string) => void; box: React.RefObject<HTMLTextAreaElement | null> }) {
  const [text, setText] = useState(pick.note)
  return (
    <label className="block">
      <span className="quiet text-[13px]">
        {pick.home === 'avoid' ? 'Why avoid it' : 'Note'} <kbd>N</kbd>
      </span>
      <textarea
        ref={box}
        className="textarea textarea-sm w-full min-h-9 h-9"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text !== pick.note && save(text)}
        onKeyDown={(e) => {
          if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
            e.preventDefault()
            e.currentTarget.blur()
          }
        }}
      />
    </label>
  )
}

const columns: Column<Row>[] = [
  {
    key: 'grade',
    head: '',
    title: 'How firmly the listing holds it',
    width: '40px',
    cell: (r) => (r.home === 'avoid' ? null : <Thread grade={r.weight?.grade} width={36} />),
  },
  {
    key: 'text',
    head: 'Pick',
    width: 'minmax(160px,1fr)',
    value: (r) => r.text,
    cell: (r) => (
      <span title={r.note}>
        {r.text}
        {r.lead && <span className="mark ml-2">lead</span>}
        {r.note && <span className="quiet text-[12px] ml-2">{r.note}</span>}
      </span>
    ),
  },
  {
    key: 'fit',
    head: 'fit',
    title: 'How true and central it is: core, good, stretch',
    width: '56px',
    value: (r) => fits.findIndex((f) => f[0] === r.fit),
    cell: (r) => <span className="text-[13px]">{r.fit}</span>,
  },
  {
    key: 'home',
    head: 'home',
    title: 'Where it should live',
    width: '80px',
    value: (r) => homes.findIndex((h) => h[0] === r.home),
    cell: (r) => <span className={`text-[13px] ${r.home === 'anywhere' ? 'quiet' : ''}`}>{homeName(r.home)}</span>,
  },
  {
    key: 'volume',
    head: 'a month',
    title: 'Searches a month',
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
    width: '112px',
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
  {
    key: 'grip',
    head: 'grip',
    title: 'How firmly the listing holds it, 0 to 1',
    width: '44px',
    right: true,
    value: (r) => r.weight?.grip,
    cell: (r) => <span className="num text-[13px]">{r.weight ? r.weight.grip.toFixed(2) : '–'}</span>,
  },
  { key: 'months', head: '30 months', width: '112px', cell: (r) => <Silhouette months={r.numbers.months} /> },
]
