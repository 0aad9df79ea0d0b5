import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import { Num } from '../kit/num'
import { counted } from '../kit/numbers'
import type { Change } from '../kit/picks'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { nameOf, type Row } from './rows'

/** The picks in another language: translated by the glossary that ships or by the seller, measured, and picked where shoppers search for them. */
export function LanguagePart({
  desk,
  picks,
  known,
  keep,
}: {
  desk: Desk
  picks: Row[]
  known: Row[]
  keep: (texts: string[], change: Change) => void
}) {
  const languages =
    useQuery({ queryKey: queryKey('languages'), queryFn: () => ask(api.GET('/api/languages')), staleTime: Infinity }).data ?? []
  const [language, setLanguage] = useState('es')
  const [column, setColumn] = useState<string | null>(null)
  const [asked, setAsked] = useState<string | null>(null)
  const texts = picks.map((p) => p.text)
  const glossary = languages.includes(language)
  const turned = useQuery({
    queryKey: queryKey('language', desk.market.id, language, texts, asked),
    queryFn: () => ask(api.POST('/api/language', { body: { marketId: desk.market.id, language, texts, column: asked } })),
    enabled: texts.length > 0 && (column === null ? glossary : asked !== null),
    retry: false,
  })
  const rows = turned.data ?? []
  const have = new Set(known.map((k) => k.text.toLowerCase()))
  const wanted = [
    ...new Map(rows.filter((r) => r.to && (r.numbers.volume ?? 0) > 0 && !have.has(r.to.toLowerCase())).map((r) => [r.to, r])).values(),
  ]
  const keepAll = () =>
    keep(
      wanted.map((r) => r.to as string),
      { source: '', saidBy: wanted.map((r) => `“${r.from}” in ${nameOf(language)}`), language, home: 'backend', fit: 'stretch' },
    )
  return (
    <div data-testid="language" data-panel tabIndex={-1} className="outline-none">
      <h3>Another language</h3>
      <p className="quiet text-[13px] mb-2">
        {counted(texts.length, 'pick')}, measured in {desk.market.platformName}, {desk.market.countryName}. Pick those that shoppers search
        for; they form their own group, with the home backend.
      </p>
      <div className="flex flex-wrap gap-1.5 items-center mb-2 text-[13.5px]">
        <label>
          Language{' '}
          <select className="inline-input" value={language} onChange={(e) => setLanguage(e.target.value)}>
            {[...new Set([...languages, 'es', 'fr', 'de', 'it', 'nl', 'pt', 'pl', 'sv'])].map((l) => (
              <option key={l} value={l}>
                {nameOf(l)}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="choice" aria-pressed={column === null} disabled={!glossary} onClick={() => setColumn(null)}>
          Built-in glossary
        </button>
        <button type="button" className="choice" aria-pressed={column !== null} onClick={() => setColumn(column ?? '')}>
          My own translations
        </button>
      </div>
      {column === null && !glossary && (
        <p className="quiet text-[13.5px]">No glossary for {nameOf(language)}. Paste your own translations.</p>
      )}
      {column !== null && (
        <div className="grid grid-cols-2 gap-2 mb-2">
          <textarea
            className="textarea textarea-sm text-[13px] leading-5 h-40 whitespace-pre"
            readOnly
            aria-label="The picks"
            value={texts.join('\n')}
          />
          <textarea
            className="textarea textarea-sm text-[13px] leading-5 h-40 whitespace-pre"
            aria-label="Translations"
            placeholder={'one line for each pick,\nin the same order'}
            value={column}
            onChange={(e) => setColumn(e.target.value)}
          />
          <button type="button" className="btn btn-sm col-span-2" disabled={!column.trim()} onClick={() => setAsked(column)}>
            Measure
          </button>
        </div>
      )}
      {turned.isError && <p className="text-accent text-[13.5px]">{turned.error.message}</p>}
      {rows.length > 0 && (
        <>
          <p className="mb-2">
            <button type="button" className="btn btn-sm btn-primary" disabled={wanted.length === 0} onClick={keepAll}>
              {wanted.length === 0 ? 'Nothing more to pick' : `Pick the ${wanted.length} with searches`}
            </button>
          </p>
          <table className="plain">
            <tbody>
              {rows.map((r) => (
                <tr key={r.from}>
                  <td>
                    {r.to ?? <span className="quiet">no translation for {r.unknown.join(', ') || 'it'}</span>}
                    <span className="quiet block text-[12px]">{r.from}</span>
                  </td>
                  <td className="r">{r.to ? <Num value={r.numbers.volume} unit="searches/mo" /> : ''}</td>
                  <td className="r">{r.to && have.has(r.to.toLowerCase()) ? <span className="mark">picked</span> : ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  )
}
