import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, messageOf, type Site } from '../kit/api'
import { useChanges } from '../kit/changes'
import { messages } from '../kit/messages'
import { refresh } from '../kit/queries'
import { toastAgain } from '../kit/toast'

/** Brand, address, language, country, and what the shop system adds to page titles by itself. */
export function SitePart({ site }: { site: Site }) {
  const cache = useQueryClient()
  const { run } = useChanges()
  const [draft, setDraft] = useState(site)
  // The settings that the draft began from: newer ones replace it only while nothing typed would be lost.
  const [base, setBase] = useState(site)
  const [saved, setSaved] = useState(false)
  const [error, setError] = useState('')
  const changed = JSON.stringify(draft) !== JSON.stringify(base)
  if (site.revision !== base.revision && (saved || !changed)) {
    setBase(site)
    setDraft(site)
    setSaved(false)
  }
  const save = async () => {
    setError('')
    try {
      const { data, error, response } = await api.PUT('/api/site', {
        body: {
          brand: draft.brand,
          address: draft.address,
          language: draft.language,
          country: draft.country,
          titleSuffix: draft.titleSuffix,
          revision: base.revision,
        },
      })
      if (response.status === 409) setError(messages.siteChangedElsewhere)
      else if (!data) setError(messageOf(error, response.status))
      else {
        setSaved(true)
        await run(async () => data)
      }
      await refresh(cache, 'pages', 'products')
    } catch {
      toastAgain(messages.keptInWindow, save)
    }
  }
  const line = (label: string, key: 'brand' | 'address' | 'language' | 'titleSuffix', about: string, placeholder: string) => (
    <label className="block mb-4 text-[14px]">
      <b className="font-semibold">{label}</b> <span className="quiet">{about}</span>
      <input
        className="inline-input w-full text-[16px]"
        value={draft[key]}
        placeholder={placeholder}
        onChange={(e) => setDraft({ ...draft, [key]: e.target.value })}
      />
    </label>
  )
  return (
    <section className="overflow-auto p-6" data-testid="site-settings">
      <form
        className="max-w-2xl"
        onSubmit={(e) => {
          e.preventDefault()
          save()
        }}
      >
        {line('Brand', 'brand', 'the name that readers know', 'e.g. Plover & Pine')}
        {line('Address', 'address', 'where the shop is', 'https://myshop.example')}
        {line('Added to every page title', 'titleSuffix', 'by your shop system; it counts in the length', ' – Plover & Pine')}
        <div className="flex gap-6">
          {line('Language', 'language', 'as a code', 'en')}
          <label className="block mb-4 text-[14px]">
            <b className="font-semibold">Country</b> <span className="quiet">the web market that the numbers come from</span>
            <select
              className="inline-input w-full text-[16px]"
              value={draft.country}
              onChange={(e) => setDraft({ ...draft, country: e.target.value })}
            >
              {draft.countries.map((c) => (
                <option key={c.country} value={c.country}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
        </div>
        {error && (
          <p className="text-accent mb-2" role="alert">
            {error}
          </p>
        )}
        <button type="submit" className="btn btn-sm btn-primary" disabled={!changed}>
          Save <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
      </form>
    </section>
  )
}
