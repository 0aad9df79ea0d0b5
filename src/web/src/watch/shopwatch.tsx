import { useAddress } from '../kit/address'
import { SampleBadge } from '../kit/sample'
import { useShop } from '../kit/shop'
import { ShopHead } from '../kit/shophead'
import { useShortcuts } from '../kit/shortcuts'
import { ToastLine } from '../kit/toast'
import { viewIn } from '../kit/views'
import { Journal } from './journal'
import { Movers } from './movers'
import { OwnTerms } from './ownterms'
import { Worked } from './worked'

const views = [
  ['movers', 'Largest movers'],
  ['journal', 'Journal'],
  ['worked', 'What has worked'],
  ['terms', 'Own terms'],
] as const

/** The whole shop watched: which listings moved most, every change, and what each kind of change has done. */
export function ShopWatch() {
  const [params, set] = useAddress()
  const view = viewIn(views, params.get('view'))
  const market = useShop().data?.markets[0]
  const go = (to: string) => set({ view: to === 'movers' ? null : to, at: null, sort: null, dir: null, term: null, text: null })
  useShortcuts({
    foundView: () => go('movers'),
    daysView: () => go('journal'),
    notesView: () => go('worked'),
    rulesView: () => go('terms'),
  })
  const head = (
    <nav className="side-tabs flex items-baseline gap-4" aria-label="Views">
      {views.map(([key, name], i) => (
        <button key={key} type="button" title={String(i + 1)} aria-pressed={view === key} onClick={() => go(key)}>
          {name}
        </button>
      ))}
      {market && <SampleBadge market={market} />}
    </nav>
  )
  return (
    <div className="frame of-shop">
      <ShopHead name="Watch" />
      {view === 'journal' ? (
        <Journal head={head} />
      ) : view === 'worked' ? (
        <Worked head={head} />
      ) : view === 'terms' ? (
        <OwnTerms head={head} />
      ) : (
        <Movers head={head} />
      )}
      <ToastLine />
    </div>
  )
}
