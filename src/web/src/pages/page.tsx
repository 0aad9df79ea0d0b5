import { useAddress } from '../kit/address'
import { useSite } from '../kit/pages'
import { SampleBadge } from '../kit/sample'
import { useConnected, useShop } from '../kit/shop'
import { ShopHead } from '../kit/shophead'
import { ToastLine } from '../kit/toast'
import { AltSheet } from './altsheet'
import { FilesPart } from './files'
import { Leads } from './leads'
import { SitePart } from './sitepart'
import { TreePart } from './treepart'

const views = [
  ['tree', 'Pages'],
  ['alt', 'Alt text'],
  ['leads', 'Leads'],
  ['files', 'Import and export'],
  ['site', 'Site settings'],
] as const

/** The seller's own web shop: its pages, the alt text of all pictures, the leads, files in and out, the settings. */
export function WebShop() {
  const [params, set] = useAddress()
  const view = params.get('view') ?? 'tree'
  const site = useSite().data
  const market = useShop().data?.markets.find((m) => m.id === site?.marketId)
  const connected = useConnected()
  return (
    <div className="frame of-shop">
      <ShopHead name="Web shop" />
      <main className="overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
        <nav className="side-tabs px-5 pt-2 flex gap-1 items-center" aria-label="Views">
          {views.map(([key, name]) => (
            <button
              key={key}
              type="button"
              aria-pressed={view === key}
              onClick={() => set({ view: key === 'tree' ? null : key, at: null })}
            >
              {name}
            </button>
          ))}
          <span className="ml-auto quiet text-[13px] flex items-center gap-2">
            {`${site?.address || 'No address set yet'}${market && connected ? ';' : ''}`}
            {market && connected && (
              <>
                {' '}
                numbers: web search, {market.countryName} <SampleBadge market={market} />
              </>
            )}
          </span>
        </nav>
        {view === 'alt' ? (
          <AltSheet marketId={site?.marketId ?? null} />
        ) : view === 'leads' ? (
          <Leads />
        ) : view === 'files' ? (
          <FilesPart />
        ) : view === 'site' ? (
          site && <SitePart site={site} />
        ) : (
          <TreePart site={site} />
        )}
      </main>
      <ToastLine />
    </div>
  )
}
