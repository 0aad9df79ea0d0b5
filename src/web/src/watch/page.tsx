import { useAddress } from '../kit/address'
import type { Desk } from '../kit/shop'
import { keysOf, useShortcuts } from '../kit/shortcuts'
import { viewIn } from '../kit/views'
import { Clock } from './clock'
import { DaysView } from './days'
import { FoundView } from './found'
import { NotesView } from './notes'
import { RulesView } from './rules'
import { useWatch } from './usewatch'
import { type View, views } from './views'

/** Whether the listing is found, where, and whether changes helped. */
export function Watch({ desk }: { desk: Desk }) {
  const [params, set] = useAddress()
  const { watch, problem, save } = useWatch(desk)
  const view = viewIn(views, params.get('view'))
  const go = (to: View) => set({ view: to === 'found' ? null : to, at: null, sort: null, dir: null })
  useShortcuts({
    foundView: () => go('found'),
    daysView: () => go('days'),
    notesView: () => go('notes'),
    rulesView: () => go('rules'),
  })
  if (!watch)
    return (
      <main className="p-10" role={problem ? 'alert' : undefined}>
        {problem}
      </main>
    )
  const head = (
    <div className="flex items-baseline flex-wrap gap-x-4 border-b border-base-300 mb-2">
      <nav className="side-tabs !border-0 flex items-baseline gap-4" aria-label="Views">
        {views.map(([key, name, id]) => (
          <button key={key} type="button" title={keysOf(id)[0]} aria-pressed={view === key} onClick={() => go(key)}>
            {name}
          </button>
        ))}
      </nav>
      {watch.canMoveClock && <Clock watch={watch} />}
    </div>
  )
  const frame = { desk, watch, head }
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      {view === 'days' ? (
        <DaysView {...frame} />
      ) : view === 'notes' ? (
        <NotesView {...frame} />
      ) : view === 'rules' ? (
        <RulesView {...frame} />
      ) : (
        <FoundView {...frame} save={save} />
      )}
    </main>
  )
}
