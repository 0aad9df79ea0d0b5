import { Command } from 'cmdk'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Dialog } from '../kit/dialog'
import { compact } from '../kit/numbers'
import { usePicks } from '../kit/picks'
import { type Desk, marketFor, useShop } from '../kit/shop'

type Hit = { id: string; what: string; text: string; to: string; more?: string }

// The dialog gives the focus to what has this attribute; React leaves it out.
const focusedFirst = (box: HTMLInputElement | null) => box?.setAttribute('autofocus', '')

/** One box for everything that has a name: products, platforms, steps, picks, and any term to search for. */
export function FindAnything({ desk, close }: { desk: Desk; close: () => void }) {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const shop = useShop().data
  const picks = usePicks(desk).data?.picks ?? []
  const all: Hit[] = [
    ...['Dig', 'Pick', 'Write', 'Weigh'].map((s) => ({ id: s, what: 'Step', text: s, to: `${desk.base}/${s.toLowerCase()}` })),
    { id: 'listings', what: 'Shop', text: 'All listings: the shop at a glance, change many', to: '/listings' },
    { id: 'settings', what: 'Settings', text: 'Settings: shop, shortcuts, backups', to: '/settings' },
    { id: 'help', what: 'Help', text: 'Help: how the numbers work, glossary, keyboard shortcuts', to: '/help' },
    { id: 'webshop', what: 'Web shop', text: 'Web shop: pages, alt text, leads, import and export', to: '/pages' },
    { id: 'new', what: 'Product', text: 'Add product…', to: '/new' },
    { id: 'platforms', what: 'Platforms', text: 'Manage platforms…', to: `/platforms?id=${desk.market.platformId}` },
    ...(shop?.products ?? []).map((p) => ({
      id: `p${p.id}`,
      what: p.isPage ? 'Page' : 'Product',
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
  const go = (hit: Hit) => {
    close()
    navigate(hit.to)
  }
  return (
    <Dialog name="Search" close={close}>
      <Command label="Search or jump to" shouldFilter={false} loop={false}>
        <Command.Input
          ref={focusedFirst}
          className="w-full bg-transparent outline-none border-b-2 border-secondary text-[18px] font-semibold pb-1 mb-2"
          placeholder="Search or jump to…"
          aria-label="Search or jump to"
          value={text}
          onValueChange={setText}
        />
        <Command.List label="Results">
          {hits.map((h) => (
            <Command.Item
              key={h.id}
              value={h.id}
              className="grid-row w-full text-left cursor-pointer py-1.5"
              style={{ gridTemplateColumns: '80px 1fr auto' }}
              onSelect={() => go(h)}
            >
              <span className="quiet text-[12.5px]">{h.what}</span>
              <span>{h.text}</span>
              <span className="num text-[12.5px] quiet">{h.more}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </Dialog>
  )
}
