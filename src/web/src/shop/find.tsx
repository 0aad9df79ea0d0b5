import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Dialog } from '../kit/dialog'
import { compact } from '../kit/numbers'
import { type Desk, marketFor, usePicks, useShop } from '../kit/shop'

type Hit = { id: string; what: string; text: string; to: string; more?: string }

/** One box for everything that has a name: products, platforms, steps, picks, and any term to search for. */
export function FindAnything({ desk, close }: { desk: Desk; close: () => void }) {
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const navigate = useNavigate()
  const shop = useShop().data
  const picks = usePicks(desk).data?.picks ?? []
  const all: Hit[] = [
    ...['Dig', 'Pick', 'Write', 'Weigh'].map((s) => ({ id: s, what: 'Step', text: s, to: `${desk.base}/${s.toLowerCase()}` })),
    { id: 'settings', what: 'Settings', text: 'Settings: shop, shortcuts, backups', to: '/settings' },
    { id: 'help', what: 'Help', text: 'Help: how the numbers work, glossary, keyboard shortcuts', to: '/help' },
    { id: 'new', what: 'Product', text: 'Add product…', to: '/new' },
    { id: 'platforms', what: 'Platforms', text: 'Manage platforms…', to: `/platforms?id=${desk.market.platformId}` },
    ...(shop?.products ?? []).map((p) => ({
      id: `p${p.id}`,
      what: 'Product',
      text: p.name,
      to: `/${p.id}/${marketFor(p, shop?.markets ?? [], desk.market).id}/write`,
    })),
    ...(shop?.markets ?? [])
      .filter((m) => desk.product.listings[m.platformId] !== undefined)
      .map((m) => ({
        id: m.id,
        what: 'Platform',
        text: `${m.platformName}, ${m.countryName}`,
        to: `/${desk.product.id}/${m.id}/write`,
      })),
    ...picks.map((p) => ({
      id: `k${p.key}`,
      what: p.home === 'avoid' ? 'Avoid' : 'Pick',
      text: p.text,
      to: `${desk.base}/pick?at=${encodeURIComponent(p.key)}`,
      more: compact(p.numbers.volume),
    })),
  ]
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const hits = all.filter((h) => words.every((w) => h.text.toLowerCase().includes(w))).slice(0, 9)
  if (text.trim())
    hits.push({
      id: 'dig',
      what: 'Dig',
      text: `Search for “${text.trim()}”`,
      to: `${desk.base}/dig?term=${encodeURIComponent(text.trim())}`,
    })
  const go = (hit: Hit | undefined) => {
    if (!hit) return
    close()
    navigate(hit.to)
  }
  return (
    <Dialog name="Search" close={close}>
      <input
        autoFocus
        className="w-full bg-transparent outline-none border-b-2 border-secondary text-[18px] font-semibold pb-1 mb-2"
        placeholder="Search or jump to…"
        aria-label="Search or jump to"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        aria-activedescendant={hits[at] ? `hit-${at}` : undefined}
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setAt(0)
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setAt(Math.min(hits.length - 1, at + 1))
          else if (e.key === 'ArrowUp') setAt(Math.max(0, at - 1))
          else if (e.key === 'Enter') go(hits[at])
          else return
          e.preventDefault()
        }}
      />
      <div role="listbox" id="found" aria-label="Results">
        {hits.map((h, i) => (
          <button
            type="button"
            role="option"
            id={`hit-${i}`}
            tabIndex={-1}
            aria-selected={i === at}
            key={h.id}
            className={`grid-row w-full text-left cursor-pointer py-1.5 ${i === at ? 'cursor' : ''}`}
            style={{ gridTemplateColumns: '80px 1fr auto' }}
            onMouseMove={() => setAt(i)}
            onClick={() => go(h)}
          >
            <span className="quiet text-[12.5px]">{h.what}</span>
            <span>{h.text}</span>
            <span className="num text-[12.5px] quiet">{h.more}</span>
          </button>
        ))}
      </div>
    </Dialog>
  )
}
