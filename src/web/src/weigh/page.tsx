import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import type { Checked, Listing } from '../kit/api'
import { listingDraft, useDraftView } from '../kit/drafts/drafts'
import { useSteps } from '../kit/drafts/steps'
import { counted } from '../kit/numbers'
import { OpenListing } from '../kit/openlisting'
import type { Desk } from '../kit/shop'
import { keysOf, type ShortcutId, useShortcuts } from '../kit/shortcuts'
import { viewIn } from '../kit/views'
import { useWeighing, weighKey } from '../kit/weighing'
import { Buyers } from './buyers'
import { PicksByField, usePickRows } from './fields'
import { Moves } from './moves'
import { checkOf } from './newfindings'
import { Places } from './places'
import { RivalsView } from './rivals'
import { ScoreLine, Scores } from './scores'
import { TopListings } from './top'
import { Trace } from './trace'
import { views } from './views'

/** Reach and grip explained, what to do next, and what rivals and buyers have to do with it. */
export function Weigh({ desk }: { desk: Desk }) {
  return <OpenListing desk={desk}>{(listing) => <Weighed key={listing.id} desk={desk} saved={listing} />}</OpenListing>
}

function Weighed({ desk, saved }: { desk: Desk; saved: Listing }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const weighing = useWeighing(desk)
  const [draft] = useState(() => listingDraft(saved.id, saved.copy, saved.revision))
  const saving = useDraftView(draft)
  const steps = useSteps(draft, { screen: 'weigh', product: desk.product.id, listing: desk.listingId, page: saved.page?.id })
  const view = viewIn(views, params.get('view'))
  const go = (to: string) => set({ view: to === 'fields' ? null : to, side: null, at: null, sort: null, dir: null })
  useShortcuts({
    undo: steps.undo,
    redo: steps.redo,
    movesPanel: () => set({ side: 'moves' }),
    pickPanel: view === 'fields' && (() => set({ side: 'pick' })),
    detailPanel: view !== 'fields' && (() => set({ side: 'detail' })),
    fieldsView: () => go('fields'),
    rivalsView: () => go('rivals'),
    buyersView: () => go('buyers'),
    topView: () => go('top'),
    placesView: () => go('places'),
  })
  const copy = saving.value
  const listing = useMemo(() => ({ ...saved, copy: copy as Listing['copy'] }), [saved, copy])
  // A move changes the text: the scores are asked for again.
  const weighed = useRef(copy)
  useEffect(() => {
    if (weighed.current === copy) return
    weighed.current = copy
    cache.invalidateQueries({ queryKey: weighKey(desk) })
  }, [cache, copy, desk])
  const required = useQuery({
    ...checkOf(desk, copy),
    placeholderData: (before: Checked | undefined) => before,
  }).data?.findings.filter((f) => f.level === 'must' && !f.aside).length
  const picks = usePickRows(desk, weighing, listing)
  // What had the focus may be gone with the view before: the view takes it, not the first button in it.
  const main = useRef<HTMLElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: when the view changes
  useEffect(() => {
    if (document.activeElement === document.body) main.current?.focus({ preventScroll: true })
  }, [view])
  if (!weighing) return <main />
  const side = params.get('side') ?? (view === 'fields' ? (params.get('at') ? 'pick' : 'moves') : 'detail')
  const head = (
    <nav className="side-tabs flex items-baseline gap-4" aria-label="Views">
      {views.map(([key, name, id]) => (
        <button key={key} type="button" title={keysOf(id)[0]} aria-pressed={view === key} onClick={() => go(key)}>
          {name}
        </button>
      ))}
      {required !== undefined && required > 0 && (
        <Link className="text-accent text-[14px] font-semibold" to={`${desk.base}/write?side=findings`}>
          {counted(required, 'required fix', 'required fixes')}
        </Link>
      )}
      {view !== 'fields' && <ScoreLine weighing={weighing} />}
    </nav>
  )
  const panels: [string, string, ShortcutId][] = [
    view === 'fields' ? ['pick', 'Pick', 'pickPanel'] : ['detail', detailNames[view], 'detailPanel'],
    ['moves', 'Moves', 'movesPanel'],
  ]
  const tabs = (
    <nav className="side-tabs" aria-label="Panels">
      {panels.map(([key, name, id]) => (
        <button key={key} type="button" title={keysOf(id)[0]} aria-pressed={side === key} onClick={() => set({ side: key })}>
          {name}
        </button>
      ))}
    </nav>
  )
  const moves = side === 'moves' && <Moves desk={desk} listing={listing} saving={saving} steps={steps} />
  const frame = { head, tabs, moves, desk, listing, steps, weighing }
  return (
    <main ref={main} tabIndex={-1} className="work outline-none" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      {view === 'rivals' ? (
        <RivalsView {...frame} />
      ) : view === 'buyers' ? (
        <Buyers {...frame} />
      ) : view === 'top' ? (
        <TopListings {...frame} />
      ) : view === 'places' ? (
        <Places {...frame} />
      ) : (
        <>
          <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
            {head}
            <div>
              <Scores weighing={weighing} listing={listing} required={required} />
            </div>
            <PicksByField desk={desk} weighing={weighing} listing={listing} picks={picks} />
          </section>
          <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
            {tabs}
            {moves || (
              <div className="side-part">{picks.term && <Trace term={picks.term} weighing={weighing} listing={listing} desk={desk} />}</div>
            )}
          </aside>
        </>
      )}
    </main>
  )
}

const detailNames = { rivals: 'Rival', buyers: 'Phrase', top: 'Value', places: 'Bring over' } as const
