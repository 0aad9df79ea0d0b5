import type { RefObject } from 'react'
import type { Checked, Copy, Field, Finding, Listing, PageFigures, Value, Weighed, Weighing } from '../kit/api'
import type { Draft } from '../kit/drafts/draft'
import type { ListingSteps } from '../kit/drafts/steps'
import type { Desk } from '../kit/shop'
import { keysOf, type ShortcutId } from '../kit/shortcuts'
import { Figures, Held } from './figures'
import { FillPanel } from './fill'
import { AllFindings, type FindingActions, onceEach } from './findings'
import { PagePanel } from './pagepanel'
import { Reading } from './reading'
import { SendOut } from './sendout'
import { Takes } from './takes'
import { boxesOf } from './usefindings'
import type { useTitle } from './usetitle'
import { Versions } from './versions'
import { WordsPanel } from './words'

/** The panels beside the text; the address remembers which is open. The one for pages is only beside a page. */
const panels: [string, string, string, ShortcutId][] = [
  ['picks', 'Picks', 'Your picks and the words they lack', 'picksPanel'],
  ['words', 'Words', 'Each word of the picks, and where it stands', 'wordsPanel'],
  ['findings', 'Findings', 'What to fix', 'findingsPanel'],
  ['page', 'Page', 'The page’s figures, and words that narrow its lead', 'pagePanel'],
  ['takes', 'Takes', 'Versions of the title with their scores', 'takesPanel'],
  ['read', 'Read', 'Known terms in the title, and better orders', 'readPanel'],
  ['versions', 'Versions', 'Earlier states of the listing', 'versionsPanel'],
  ['send', 'Publish', 'Publish or export', 'sendPanel'],
]

/** The keys that open the panels. */
export const panelKeys = (openPanel: (panel: string) => void) =>
  Object.fromEntries(panels.map(([panel, , , id]) => [id, () => openPanel(panel)]))

/** The figures of the listing, and under them one panel. */
export function SidePanel(p: {
  box: RefObject<HTMLElement | null>
  desk: Desk
  listing: Listing
  draft: Draft<Copy>
  title: Field | undefined
  titles: ReturnType<typeof useTitle>
  steps: ListingSteps
  weighing: Weighing | undefined
  weighedCopy: Copy | undefined
  began: Weighed | null
  checked: Checked | null
  open: Finding[]
  actions: FindingActions
  /** Another number after each check. */
  round: number
  side: string
  filled: Field | undefined
  /** The field that one is in, or was in last. */
  here: Field | undefined
  show: (panel: string) => void
  pointed: string | undefined
  point: (key: string | null) => void
  settle: () => Promise<void>
  figures: PageFigures | undefined
  insert: (word: string, head: string) => void
  copyAll: () => void
}) {
  const { desk, listing, title, titles, steps, side, filled, weighing } = p
  const copy = () => p.draft.snapshot().value
  const required = onceEach(p.open.filter((f) => f.level === 'must')).length
  return (
    <aside ref={p.box} className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
      <Figures desk={desk} began={p.began} weighing={weighing} required={p.checked ? required : null} show={() => p.show('findings')} />
      <nav className="side-tabs" aria-label="Panels">
        {panels
          .filter(([key]) => key !== 'page' || listing.page)
          .map(([key, name, about, id]) => (
            <button key={key} type="button" title={`${about} (${keysOf(id)[0]})`} aria-pressed={side === key} onClick={() => p.show(key)}>
              {name}
              {key === 'findings' && p.open.length > 0 && (
                <span className={`count ${required > 0 ? 'must' : ''}`}>{onceEach(p.open).length}</span>
              )}
            </button>
          ))}
      </nav>
      {filled ? (
        <FillPanel
          key={filled.key}
          desk={desk}
          field={filled}
          draft={p.draft}
          use={(value: Value, what) =>
            filled.key === title?.key ? titles.replace(String(value), what) : steps.replaceField(filled.key, value, what, 'fill')
          }
          keepTake={titles.keep}
          close={() => p.show('picks')}
          used={() => setTimeout(() => boxesOf(filled.key).at(-1)?.focus())}
        />
      ) : side === 'words' ? (
        <WordsPanel desk={desk} listing={listing} copy={copy()} round={p.round} />
      ) : side === 'findings' ? (
        <AllFindings fields={listing.fields} checked={p.checked} actions={p.actions} />
      ) : side === 'page' && listing.page ? (
        <PagePanel listing={listing} figures={p.figures} insert={p.insert} />
      ) : side === 'takes' && title ? (
        <Takes desk={desk} field={title} copy={copy} version={p.round} use={titles.replace} keep={() => titles.keep(titles.now())} />
      ) : side === 'read' && title ? (
        <Reading
          desk={desk}
          text={String((p.weighedCopy ?? copy())[title.key] ?? '')}
          copy={copy}
          put={(t) => titles.replace(t, 'Changed the order of the words')}
        />
      ) : side === 'versions' ? (
        <Versions
          listingId={listing.id}
          copy={copy}
          settle={p.settle}
          restore={(v) => steps.replace(v.copy, 'Restored the version', 'restore')}
        />
      ) : side === 'send' ? (
        <SendOut desk={desk} isPage={listing.page !== null} settle={p.settle} copyAll={p.copyAll} />
      ) : (
        <Held
          desk={desk}
          weighing={weighing}
          leadKey={listing.leadKey}
          fields={listing.fields}
          here={p.here}
          pointed={p.pointed}
          point={p.point}
        />
      )}
    </aside>
  )
}
