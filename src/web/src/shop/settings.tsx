import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, ask, type Backup, type Facet } from '../kit/api'
import { useChanges } from '../kit/changes'
import { forgetDrafts } from '../kit/drafts/drafts'
import { messages } from '../kit/messages'
import { dateTimeOf, locale } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import { lastPlace, useShop } from '../kit/shop'
import { ShopHead } from '../kit/shophead'
import { singleKeys, useSingleKeys } from '../kit/shortcuts'
import { ToastLine, toast, toastAgain } from '../kit/toast'
import { CountrySelect, CurrencySelect, LanguageSelect, useCountries } from './countries'

const kinds: Record<Backup['kind'], string> = {
  daily: 'Daily',
  manual: 'Manual',
  restore: 'Before a restore',
  update: 'Before an update',
}

const size = new Intl.NumberFormat(locale, { style: 'unit', unit: 'megabyte', maximumFractionDigits: 1 })

/** The shop's name and currency, its own words, the shortcuts, the backups. */
export function Settings() {
  return (
    <div className="frame of-shop">
      <ShopHead name="Settings" />
      <main className="overflow-auto">
        <div className="max-w-3xl mx-auto p-6">
          <ShopPart />
          <WordsPart />
          <KeysPart />
          <PasswordPart />
          <Backups />
          <Log />
        </div>
      </main>
      <ToastLine />
    </div>
  )
}

function ShopPart() {
  const shop = useShop().data
  const countries = useCountries()
  const { run } = useChanges()
  if (!shop) return null
  const { name, currency, language } = shop
  // Only what is changed is sent, so that another window's change stays.
  const save = (body: ShopSettings) => run(() => ask(api.PUT('/api/shop', { body })))
  const rename = (to: string) => to.trim() && to.trim() !== name && save({ name: to.trim() })
  const others = shop.countries.slice(1)
  const nameOf = (code: string) => countries?.find((c) => c.code === code)?.name ?? code
  return (
    <section data-testid="shop-settings" className="mb-8">
      <h1 className="text-[24px] font-bold mb-2">Shop</h1>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3 max-w-xl">
        <label className="text-[14px] flex flex-col gap-1">
          Shop name
          <input
            key={name}
            className="input input-sm w-full"
            defaultValue={name}
            maxLength={100}
            onBlur={(e) => rename(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && rename(e.currentTarget.value)}
          />
        </label>
        <CurrencySelect value={currency} change={(to) => save({ currency: to })} />
        {!shop.isConnected && (
          <>
            <CountrySelect
              name="Home country"
              value={shop.countries[0] ?? ''}
              none={shop.countries.length === 0 ? 'Choose…' : undefined}
              change={(c) => save({ countries: [c.code, ...others.filter((other) => other !== c.code)] })}
            />
            <LanguageSelect name="Language you write in" value={language} change={(to) => save({ language: to })} />
            <CountrySelect
              name="Also sells in"
              value=""
              none="Add a country…"
              without={shop.countries}
              disabled={shop.countries.length === 0}
              change={(c) => save({ countries: [...shop.countries, c.code] })}
            />
            <ul className="text-[14px] self-end flex flex-wrap gap-x-3">
              {others.map((c) => (
                <li key={c}>
                  {nameOf(c)}{' '}
                  <button
                    type="button"
                    className="link"
                    aria-label={`Remove ${nameOf(c)}`}
                    onClick={() => save({ countries: shop.countries.filter((other) => other !== c) })}
                  >
                    Remove
                  </button>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <p className="quiet text-[13.5px] mt-2">
        {shop.isConnected
          ? 'Built-in platforms show the currency of their country. Platforms of your own show this one.'
          : 'Every list opens in the home country. A country that you remove stays for as long as there is data of it.'}
      </p>
    </section>
  )
}

type ShopSettings = { name?: string; currency?: string; language?: string; countries?: string[] }

/** The owner's password, where other computers reach the shop: changing it ends every other session. */
function PasswordPart() {
  const session = useQuery({ queryKey: queryKey('session'), queryFn: () => ask(api.GET('/api/session')) }).data
  const [problem, setProblem] = useState('')
  if (!session?.needed) return null
  const change = async (form: HTMLFormElement) => {
    const data = new FormData(form)
    try {
      await ask(api.POST('/api/session/password', { body: { password: `${data.get('password')}`, next: `${data.get('next')}` } }))
      form.reset()
      setProblem('')
      toast(messages.passwordChanged)
    } catch (e) {
      setProblem((e as Error).message)
    }
  }
  return (
    <section className="mb-8" data-testid="password">
      <h2 className="text-[20px] font-bold mb-1">Owner’s password</h2>
      <form
        className="flex flex-wrap gap-2 items-end text-[14px]"
        onSubmit={(e) => {
          e.preventDefault()
          change(e.currentTarget)
        }}
      >
        <label className="flex flex-col gap-1">
          Password so far
          <input className="input input-sm w-56" type="password" name="password" autoComplete="current-password" maxLength={200} required />
        </label>
        <label className="flex flex-col gap-1">
          New password, 12 characters or more
          <input
            className="input input-sm w-56"
            type="password"
            name="next"
            autoComplete="new-password"
            minLength={12}
            maxLength={200}
            required
          />
        </label>
        <button type="submit" className="btn btn-sm">
          Change
        </button>
      </form>
      {problem && (
        <p className="text-accent mt-1" role="alert">
          {problem}
        </p>
      )}
      <p className="quiet text-[13.5px] mt-1">Every other session ends. Logging out ends them, too.</p>
    </section>
  )
}

const facetNames: Facet[] = ['material', 'colour', 'size', 'audience', 'occasion', 'property']

/** Words of which the seller says more than the vocabulary does: what they claim of a product, or that they claim nothing. */
function WordsPart() {
  const words = useShop().data?.ownWords ?? []
  const { run } = useChanges()
  const [word, setWord] = useState('')
  const [facet, setFacet] = useState<Facet | ''>('material')
  const say = (body: { word: string; facet: Facet | null; forget: boolean }, then?: () => void) =>
    run(() => ask(api.POST('/api/shop/words', { body })), then)
  return (
    <section className="mb-8" data-testid="own-words">
      <h2 className="text-[20px] font-bold mb-1">Your own words</h2>
      <p className="quiet text-[14px] mb-2">
        Texts are compared with each product’s facts. Here you say what a word claims that Tin Rabbit doesn’t know, or that it is no claim.
      </p>
      <form
        className="flex flex-wrap gap-2 items-end mb-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (word.trim()) say({ word: word.trim(), facet: facet || null, forget: false }, () => setWord(''))
        }}
      >
        <label className="text-[14px] flex flex-col gap-1">
          Word
          <input className="input input-sm w-56" value={word} maxLength={120} onChange={(e) => setWord(e.target.value)} />
        </label>
        <label className="text-[14px] flex flex-col gap-1">
          What it is
          <select className="select select-sm w-44" value={facet} onChange={(e) => setFacet(e.target.value as Facet | '')}>
            {facetNames.map((f) => (
              <option key={f} value={f}>
                a {f}
              </option>
            ))}
            <option value="">no claim</option>
          </select>
        </label>
        <button type="submit" className="btn btn-sm">
          Add
        </button>
      </form>
      <ul className="text-[14px]">
        {words.map((w) => (
          <li key={w.word} className="flex gap-3">
            <span>
              “{w.word}”: {w.facet ? `a ${w.facet}` : 'no claim'}
            </span>
            <button
              type="button"
              className="link"
              aria-label={`Remove “${w.word}”`}
              onClick={() => say({ word: w.word, facet: null, forget: true })}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

function KeysPart() {
  const on = useSingleKeys()
  return (
    <section className="mb-8">
      <h2 className="text-[20px] font-bold mb-2">Keyboard</h2>
      <label className="flex gap-2 items-center text-[14px] cursor-pointer w-fit">
        <input type="checkbox" className="checkbox checkbox-sm" checked={on} onChange={(e) => singleKeys.set(e.target.checked)} />
        Use single-letter shortcuts (P to pick, X to avoid, …)
      </label>
      <Link className="link text-[14px]" to="/help#keyboard-shortcuts">
        All keyboard shortcuts
      </Link>
    </section>
  )
}

function Log() {
  return (
    <section className="mt-8" data-testid="log">
      <h2 className="text-[20px] font-bold mb-1">Log</h2>
      <p className="quiet text-[14px] mb-1">What Tin Rabbit did in the last 7 days, for a bug report. It contains none of your texts.</p>
      <a className="link text-[14px]" href="/api/log" download>
        Download log
      </a>
    </section>
  )
}

function Backups() {
  const cache = useQueryClient()
  const list = useQuery({ queryKey: queryKey('backups'), queryFn: () => ask(api.GET('/api/backups')) })
  const [asked, setAsked] = useState<string | null>(null)
  const [busy, setBusy] = useState('')
  const backUp = async () => {
    setBusy('Backing up…')
    try {
      const made = await ask(api.POST('/api/backups'))
      toast(messages.backedUp(size.format(made.bytes / 1e6)))
    } catch (e) {
      toastAgain(messages.notBackedUp((e as Error).message), backUp)
    }
    setBusy('')
    refresh(cache, 'backups')
  }
  const restore = async (name: string) => {
    setAsked(null)
    setBusy('Restoring…')
    try {
      await ask(api.POST('/api/backups/restore', { body: { name } }))
      // Everything in this window is of the shop as it was.
      await forgetDrafts()
      lastPlace.forget()
      window.location.assign('/')
    } catch (e) {
      toastAgain(messages.notRestored((e as Error).message), () => restore(name))
      setBusy('')
    }
  }
  return (
    <section data-testid="backups">
      <h2 className="text-[20px] font-bold mb-1">Backups</h2>
      <p className="quiet text-[14px] mb-3">
        The whole shop is backed up once a day, and each backup is verified. The last {list.data?.kept ?? 14} of each kind are kept in{' '}
        <span className="num text-[13px]">{list.data?.folder}</span>.
      </p>
      <p className="flex items-center gap-3 mb-4">
        <button type="button" className="btn btn-primary btn-sm" disabled={busy !== ''} onClick={backUp}>
          Back up now
        </button>
        <span className="quiet text-[14px]" role="status">
          {busy}
        </span>
      </p>
      {list.isError && <p className="text-accent">Couldn’t list the backups: {list.error.message}</p>}
      {list.data?.backups.length === 0 && (
        <p className="quiet">No backups yet. The first is made shortly after the start, or when you press the button.</p>
      )}
      {list.data && list.data.backups.length > 0 && (
        <table className="plain w-full text-[14px]">
          <thead>
            <tr>
              <th>When</th>
              <th>Made</th>
              <th className="!text-right w-24">Size</th>
              <th className="w-[26rem]" />
            </tr>
          </thead>
          <tbody>
            {list.data.backups.map((b) => (
              <tr key={b.name}>
                <td>{dateTimeOf(b.at)}</td>
                <td>{kinds[b.kind]}</td>
                <td className="!text-right num">{size.format(b.bytes / 1e6)}</td>
                <td className="!text-right">
                  {asked === b.name ? (
                    <span className="inline-flex gap-2 items-center">
                      <span className="text-[13px]">Your shop is backed up first.</span>
                      <button type="button" autoFocus className="btn btn-xs btn-primary" onClick={() => restore(b.name)}>
                        Restore
                      </button>
                      <button type="button" className="btn btn-xs" onClick={() => setAsked(null)}>
                        Cancel
                      </button>
                    </span>
                  ) : (
                    <button type="button" className="link" disabled={busy !== ''} onClick={() => setAsked(b.name)}>
                      Restore…
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
