import { useQuery } from '@tanstack/react-query'
import { api, ask, type Country } from '../kit/api'
import { locale } from '../kit/numbers'
import { queryKey } from '../kit/queries'

/** Every country of the world; asked for where they are needed. */
export const useCountries = (needed = true) =>
  useQuery({
    queryKey: queryKey('countries'),
    queryFn: () => ask(api.GET('/api/countries')),
    enabled: needed,
    staleTime: Number.POSITIVE_INFINITY,
  }).data

/** The country that the browser is set to: its code, in small letters. */
export const region = () => new Intl.Locale(navigator.language).maximize().region?.toLowerCase()

/** The language that most people write in there, as the browser knows it. */
const mainLanguage = (code: string) => new Intl.Locale(`und-${code}`).maximize().language

/** The browser's language where the country is the browser's, otherwise the country's own. */
export const languageOf = (code: string) => (code === region() ? new Intl.Locale(navigator.language).language : mainLanguage(code))

// The list of the runtime; a few where it has none.
const currencies = Intl.supportedValuesOf?.('currency') ?? ['AUD', 'CAD', 'EUR', 'GBP', 'USD']
const currencyNames = new Intl.DisplayNames(locale, { type: 'currency' })
const languageNames = new Intl.DisplayNames(locale, { type: 'language' })

export function CurrencySelect({ value, change }: { value: string; change: (currency: string) => void }) {
  return (
    <label className="text-[14px]">
      Currency
      <select className="select select-sm w-full mt-1" value={value} onChange={(e) => change(e.target.value)}>
        {currencies.map((c) => (
          <option key={c} value={c}>
            {c}: {currencyNames.of(c)}
          </option>
        ))}
      </select>
    </label>
  )
}

/** A choice of countries: all, or those that are not there yet; `none` is what stands first while none is chosen. */
export function CountrySelect(p: {
  name: string
  value: string
  none?: string
  without?: readonly string[]
  disabled?: boolean
  change: (country: Country) => void
}) {
  const countries = (useCountries() ?? []).filter((c) => !p.without?.includes(c.code))
  return (
    <label className="text-[14px]">
      {p.name}
      <select
        className="select select-sm w-full mt-1"
        value={p.value}
        disabled={p.disabled}
        onChange={(e) => {
          const next = countries.find((c) => c.code === e.target.value)
          if (next) p.change(next)
        }}
      >
        {p.none && <option value="">{p.none}</option>}
        {countries.map((c) => (
          <option key={c.code} value={c.code}>
            {c.name}
          </option>
        ))}
      </select>
    </label>
  )
}

export function LanguageSelect(p: { name: string; value: string; change: (language: string) => void }) {
  const countries = useCountries() ?? []
  const codes = [...new Set([p.value || 'en', ...countries.map((c) => mainLanguage(c.code))])]
  // A language that the browser has no name for is offered where it is in use.
  const named = codes
    .map((c) => ({ code: c, name: languageNames.of(c) ?? c }))
    .filter((l) => l.name !== l.code || l.code === p.value)
    .sort((a, b) => a.name.localeCompare(b.name))
  return (
    <label className="text-[14px]">
      {p.name}
      <select className="select select-sm w-full mt-1" value={p.value || 'en'} onChange={(e) => p.change(e.target.value)}>
        {named.map((l) => (
          <option key={l.code} value={l.code}>
            {l.name}
          </option>
        ))}
      </select>
    </label>
  )
}

/** The spelling of one country of the language, or none. */
export function SpellingSelect(p: { language: string; value: string | null; change: (spelling: string | null) => void }) {
  const countries = useCountries() ?? []
  const tags = countries.filter((c) => mainLanguage(c.code) === p.language).map((c) => `${p.language}-${c.code.toUpperCase()}`)
  const all = p.value && !tags.includes(p.value) ? [p.value, ...tags] : tags
  return (
    <label className="text-[14px]">
      Spelling
      <select className="select select-sm w-full mt-1" value={p.value ?? ''} onChange={(e) => p.change(e.target.value || null)}>
        <option value="">No spelling of its own</option>
        {all.map((t) => (
          <option key={t} value={t}>
            {languageNames.of(t) ?? t}
          </option>
        ))}
      </select>
    </label>
  )
}
