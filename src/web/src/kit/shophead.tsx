import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { type Place, type Turn, turnHere } from './changes'
import { Door } from './door/door'
import { openDoor } from './door/open'
import { useFocusKeeper } from './focus'
import { History } from './history'
import { Key } from './key'
import { KeySheet } from './keysheet'
import { messages } from './messages'
import { useShop } from './shop'
import { keysOf, useShortcuts } from './shortcuts'
import { toast } from './toast'

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

/** What every screen has: undo, the history and the sheet of shortcuts by key, and a focus that is never lost. */
export function useSheets(place: Place) {
  const [sheet, setSheet] = useState<'keys' | 'history' | null>(null)
  const cache = useQueryClient()
  useFocusKeeper()
  const turn = async (to: Turn) => {
    if (!(await turnHere(cache, to, place))) toast(to === 'undo' ? messages.nothingToUndoHere : messages.nothingToRedoHere)
  }
  useShortcuts(
    { undo: () => turn('undo'), redo: () => turn('redo'), history: () => setSheet('history'), sheet: () => setSheet('keys') },
    'frame',
  )
  const close = () => setSheet(null)
  return {
    showHistory: () => setSheet('history'),
    open: sheet === 'keys' ? <KeySheet close={close} /> : sheet === 'history' ? <History product={place.product} close={close} /> : null,
  }
}

// Where the changes of each of these screens are noted.
const screens: Record<string, string> = { Listings: 'listings', 'Web shop': 'pages', Watch: 'watch' }

/** The header of screens about the shop as a whole, with the way back to the listing. */
export function ShopHead({ name }: { name: string }) {
  const shop = useShop().data
  const navigate = useNavigate()
  const back = localStorage.getItem('last') ?? '/'
  const sheets = useSheets({ screen: screens[name] ?? 'settings' })
  useShortcuts({
    dig: () => navigate(back),
    listings: () => navigate('/listings'),
    shopWatch: () => navigate('/watch'),
    webShop: () => navigate('/pages'),
  })
  useEffect(() => {
    document.title = `${name} · Tin Rabbit`
  }, [name])
  return (
    <header className="topbar">
      <Link to="/listings" className="brand">
        <Rabbit />
        <span>Tin Rabbit</span>
      </Link>
      <span className="text-[14px]">
        {shop?.name} <span className="quiet">›</span> <b className="font-semibold">{name}</b>
      </span>
      <Link to={back} className="link ml-auto text-[14px]">
        Back to listing
      </Link>
      <button type="button" className="pill" title="Paste or drop anything: pages, text, tables" onClick={() => openDoor()}>
        Import <Key of="door" />
      </button>
      <button type="button" className="pill" onClick={sheets.showHistory}>
        History <Key of="history" />
      </button>
      {name !== 'Watch' && (
        <Link className="pill" to="/watch" title={keysOf('shopWatch')[0]}>
          Watch
        </Link>
      )}
      {name !== 'Web shop' && (
        <Link className="pill" to="/pages" title={keysOf('webShop')[0]}>
          Web shop
        </Link>
      )}
      {name !== 'Settings' && (
        <Link className="pill" to="/settings">
          Settings
        </Link>
      )}
      {name !== 'Help' && (
        <Link className="pill" to="/help">
          Help
        </Link>
      )}
      <ThemeButton />
      {sheets.open}
      {shop?.markets[0] && <Door place={{ marketId: shop.markets[0].id }} />}
    </header>
  )
}
