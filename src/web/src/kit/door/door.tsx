import { useEffect, useRef, useState } from 'react'
import { counted } from '../numbers'
import { useShop } from '../shop'
import { useShortcuts } from '../shortcuts'
import { DoorItem } from './item'
import { closeDoor, copied, dropped, openDoor, useDoor } from './open'
import { type DoorPlace, useDrops } from './usedrops'

/** The one way in, on every screen: a key, a paste or a drop opens it. */
export function Door({ place }: { place: DoorPlace }) {
  const brought = useDoor()
  useShortcuts({ door: () => openDoor() }, 'frame')
  useEffect(() => {
    const typing = (target: EventTarget | null) =>
      target instanceof HTMLElement && (target.isContentEditable || target.matches('input, textarea, select'))
    const paste = (e: ClipboardEvent) => {
      if (typing(e.target) || !e.clipboardData || document.querySelector('dialog[open]')) return
      const found = copied(e.clipboardData)
      if (found.files.length === 0) return
      e.preventDefault()
      openDoor(found)
    }
    const over = (e: DragEvent) => e.dataTransfer?.types.includes('Files') && e.preventDefault()
    const drop = async (e: DragEvent) => {
      // A part of the screen that takes files itself comes first.
      if (e.defaultPrevented || !e.dataTransfer || e.dataTransfer.files.length === 0) return
      e.preventDefault()
      openDoor({ files: await dropped(e.dataTransfer) })
    }
    document.addEventListener('paste', paste)
    document.addEventListener('dragover', over)
    document.addEventListener('drop', drop)
    return () => {
      document.removeEventListener('paste', paste)
      document.removeEventListener('dragover', over)
      document.removeEventListener('drop', drop)
    }
  }, [])
  if (!brought) return null
  return <OpenDoor key={brought.files.map((f) => `${f.name} ${f.size}`).join()} place={place} />
}

function OpenDoor({ place }: { place: DoorPlace }) {
  const brought = useDoor() ?? { files: [] }
  const d = useDrops(place, brought, closeDoor)
  const box = useRef<HTMLDialogElement>(null)
  const file = useRef<HTMLInputElement>(null)
  const [at, setAt] = useState(0)
  const shop = useShop().data
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null
    box.current?.showModal()
    return () => before?.focus?.()
  }, [])
  const views = d.views ?? []
  const shown = views[Math.min(at, views.length - 1)]
  const adding = views.filter((v) => !v.isOut)
  // The term that is typed counts when Enter is pressed in its box, too.
  const add = () => setTimeout(() => d.add())
  return (
    <dialog
      ref={box}
      aria-label="Paste or drop anything"
      className="door"
      onCancel={(e) => {
        e.preventDefault()
        d.forget()
      }}
      onKeyDown={(e) => {
        e.stopPropagation()
        const { target } = e
        if (e.key !== 'Enter' || (target instanceof HTMLElement && target.matches('button, a, select, summary, textarea'))) return
        e.preventDefault()
        if (target instanceof HTMLInputElement) target.blur()
        add()
      }}
      onPaste={(e) => {
        if (e.target instanceof HTMLInputElement) return
        const found = copied(e.clipboardData)
        if (found.files.length === 0) return
        e.preventDefault()
        d.bring(found)
      }}
      onDrop={async (e) => {
        e.preventDefault()
        e.stopPropagation()
        d.bring({ files: await dropped(e.dataTransfer) })
      }}
      onDragOver={(e) => e.preventDefault()}
    >
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what is pasted goes to what has the focus */}
      <div className="door-in" tabIndex={0} data-testid="door" autoFocus>
        <div className="door-zone">
          <b className="font-semibold">Paste or drop</b> pages, text, tables, ZIPs <kbd>Ctrl V</kbd>{' '}
          <button type="button" className="link" onClick={() => file.current?.click()}>
            Choose files…
          </button>
          <input
            ref={file}
            type="file"
            multiple
            className="hidden"
            aria-label="Files to import"
            accept=".html,.htm,.mht,.mhtml,.csv,.tsv,.txt,.xlsx,.json,.jsonld,.zip"
            onChange={(e) => {
              if (e.target.files) d.bring({ files: [...e.target.files] })
              e.target.value = ''
            }}
          />
        </div>
        {d.views === null && !d.isBusy && (
          <div className="quiet text-[13.5px] mt-3 leading-relaxed">
            <p>
              A page of search results, suggestions from the search box, a listing, reviews, statistics, a table of terms or of listings:
              save the page (or copy it) at your marketplace and bring it here. What it is is recognized; you see it before anything is
              added.
            </p>
            <p className="mt-1.5">Saved pages can be single files (HTML, MHTML), several at once, a folder, or a ZIP.</p>
          </div>
        )}
        {d.isBusy && (
          <p className="quiet text-[13.5px] mt-3" role="status">
            Reading…
          </p>
        )}
        {views.length > 1 && (
          <ul className="door-list" aria-label="What was brought in">
            {views.map((v, i) => (
              <li key={v.id}>
                <button type="button" aria-pressed={v === shown} className={v.isOut ? 'struck' : ''} onClick={() => setAt(i)}>
                  <span className="truncate">{v.shown.title || v.name}</span>
                  <span className="mark">{v.isOut ? 'left out' : v.shown.problem ? 'look here' : ''}</span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {shown && shop && (
          <DoorItem
            key={shown.id}
            view={shown}
            choose={(change) => d.choose(shown.id, change)}
            shop={shop}
            several={views.length > 1}
            go={() =>
              d.hand(
                shown.id,
                shown.shown.dialog === 'terms'
                  ? `/${place.productId ?? shop.products[0]?.id}/${shown.marketId}/dig?view=import`
                  : '/pages?view=files',
              )
            }
          />
        )}
        {d.problem && (
          <p className="text-accent text-[13.5px] mt-2" role="alert">
            {d.problem}
          </p>
        )}
        <p className="flex gap-2 mt-4">
          {d.views !== null && (
            <button type="button" className="btn btn-sm btn-primary" disabled={!d.isReady || d.isBusy} onClick={d.add}>
              {adding.length > 1 ? `Import ${counted(adding.length, 'item')}` : 'Import'} <kbd>Enter</kbd>
            </button>
          )}
          <button type="button" className="btn btn-sm" onClick={d.forget}>
            Cancel <kbd>Esc</kbd>
          </button>
        </p>
      </div>
    </dialog>
  )
}
