import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Fit, type Home } from '../kit/api'
import { Silhouette } from '../kit/charts'
import { competitionColumn, DoubtMark, headroomColumn, volumeColumn } from '../kit/columns'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { homeName } from '../kit/names'
import { Num } from '../kit/num'
import { counted, full, gripOf, withoutData } from '../kit/numbers'
import { type Desk, usePickActions, usePicks, useWeighing } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { type Column, changed, type Sort, sortRows, Table } from '../kit/table'
import { TermDetail } from '../kit/term'
import { Legend, Thread } from '../kit/thread'
import { toast, toastAgain } from '../kit/toast'
import { inTurn } from '../kit/turn'
import { Choices, Note } from './choices'
import { FactsPart } from './facts'
import { IdeasPart } from './ideas'
import { LanguagePart } from './language'
import { claimText, fits, folded, homes, nameOf, type Row, sides } from './rows'
import { Woven } from './woven'

/** The picks of a product: fit, home, note, lead; sorted by any number or ordered by hand; variants, weaves, facts, ideas, another language. */
export function PickList({ desk }: { desk: Desk }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const note = useRef<HTMLTextAreaElement>(null)
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const picks = usePicks(desk)
  const weighing = useWeighing(desk)
  const actions = usePickActions(desk)
  const listing = useQuery({
    queryKey: ['listing', desk.listingId],
    queryFn: () => ask(api.GET('/api/listings/{id}', { params: { path: { id: desk.listingId } } })),
  })
  const families = params.get('families') === '1'
  const side = params.get('side') ?? 'term'
  const language = params.get('language')
  const sort: Sort = params.get('sort') ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' } : null

  const all = useMemo(() => {
    const weights = new Map(weighing?.terms.map((t) => [t.key, t]))
    // Picks in another language come together, after those in the listing's own.
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

  /** The picks that a key is about: the selected ones, or the current row with its variants. */
  const chosen = (): string[] => (marked.size > 0 ? all.filter((p) => marked.has(p.key)) : (row?.members ?? [])).map((p) => p.text)

  const lead = async (pick: Row) => {
    const before = listing.data?.leadKey ?? null
    const put = async (key: string | null, done: () => void) => {
      try {
        await inTurn(() => ask(api.PUT('/api/listings/{id}/lead', { params: { path: { id: desk.listingId } }, body: { key } })))
        done()
      } catch (e) {
        toastAgain(messages.notSaved((e as Error).message), () => put(key, done))
      }
      await cache.invalidateQueries({ queryKey: ['listing', desk.listingId] })
    }
    const said = pick.lead ? messages.leadRemoved(pick.text) : messages.leadSet(pick.text)
    await put(pick.lead ? null : pick.key, () => toast(said, () => put(before, () => toast(messages.undone(said)))))
  }
  const move = (by: number) => {
    if (!row || sort || families) return toast(messages.clearSorting)
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
  const panel = useRef<HTMLElement>(null)
  const sideTo = (to: string) => {
    const next = to === 'term' || side === to ? null : to
    set({ side: next })
    // The focus goes to what opens, and back to the row when it closes.
    requestAnimationFrame(() =>
      (next
        ? panel.current?.querySelector<HTMLElement>('[data-panel]')
        : document.querySelector<HTMLElement>('[role=row][tabindex="0"]')
      )?.focus(),
    )
  }
  useShortcuts({
    fitCore: () => give({ fit: 'core' }),
    fitGood: () => give({ fit: 'good' }),
    fitStretch: () => give({ fit: 'stretch' }),
    homeAnywhere: () => give({ home: 'anywhere' }),
    homeTitle: () => give({ home: 'title' }),
    homeTags: () => give({ home: 'tags' }),
    homeBullets: () => give({ home: 'bullets' }),
    homeBackend: () => give({ home: 'backend' }),
    homeBody: () => give({ home: 'body' }),
    homeLater: () => give({ home: 'later' }),
    homeAvoid: () => avoid(),
    lead: () => row && lead(row),
    note: () => note.current?.focus(),
    removePick: () => actions.drop(chosen()),
    moveUp: () => move(-1),
    moveDown: () => move(1),
    variants: () => set({ families: families ? null : '1' }),
    expand: () => fold(true),
    collapse: () => fold(false),
    facts: () => sideTo('facts'),
    ideas: () => sideTo('ideas'),
    language: () => sideTo('language'),
    weave: marked.size < 2 && (() => toast(messages.selectToCombine)),
    close: () => (marked.size > 0 ? setMarked(new Set()) : sideTo('term')),
  })

  const inUse = all.filter((p) => p.home !== 'avoid' && p.home !== 'later')
  const volume = inUse.reduce((sum, p) => sum + (p.numbers.volume ?? 0), 0)
  const unknown = inUse.filter((p) => p.numbers.volume === null).length
  const some = all.filter((p) => marked.has(p.key))
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 336px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
        <h1 className="text-[20px] font-bold mb-1">
          {counted(inUse.length, 'pick')}
          <small className="quiet text-[14px] font-normal font-sans">
            , {full(volume)} searches/mo{withoutData(unknown)}, {all.filter((p) => p.home === 'later').length} saved for later,{' '}
            {all.filter((p) => p.home === 'avoid').length} to avoid
          </small>
        </h1>
        <div className="flex flex-wrap gap-1.5 items-center text-[13px] mb-1 min-h-[24px]">
          {languages.length > 1 &&
            [null, ...languages].map((l) => (
              <button type="button" key={l ?? 'all'} className="choice" aria-pressed={language === l} onClick={() => set({ language: l })}>
                {l === null ? 'All languages' : l === '' ? 'Listing’s language' : nameOf(l)}{' '}
                <span className="num text-[12px]">{l === null ? all.length : all.filter((p) => p.language === l).length}</span>
              </button>
            ))}
          {foldable > 0 && (
            <button
              type="button"
              className="choice"
              aria-pressed={families}
              title="Shows the spelling variants of a term as one row; → shows them, ← hides them"
              onClick={() => set({ families: families ? null : '1' })}
            >
              Group variants <Key of="variants" />
            </button>
          )}
          <span className="quiet ml-auto">
            <kbd>Space</kbd> selects; actions then apply to all selected picks
          </span>
        </div>
        <Legend />
        <Table
          name="Picks"
          rows={rows}
          columns={columns}
          id={(r) => r.key}
          at={at}
          onAt={(_, r) => set({ at: r?.key ?? null })}
          onEnter={(r) => navigate(`${desk.base}/dig?term=${encodeURIComponent(r.text)}`)}
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
                No picks yet. Search for a term in{' '}
                <button type="button" className="link" onClick={() => navigate(`${desk.base}/dig`)}>
                  Dig
                </button>{' '}
                and press <Key of="pick" /> on each one you want to be found for.
              </span>
            )
          }
        />
      </section>
      <aside className="side" ref={panel}>
        <div className="flex gap-1 mb-3" role="group" aria-label="Panel">
          {sides.map(([s, name, key]) => (
            <button type="button" key={s} className="choice" aria-pressed={side === s} onClick={() => sideTo(s)}>
              {name} {key && <Key of={key} />}
            </button>
          ))}
        </div>
        {side === 'facts' ? (
          <FactsPart desk={desk} picks={all} save={actions.fact} />
        ) : side === 'ideas' ? (
          <IdeasPart desk={desk} />
        ) : side === 'language' ? (
          <LanguagePart
            desk={desk}
            picks={some.length > 0 ? some : inUse.filter((p) => p.language === '')}
            known={all}
            keep={actions.change}
          />
        ) : marked.size > 1 ? (
          <div data-testid="marked">
            <h3>{counted(marked.size, 'pick')} selected</h3>
            {some.length >= 2 && some.length <= 6 && <Woven picks={some} known={all} keep={actions.change} />}
            <Choices fit={null} home={null} fits={(fit) => give({ fit })} homes={(home) => (home === 'avoid' ? avoid() : give({ home }))} />
            <p className="flex flex-wrap gap-2 mt-2">
              <button type="button" className="pill" onClick={() => actions.drop(chosen())}>
                Remove picks <Key of="removePick" />
              </button>
              <button type="button" className="pill" onClick={() => setMarked(new Set())}>
                Clear selection <kbd>Esc</kbd>
              </button>
            </p>
          </div>
        ) : (
          row && (
            <TermDetail
              key={row.key}
              desk={desk}
              text={row.text}
              numbers={row.numbers}
              norm={picks.data?.norm}
              dig={(text) => navigate(`${desk.base}/dig?term=${encodeURIComponent(text)}`)}
              actions={
                <div className="mt-3">
                  {row.claims.length > 0 && (
                    <p className="doubts !mt-0 mb-2" data-testid="claims">
                      {claimText(row)}{' '}
                      <button type="button" className="link" onClick={() => sideTo('facts')}>
                        Open facts <Key of="facts" />
                      </button>
                    </p>
                  )}
                  {row.avoidedFor && (
                    <p className="text-accent text-[13.5px] mb-2">
                      <b>Required.</b> This term is on the avoid list ({row.avoidedFor}).
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
                      {row.lead ? 'Remove as lead' : 'Set as lead'} <Key of="lead" />
                    </button>
                    <button type="button" className="pill" onClick={() => actions.drop(chosen())}>
                      Remove pick <Key of="removePick" />
                    </button>
                  </p>
                  {(row.source || row.saidBy) && (
                    <p className="quiet text-[13px] mt-2" data-testid="said-by">
                      {row.source ? `Found in “${row.source}”` : 'Found'}
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
            <Key of="undo" /> <span className="quiet">{picks.data.undo}</span>
          </p>
        )}
      </aside>
    </main>
  )
}

const columns: Column<Row>[] = [
  {
    key: 'grade',
    head: <span className="sr-only">Thread</span>,
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
            ▸ {counted(r.members.length, 'variant')}
          </span>
        )}
        {r.lead && <span className="mark ml-2">lead</span>}
        {r.language && <span className="quiet text-[12px] ml-2">{r.language}</span>}
        {r.claims.length > 0 && r.home !== 'avoid' && (
          <span className="doubt" title={claimText(r)}>
            not in facts: {r.claims.map((c) => c.word).join(', ')}
          </span>
        )}
        {r.avoidedFor && (
          <span className="text-accent text-[12px] ml-2" title={r.avoidedFor}>
            on the avoid list
          </span>
        )}
        <DoubtMark numbers={r.numbers} />
        {r.note && <span className="quiet text-[12px] ml-2">{r.note}</span>}
      </span>
    ),
  },
  {
    key: 'fit',
    head: 'Fit',
    title: 'How true and central it is: core, good or stretch',
    width: '50px',
    words: true,
    value: (r) => fits.findIndex((f) => f[0] === r.fit),
    cell: (r) => <span className="text-[13px]">{r.fit}</span>,
  },
  {
    key: 'home',
    head: 'Home',
    title: 'Where to use it',
    width: '74px',
    words: true,
    value: (r) => homes.findIndex((h) => h[0] === r.home),
    cell: (r) => <span className={`text-[13px] ${r.home === 'anywhere' ? 'quiet' : ''}`}>{homeName[r.home]}</span>,
  },
  volumeColumn,
  competitionColumn,
  headroomColumn,
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly the listing holds it, 0–100',
    width: '44px',
    right: true,
    value: (r) => r.weight?.grip,
    cell: (r) => <Num value={gripOf(r.weight?.grip)} shown={Math.round(gripOf(r.weight?.grip) ?? 0).toString()} unit="of 100" />,
  },
  { key: 'months', head: 'Trend', width: '84px', cell: (r) => <Silhouette months={r.numbers.months} width={84} /> },
]
