import { Command as Palette } from 'cmdk'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Dialog } from './dialog'
import { compact } from './numbers'
import { usePicks } from './picks'
import { type Desk, marketFor, useShop } from './shop'
import { keysOf, type ShortcutId } from './shortcuts'

/** Something that can be done from anywhere. */
export type Command = { id: ShortcutId; text: string; run: () => void }

type Hit = { id: string; what: string; text: string; to?: string; run?: () => void; more?: string }

const steps = ['Dig', 'Pick', 'Write', 'Weigh', 'Watch']
const screens: [string, string, ShortcutId?][] = [
  ['/listings', 'Listings: the shop at a glance, change many', 'listings'],
  ['/pages', 'Web shop: pages', 'webShop'],
  ['/pages?view=alt', 'Web shop: alt text of all pictures'],
  ['/pages?view=leads', 'Web shop: leads'],
  ['/pages?view=files', 'Web shop: import and export'],
  ['/watch', 'Watch: the shop’s largest movers', 'shopWatch'],
  ['/watch?view=journal', 'Watch: journal'],
  ['/watch?view=worked', 'Watch: what has worked'],
  ['/watch?view=terms', 'Watch: own terms, which listings share them'],
  ['/settings', 'Settings: shop, shortcuts, backups'],
  ['/help', 'Help: how the numbers work, glossary, keyboard shortcuts'],
  ['/new', 'Add product…'],
]

// The dialog gives the focus to what has this attribute; React leaves it out.
const focusedFirst = (box: HTMLInputElement | null) => box?.setAttribute('autofocus', '')

/** One box for everything that has a name: screens, products, pages, platforms, steps, picks, what can be done, and any term to search for. */
export function FindAnything({ desk, commands, close }: { desk: Desk | undefined; commands: Command[]; close: () => void }) {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const shop = useShop().data
  const picks = usePicks(desk).data?.picks ?? []
  const markets = shop?.markets ?? []
  const all: Hit[] = [
    ...(desk ? steps.map((s) => ({ id: s, what: 'Step', text: s, to: `${desk.base}/${s.toLowerCase()}`, more: desk.product.name })) : []),
    ...screens.map(([to, name, key]) => ({ id: to, what: 'Shop', text: name, to, more: key && keysOf(key)[0] })),
    { id: 'platforms', what: 'Shop', text: 'Manage platforms…', to: `/platforms${desk ? `?id=${desk.market.platformId}` : ''}` },
    ...(shop?.products ?? []).map((p) => ({
      id: `p${p.id}`,
      what: p.isIdea ? 'Idea' : p.isPage ? 'Page' : 'Product',
      text: p.name,
      to: `/${p.id}/${marketFor(p, markets, desk?.market).id}/${p.isIdea ? 'pick' : 'write'}`,
    })),
    ...markets
      .filter((m) => desk?.product.listings[m.platformId] !== undefined)
      .map((m) => ({
        id: m.id,
        what: 'Platform',
        text: `${m.platformName}, ${m.countryName}`,
        to: `/${desk?.product.id}/${m.id}/write`,
      })),
    ...commands.map((c) => ({ id: c.id, what: 'Do', text: c.text, run: c.run, more: keysOf(c.id)[0] })),
    ...picks.map((p) => ({
      id: `k${p.key}`,
      what: p.home === 'avoid' ? 'Avoid' : 'Pick',
      text: p.text,
      to: `${desk?.base}/pick?at=${encodeURIComponent(p.key)}`,
      more: compact(p.numbers.volume),
    })),
  ]
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const hits = all.filter((h) => words.every((w) => h.text.toLowerCase().includes(w))).slice(0, 9)
  if (text.trim() && desk)
    hits.push({
      id: 'dig',
      what: 'Dig',
      text: `Search for “${text.trim()}”`,
      to: `${desk.base}/dig?term=${encodeURIComponent(text.trim())}`,
    })
  const go = (hit: Hit) => {
    close()
    hit.run?.()
    if (hit.to) navigate(hit.to)
  }
  return (
    <Dialog name="Search" close={close}>
      <Palette label="Search or jump to" shouldFilter={false} loop={false}>
        <Palette.Input
          ref={focusedFirst}
          className="w-full bg-transparent outline-none border-b-2 border-secondary text-[18px] font-semibold pb-1 mb-2"
          placeholder="Search or jump to…"
          aria-label="Search or jump to"
          value={text}
          onValueChange={setText}
        />
        <Palette.List label="Results">
          {hits.map((h) => (
            <Palette.Item
              key={h.id}
              value={h.id}
              className="grid-row w-full text-left cursor-pointer py-1.5"
              style={{ gridTemplateColumns: '80px 1fr auto' }}
              onSelect={() => go(h)}
            >
              <span className="quiet text-[12.5px]">{h.what}</span>
              <span>{h.text}</span>
              <span className="num text-[12.5px] quiet">{h.more}</span>
            </Palette.Item>
          ))}
        </Palette.List>
      </Palette>
    </Dialog>
  )
}
