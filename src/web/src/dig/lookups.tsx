import { useQuery } from '@tanstack/react-query'
import { api, ask, type LookUp } from '../kit/api'
import { copyText } from '../kit/copy'
import { openDoor, useDoorHere } from '../kit/door/open'
import { Key } from '../kit/key'
import { searchAt } from '../kit/marketlink'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { keyOf } from '../kit/words'

/** Searches worth making by hand, one after the other: open, copy, paste, and the next one is selected. */
export function LookUps({ desk, term, dig }: { desk: Desk; term: string; dig: (text: string) => void }) {
  const { product, market } = desk
  const list = useQuery({
    queryKey: queryKey('lookups', product.id, market.id),
    queryFn: () => ask(api.GET('/api/products/{id}/lookups/{marketId}', { params: { path: { id: product.id, marketId: market.id } } })),
  }).data
  const open = (list?.terms ?? []).filter((t) => t.needs.length > 0)
  // The one that is looked at, otherwise the first.
  const at = open.find((t) => t.key === keyOf(term)) ?? (term ? undefined : open[0])
  const select = (t: LookUp) => dig(t.text)
  useDoorHere(term || at?.text, () => {
    if (!at) return
    // What still needs something stays; otherwise the next one follows.
    const next = open[open.indexOf(at) + 1] ?? open.find((t) => t !== at)
    if (at.needs.length < 2 && next) select(next)
    else dig(at.text)
  })
  if (!list || list.terms.length === 0) return null
  return (
    <section className="mb-4" aria-label="To look up" data-testid="lookups">
      <h2 className="text-[14px] font-semibold">
        To look up{' '}
        <span className="quiet font-normal">
          {list.done} of {list.terms.length} done
        </span>
      </h2>
      <p className="quiet text-[12.5px] mb-1.5 leading-snug">
        {open.length === 0
          ? 'Everything here is known. Results older than 30 days come back here.'
          : 'This market has no connection. Open a search there, copy what you see, paste it here.'}
      </p>
      <ul>
        {list.terms.map((t) => {
          const address = searchAt(market, t.text)
          return (
            <li key={t.key} className={`lookup ${t === at ? 'at' : ''} ${t.needs.length === 0 ? 'quiet' : ''}`}>
              <button type="button" className="text-left w-full cursor-pointer" aria-current={t === at} onClick={() => select(t)}>
                {t.text} {t.isLead && <span className="mark">lead</span>}
                <span className="quiet block text-[12px]">{saysOf(t)}</span>
              </button>
              {t === at && (
                <span className="flex flex-wrap gap-1.5 mt-1">
                  {address && (
                    <a className="pill !px-2" href={address} target="_blank" rel="noopener noreferrer">
                      Open <Key of="openAtMarket" />
                    </a>
                  )}
                  <button type="button" className="pill !px-2" onClick={() => copyText('Term', t.text)}>
                    Copy
                  </button>
                  <button type="button" className="pill !px-2" onClick={() => openDoor()}>
                    Paste <Key of="door" />
                  </button>
                </span>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

const names = { suggestions: 'suggestions', results: 'results', listing: 'listing' } as const

const saysOf = (t: LookUp) =>
  t.needs.length === 0
    ? t.daysOld === null
      ? 'done'
      : t.daysOld === 0
        ? 'done, today'
        : `done, ${t.daysOld} ${t.daysOld === 1 ? 'day' : 'days'} ago`
    : `${t.needs.map((n) => names[n]).join(' · ')}${t.daysOld === null ? '' : `, ${t.daysOld} days old`}`
