import { useEffect, useMemo } from 'react'
import type { Site, SiteTexts } from '../kit/api'
import { siteDraft, useDraftView } from '../kit/drafts/drafts'
import { NotSaved } from '../kit/notsaved'

const names: Record<keyof SiteTexts, string> = {
  brand: 'the brand',
  address: 'the address',
  language: 'the language',
  country: 'the country',
  titleSuffix: 'what is added to titles',
}

const differing = (mine: SiteTexts, theirs: SiteTexts) =>
  (Object.keys(names) as (keyof SiteTexts)[])
    .filter((key) => mine[key] !== theirs[key])
    .map((key) => ({ what: names[key], theirs: theirs[key] }))

/** Brand, address, language, country, and what the shop system adds to page titles by itself. */
export function SitePart({ site }: { site: Site }) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: newer settings are opened below, in the same draft
  const draft = useMemo(() => siteDraft(site), [])
  const { brand, address, language, country, titleSuffix, revision } = site
  useEffect(
    () => draft.open({ brand, address, language, country, titleSuffix }, revision),
    [draft, brand, address, language, country, titleSuffix, revision],
  )
  const view = useDraftView(draft)
  const change = (next: Partial<SiteTexts>) => draft.hold({ ...draft.snapshot().value, ...next })
  const line = (label: string, key: 'brand' | 'address' | 'language' | 'titleSuffix', about: string, placeholder: string) => (
    <label className="block mb-4 text-[14px]">
      <b className="font-semibold">{label}</b> <span className="quiet">{about}</span>
      <input
        className="inline-input w-full text-[16px]"
        value={view.value[key]}
        placeholder={placeholder}
        onChange={(e) => change({ [key]: e.target.value })}
      />
    </label>
  )
  return (
    <section className="overflow-auto p-6" data-testid="site-settings">
      <form
        className="max-w-2xl"
        onSubmit={(e) => {
          e.preventDefault()
          draft.release()
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
              value={view.value.country}
              onChange={(e) => change({ country: e.target.value })}
            >
              {site.countries.map((c) => (
                <option key={c.country} value={c.country}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
        </div>
        <NotSaved draft={draft} view={view} differs={(theirs) => differing(view.value, theirs)} />
        <button type="submit" className="btn btn-sm btn-primary" disabled={view.state === 'saved'}>
          Save <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
      </form>
    </section>
  )
}
