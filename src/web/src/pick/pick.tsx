import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Fit, type Home, type Pick, type PickWeight } from '../kit/api'
import { Silhouette } from '../kit/charts'
import { competitionColumn, DoubtMark, headroomColumn, volumeColumn } from '../kit/columns'
import { useKeys } from '../kit/keys'
import { useNote } from '../kit/note'
import { full } from '../kit/numbers'
import { inTurn, type Place, usePickActions, usePicks, useWeighing } from '../kit/shop'
import { type Column, changed, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { Thread } from '../kit/thread'
import { toast } from '../kit/toast'
import { FactsPart } from './facts'
import { IdeasPart } from './ideas'
import { LanguagePart } from './language'
import { Woven } from './woven'

export type Row = Pick & {
  weight?: PickWeight
  lead: boolean
  /** Its whole family, the strongest first, where the table shows it as one row; otherwise itself. */
  members: Pick[]
  /** Whether it stands under its family's row. */
  under: boolean
}

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
const sides = [
  ['term', 'Pick', ''],
  ['facts', 'Facts', 'F'],
  ['ideas', 'Ideas', 'I'],
  ['language', 'Language', 'S'],
] as const

/** The picks of a product: fit, home, note, lead; ordered by any number, or by hand; families, weaves, facts, ideas, another language. */
export function PickList({ place }: { place: Place }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const note = useRef<HTMLTextAreaElement>(null)
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const picks = usePicks(place)
  const weighing = useWeighing(place)
  const actions = usePickActions(place)
  const listing = useQuery({
    queryKey: ['listing', place.listingId],
    queryFn: () => ask(api.GET('/api/listings/{id}', { params: { path: { id: place.listingId } } })),
  })
  const families = params.get('families') === '1'
  const side = params.get('side') ?? 'term'
  const language = params.get('language')
  const sort: Sort = params.get('sort') ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' } : null

  const all = useMemo(() => {
    const weights = new Map(weighing?.terms.map((t) => [t.key, t]))
    // A second language keeps together, after the listing's own.
    const inOrder = [...(picks.data?.picks ?? [])].sort((a, b) => a.language.localeCompare(b.language))
    return inOrder.map(
      (p): Row => ({ ...p, weight: weights.get(p.key), lead: p.key === listing.data?.leadKey, members: [p], under: false }),
    )
  }, [picks.data, weighing, listing.data])
  const languages = [...new Set(all.map((p) => p.language))]
  const rows = useMemo(() => {
    const some = sortRows(
      all.filter((p) => language === null || p.language === language),
      columns,
      sort,
    )
    return families ? folded(some, opened) : some
  }, [all, language, sort, families, opened])
  const wanted = params.get('at')
  const found = rows.findIndex((r) => r.key === wanted || r.members.some((m) => m.key === wanted))
  const at = found >= 0 ? found : rows.length > 0 ? 0 : -1
  const row = rows[at]
  const foldable = all.length - new Set(all.map((p) => p.family)).size

  /** The picks a key is about: those marked, or the row one is on with its family. */
  const chosen = (): string[] => (marked.size > 0 ? all.filter((p) => marked.has(p.key)) : (row?.members ?? [])).map((p) => p.text)

  const lead = async (pick: Row) => {
    const before = listing.data?.leadKey ?? null
    const put = async (key: string | null) => {
      try {
        await inTurn(() => ask(api.PUT('/api/listings/{id}/lead', { params: { path: { id: place.listingId } }, body: { key } })))
      } catch (e) {
        return toast((e as Error).message)
      }
      await cache.invalidateQueries({ queryKey: ['listing', place.listingId] })
    }
    put(pick.lead ? null : pick.key)
    await inTurn(async () => undefined)
    toast(pick.lead ? `“${pick.text}” no longer leads` : `“${pick.text}” leads this listing`, () => put(before))
  }
  const move = (by: number) => {
    if (!row || sort || families)
      return toast('Picks are moved by hand in their own order, each in a row of its own: press the sorted heading once more')
    const keys = all.map((p) => p.key)
    const i = keys.indexOf(row.key)
    const to = i + by
    if (to < 0 || to >= keys.length) return
    keys.splice(to, 0, ...keys.splice(i, 1))
    actions.order(keys)
  }
  const give = (change: { fit?: Fit; home?: Home }) => {
    const texts = chosen()
    if (texts.length > 0) actions.change(texts, change)
  }
  const avoid = () => {
    const texts = chosen()
    if (texts.length > 0) actions.change(texts, { home: marked.size === 0 && row?.home === 'avoid' ? 'anywhere' : 'avoid' })
  }
  const fold = (open: boolean) => row && families && setOpened(changed(opened, [row.family], open))
  const keyed: Record<string, () => void> = {}
  for (const [fit, key] of fits) keyed[key] = () => give({ fit })
  for (const [home, key] of homes) keyed[key.toLowerCase()] = () => (home === 'avoid' ? avoid() : give({ home }))
  const sideTo = (to: string) => set({ side: to === 'term' || side === to ? null : to })
  useKeys({
    ...keyed,
    e: () => row && lead(row),
    n: () => note.current?.focus(),
    p: () => actions.drop(chosen()),
    Delete: () => actions.drop(chosen()),
    'Alt+ArrowUp': () => move(-1),
    'Alt+ArrowDown': () => move(1),
    o: () => set({ families: families ? null : '1' }),
    ArrowRight: () => fold(true),
    ArrowLeft: () => fold(false),
    f: () => sideTo('facts'),
    i: () => sideTo('ideas'),
    s: () => sideTo('language'),
    ...(marked.size < 2 && { w: () => toast('Mark two to six picks with Space; what holds them all is then shown here') }),
    Escape: () => (marked.size > 0 ? setMarked(new Set()) : set({ side: null })),
  })

  const counted = all.filter((p) => p.home !== 'avoid' && p.home !== 'later')
  const volume = counted.reduce((sum, p) => sum + (p.numbers.volume ?? 0), 0)
  const unknown = counted.filter((p) => p.numbers.volume === null).length
  const some = all.filter((p) => marked.has(p.key))
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 336px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
        <h1 className="text-[20px] font-bold mb-1">
          {counted.length} picks{' '}
          <small className="quiet text-[14px] font-normal font-sans">
            {full(volume)} searches a month between them{unknown > 0 ? `, ${unknown} unknown` : ''};{' '}
            {all.filter((p) => p.home === 'later').length} for later, {all.filter((p) => p.home === 'avoid').length} avoided
          </small>
        </h1>
        <div className="flex flex-wrap gap-1.5 items-center text-[13px] mb-1 min-h-[24px]">
          {languages.length > 1 &&
            [null, ...languages].map((l) => (
              <button type="button" key={l ?? 'all'} className="choice" aria-pressed={language === l} onClick={() => set({ language: l })}>
                {l === null ? 'all languages' : l === '' ? 'listing’s own' : nameOf(l)}{' '}
                <span className="num text-[12px]">{l === null ? all.length : all.filter((p) => p.language === l).length}</span>
              </button>
            ))}
          {foldable > 0 && (
            <button
              type="button"
              className="choice"
              aria-pressed={families}
              title="Spellings and forms of one term as one row; → opens one, ← closes it"
              onClick={() => set({ families: families ? null : '1' })}
            >
              families as one row <kbd>O</kbd>
            </button>
          )}
          <span className="quiet ml-auto">
            <kbd>Space</kbd> marks; what you do then is done to all that are marked
          </span>
        </div>
        <Table
          name="Picks"
          rows={rows}
          columns={columns}
          id={(r) => r.key}
          at={at}
          onAt={(_, r) => set({ at: r?.key ?? null })}
          onEnter={(r) => navigate(`${place.base}/dig?term=${encodeURIComponent(r.text)}`)}
          marked={marked}
          onMark={(ids, on) =>
            setMarked(
              changed(
                marked,
                ids.flatMap((id) => rows.find((r) => r.key === id)?.members.map((m) => m.key) ?? [id]),
                on,
              ),
            )
          }
          sort={sort}
          onSort={(s) => set({ sort: s?.key ?? null, dir: s && !s.down ? 'up' : null })}
          rowClass={(r) => (r.home === 'avoid' ? 'struck' : r.home === 'later' ? 'quiet' : '')}
          rowHeight={36}
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
        <div className="flex gap-1 mb-3" role="group" aria-label="Show beside the picks">
          {sides.map(([s, name, key]) => (
            <button type="button" key={s} className="choice" aria-pressed={side === s} onClick={() => sideTo(s)}>
              {name} {key && <kbd>{key}</kbd>}
            </button>
          ))}
        </div>
        {side === 'facts' ? (
          <FactsPart place={place} picks={all} save={actions.fact} />
        ) : side === 'ideas' ? (
          <IdeasPart place={place} />
        ) : side === 'language' ? (
          <LanguagePart
            place={place}
            picks={some.length > 0 ? some : counted.filter((p) => p.language === '')}
            known={all}
            keep={actions.change}
          />
        ) : marked.size > 1 ? (
          <div data-testid="marked">
            <h3>{marked.size} marked</h3>
            {some.length >= 2 && some.length <= 6 && <Woven picks={some} known={all} keep={actions.change} />}
            <Choices fit={null} home={null} fits={(fit) => give({ fit })} homes={(home) => (home === 'avoid' ? avoid() : give({ home }))} />
            <p className="flex flex-wrap gap-2 mt-2">
              <button type="button" className="pill" onClick={() => actions.drop(chosen())}>
                Drop them <kbd>Del</kbd>
              </button>
              <button type="button" className="pill" onClick={() => setMarked(new Set())}>
                Unmark <kbd>Esc</kbd>
              </button>
            </p>
          </div>
        ) : (
          row && (
            <TermDetail
              key={row.key}
              place={place}
              text={row.text}
              numbers={row.numbers}
              norm={picks.data?.norm}
              dig={(text) => navigate(`${place.base}/dig?term=${encodeURIComponent(text)}`)}
              actions={
                <div className="mt-3">
                  {row.claims.length > 0 && (
                    <p className="doubts !mt-0 mb-2" data-testid="claims">
                      The facts lack {row.claims.map((c) => `the ${c.facet} “${c.word}”`).join(' and ')}.{' '}
                      <button type="button" className="link" onClick={() => sideTo('facts')}>
                        Facts <kbd>F</kbd>
                      </button>
                    </p>
                  )}
                  {row.avoidedFor && (
                    <p className="text-accent text-[13.5px] mb-2">
                      <b>Must not be used:</b> the shop avoids it ({row.avoidedFor}).
                    </p>
                  )}
                  <Choices
                    fit={row.fit}
                    home={row.home}
                    fits={(fit) => give({ fit })}
                    homes={(home) => (home === 'avoid' ? avoid() : give({ home }))}
                  />
                  <Note key={row.key} box={note} pick={row} save={actions.note} />
                  <p className="flex flex-wrap gap-2 mt-2">
                    <button type="button" className="pill" onClick={() => lead(row)} disabled={row.home === 'avoid'}>
                      {row.lead ? 'Stop leading' : 'Make it the lead'} <kbd>E</kbd>
                    </button>
                    <button type="button" className="pill" onClick={() => actions.drop(chosen())}>
                      Drop <kbd>Del</kbd>
                    </button>
                  </p>
                  {(row.source || row.saidBy) && (
                    <p className="quiet text-[13px] mt-2" data-testid="said-by">
                      {row.source ? `Found under “${row.source}”` : 'Found'}
                      {row.saidBy ? `: ${row.saidBy.replace(/\.$/, '')}` : ''}.
                    </p>
                  )}
                </div>
              }
            />
          )
        )}
        {picks.data?.undo && (
          <p className="mt-4 text-[13.5px]">
            <button type="button" className="link" onClick={() => actions.undo()}>
              Undo
            </button>{' '}
            <kbd>U</kbd> <span className="quiet">{picks.data.undo}</span>
          </p>
        )}
      </aside>
    </main>
  )
}

const names = new Intl.DisplayNames('en', { type: 'language' })
export const nameOf = (language: string) => names.of(language) ?? language

/** One row for each family, where its first member stands; the others under it where it is open. */
function folded(rows: Row[], opened: ReadonlySet<string>): Row[] {
  const byFamily = Map.groupBy(rows, (r) => `${r.language} ${r.family}`)
  return [...byFamily.values()].flatMap((members) => {
    if (members.length === 1) return members
    const strongest = members.reduce((best, r) => ((r.numbers.volume ?? -1) > (best.numbers.volume ?? -1) ? r : best))
    const open = opened.has(strongest.family)
    const others = members.filter((m) => m !== strongest)
    return [
      { ...strongest, members: open ? [strongest] : [strongest, ...others] },
      ...(open ? others.map((m) => ({ ...m, under: true })) : []),
    ]
  })
}

function Choices({
  fit,
  home,
  fits: onFit,
  homes: onHome,
}: {
  fit: Fit | null
  home: Home | null
  fits: (fit: Fit) => void
  homes: (home: Home) => void
}) {
  return (
    <>
      <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Fit">
        <span className="w-full quiet text-[13px]">Fit</span>
        {fits.map(([f, key, why]) => (
          <button type="button" key={f} title={why} aria-pressed={fit === f} className="choice" onClick={() => onFit(f)}>
            {f} <kbd>{key}</kbd>
          </button>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Home">
        <span className="w-full quiet text-[13px]">Home</span>
        {homes.map(([h, key, name]) => (
          <button type="button" key={h} aria-pressed={home === h} className="choice" onClick={() => onHome(h)}>
            {name} <kbd>{key}</kbd>
          </button>
        ))}
      </div>
    </>
  )
}

function Note({
  pick,
  save,
  box,
}: {
  pick: Pick
  save: ReturnType<typeof usePickActions>['note']
  box: React.RefObject<HTMLTextAreaElement | null>
}) {
  const { text, setText, leave, state } = useNote(pick, save)
  return (
    <div>
      <label className="block">
        <span className="quiet text-[13px]">
          {pick.home === 'avoid' ? 'Why avoid it: it guards all copy of the shop' : 'Note'} <kbd>N</kbd>
        </span>
        <textarea
          ref={box}
          className="textarea textarea-sm w-full min-h-9 h-9"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={leave}
          onKeyDown={(e) => {
            if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
              e.preventDefault()
              e.currentTarget.blur()
            }
          }}
        />
      </label>
      {state}
    </div>
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
    words: true,
    value: (r) => r.text,
    cell: (r) => (
      <span title={r.note} className={r.under ? 'pl-4' : ''}>
        {r.text}
        {r.members.length > 1 && (
          <span className="quiet text-[12px] ml-2" title={r.members.map((m) => `${m.text}: ${full(m.numbers.volume)}`).join('\n')}>
            ▸ {r.members.length} forms
          </span>
        )}
        {r.lead && <span className="mark ml-2">lead</span>}
        {r.language && <span className="quiet text-[12px] ml-2">{r.language}</span>}
        {r.claims.length > 0 && r.home !== 'avoid' && (
          <span className="doubt" title={`The facts lack ${r.claims.map((c) => `the ${c.facet} “${c.word}”`).join(' and ')}`}>
            facts lack {r.claims.map((c) => c.word).join(', ')}
          </span>
        )}
        {r.avoidedFor && (
          <span className="text-accent text-[12px] ml-2" title={r.avoidedFor}>
            avoided in the shop
          </span>
        )}
        <DoubtMark numbers={r.numbers} />
        {r.note && <span className="quiet text-[12px] ml-2">{r.note}</span>}
      </span>
    ),
  },
  {
    key: 'fit',
    head: 'fit',
    title: 'How true and central it is: core, good, stretch',
    width: '50px',
    words: true,
    value: (r) => fits.findIndex((f) => f[0] === r.fit),
    cell: (r) => <span className="text-[13px]">{r.fit}</span>,
  },
  {
    key: 'home',
    head: 'home',
    title: 'Where it should live',
    width: '74px',
    words: true,
    value: (r) => homes.findIndex((h) => h[0] === r.home),
    cell: (r) => <span className={`text-[13px] ${r.home === 'anywhere' ? 'quiet' : ''}`}>{homeName(r.home)}</span>,
  },
  volumeColumn,
  competitionColumn,
  headroomColumn,
  {
    key: 'grip',
    head: 'grip',
    title: 'How firmly the listing holds it, 0 to 1',
    width: '44px',
    right: true,
    value: (r) => r.weight?.grip,
    cell: (r) => <span className="num text-[13px]">{r.weight ? r.weight.grip.toFixed(2) : '–'}</span>,
  },
  { key: 'months', head: '30 months', width: '84px', cell: (r) => <Silhouette months={r.numbers.months} width={84} /> },
]
