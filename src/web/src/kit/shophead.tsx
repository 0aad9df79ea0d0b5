import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Link, NavLink, useNavigate } from 'react-router'
import { type Place, type Turn, turnHere } from './changes'
import { Door } from './door/door'
import { openDoor } from './door/open'
import { type Command, FindAnything } from './find'
import { useFocusKeeper } from './focus'
import { History } from './history'
import { Key } from './key'
import { KeySheet } from './keysheet'
import { messages } from './messages'
import { useResearch } from './research'
import { type Desk, lastPlace, useLastDesk, useShop } from './shop'
import { keysOf, type ShortcutId, useShortcuts } from './shortcuts'
import { toast } from './toast'
import { Unsaved } from './unsaved'

export function Rabbit() {
  return (
    <svg width="26" height="28" viewBox="0 0 26 28" fill="none" stroke="var(--color-secondary)" strokeWidth="2" aria-hidden="true">
      <path d="M6 12C4 5 5 1.5 7 1.5S10 6 10.5 11M15.5 11C16 6 17 1.5 19 1.5S22 5 20 12" />
      <rect x="3.5" y="11" width="17" height="15.5" rx="3" fill="var(--color-base-100)" />
      <path d="M20.5 14.5h2a2.5 2.5 0 0 1 0 8h-2M3.5 14.5h17" />
    </svg>
  )
}

export function ThemeButton() {
  const [theme, setTheme] = useState(document.documentElement.dataset.theme)
  const change = () => {
    const next = theme === 'enamel' ? 'night-tin' : 'enamel'
    document.documentElement.dataset.theme = next
    localStorage.setItem('theme', next)
    setTheme(next)
  }
  return (
    <button
      type="button"
      className="pill"
      onClick={change}
      title={theme === 'enamel' ? 'Switch to the dark theme' : 'Switch to the light theme'}
    >
      <span aria-hidden="true">{theme === 'enamel' ? '☾' : '☀'}</span>
      <span className="sr-only">Switch theme</span>
    </button>
  )
}

const places: [string, string, ShortcutId?][] = [
  ['/listings', 'Listings', 'listings'],
  ['/pages', 'Web shop', 'webShop'],
  ['/watch', 'Watch', 'shopWatch'],
  ['/settings', 'Settings'],
  ['/help', 'Help'],
]

/**
 * The row that is at the top of every screen: the places of the shop, what is not saved, the one way in, the search; and by key the undo,
 * the history and the sheet of shortcuts.
 */
export function ShopBar({ place, desk }: { place: Place; desk?: Desk }) {
  const [open, setOpen] = useState<'keys' | 'history' | 'find' | null>(null)
  const cache = useQueryClient()
  const navigate = useNavigate()
  const before = useLastDesk()
  const back = lastPlace.path()
  const shop = useShop().data
  const research = useResearch()
  useFocusKeeper()
  const turn = async (to: Turn) => {
    if (!(await turnHere(cache, to, place))) toast(to === 'undo' ? messages.nothingToUndoHere : messages.nothingToRedoHere)
  }
  const close = () => setOpen(null)
  const commands: Command[] = [
    { id: 'door', text: 'Paste or drop anything', run: () => openDoor() },
    { id: 'research', text: 'Research before there is a product', run: () => research(desk?.market ?? before?.market ?? shop?.markets[0]) },
    { id: 'undo', text: 'Undo', run: () => turn('undo') },
    { id: 'redo', text: 'Make again', run: () => turn('redo') },
    { id: 'history', text: 'History of changes', run: () => setOpen('history') },
    { id: 'sheet', text: 'Keyboard shortcuts', run: () => setOpen('keys') },
  ]
  useShortcuts(Object.fromEntries(commands.filter((c) => c.id !== 'door').map((c) => [c.id, c.run])), 'frame')
  useShortcuts({
    search: () => setOpen('find'),
    dig: !desk && (() => navigate(back ?? '/')),
    listings: () => navigate('/listings'),
    shopWatch: () => navigate('/watch'),
    webShop: () => navigate('/pages'),
  })
  return (
    <div className="shopbar">
      <Link to="/listings" className="brand" aria-label="Tin Rabbit, all listings">
        <Rabbit />
        <span>Tin Rabbit</span>
      </Link>
      <nav aria-label="Shop">
        {places.map(([to, name, key]) => (
          <NavLink key={to} to={to} title={key && keysOf(key)[0]}>
            {name}
          </NavLink>
        ))}
      </nav>
      {!desk && back && (
        <Link to={back} className="link text-[13.5px]" title={before && `${before.product.name}, ${before.market.platformName}`}>
          Back<span className="max-[760px]:sr-only"> to listing</span>
        </Link>
      )}
      <span className="ml-auto" />
      <Unsaved />
      <button type="button" className="pill" title="Paste or drop anything: pages, text, tables" onClick={() => openDoor()}>
        Import <Key of="door" />
      </button>
      <button type="button" className="pill" onClick={() => setOpen('find')}>
        Search <Key of="search" />
      </button>
      <button type="button" className="pill" onClick={() => setOpen('history')}>
        History <Key of="history" />
      </button>
      <ThemeButton />
      {open === 'keys' && <KeySheet close={close} />}
      {open === 'history' && <History product={place.product} close={close} />}
      {open === 'find' && <FindAnything desk={desk ?? before} commands={commands} close={close} />}
    </div>
  )
}

// Where the changes of each of these screens are noted.
const screens: Record<string, string> = { Listings: 'listings', 'Web shop': 'pages', Watch: 'watch' }

/** The header of screens about the shop as a whole. */
export function ShopHead({ name }: { name: string }) {
  const shop = useShop().data
  useEffect(() => {
    document.title = `${name} · Tin Rabbit`
  }, [name])
  const screen = screens[name] ?? 'settings'
  return (
    <header className="topbar">
      <ShopBar place={{ screen }} />
      {shop?.markets[0] && <Door place={{ marketId: shop.markets[0].id, screen }} />}
    </header>
  )
}
