import { useQuery } from '@tanstack/react-query'
import { useRef } from 'react'
import { api, ask, type TermView } from './api'
import { useChanges } from './changes'
import { compact, counted, fixed, money, percent } from './numbers'
import { queryKey, refresh } from './queries'
import type { Desk } from './shop'
import { keyOf } from './words'

type Result = NonNullable<TermView['seen']>['first'][number]

// As the server bounds it.
const longestName = 400

const nameOf = (r: Result) => (r.id ?? r.title).slice(0, longestName)

/** What the seller judged of the results of the product’s terms, by the key of the term. */
export const useLikeness = (desk: Desk, enabled = true) =>
  useQuery({
    queryKey: queryKey('likeness', desk.product.id, desk.market.id),
    queryFn: () =>
      ask(api.GET('/api/products/{id}/likeness', { params: { path: { id: desk.product.id }, query: { marketId: desk.market.id } } })),
    enabled,
  }).data

/** The first results of a term as a shopper sees them; each is judged by one key: the same kind of thing as the product, or not. */
export function ResultCards({ desk, term, results }: { desk: Desk; term: string; results: readonly Result[] }) {
  const { run } = useChanges()
  const list = useRef<HTMLUListElement>(null)
  const all = useLikeness(desk)
  const here = all?.find((l) => l.key === keyOf(term))
  const judge = (r: Result, isLike: boolean) =>
    run(
      () =>
        ask(
          api.PUT('/api/products/{id}/likeness', {
            params: { path: { id: desk.product.id } },
            body: { marketId: desk.market.id, term, result: nameOf(r), isLike: here?.judged[nameOf(r)] === isLike ? null : isLike },
          }),
        ),
      undefined,
      (c) => refresh(c, 'likeness'),
    )
  const cards = () => [...(list.current?.querySelectorAll<HTMLElement>('li') ?? [])]
  const go = (to: number) => cards()[to]?.focus()
  const keys = (e: React.KeyboardEvent, r: Result, i: number) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return
    if (e.key === 'y') judge(r, true)
    else if (e.key === 'n') judge(r, false)
    else if (e.key === 'ArrowRight' || e.key === 'ArrowDown') go(i + 1)
    else if (e.key === 'ArrowLeft' || e.key === 'ArrowUp') go(i - 1)
    else return
    e.preventDefault()
    e.stopPropagation()
    // After a judgement the next one is up.
    if (e.key === 'y' || e.key === 'n') go(i + 1)
  }
  const judged = here ? Object.keys(here.judged).length : 0
  return (
    <div className="mt-2" data-testid="cards">
      <p className="text-[13px] mb-1">
        {judged === 0 ? (
          <>Is this what shoppers of yours look for?</>
        ) : (
          <b className="font-semibold" data-testid="like-mine">
            {percent((here?.like ?? 0) / judged)} like yours
            <span className="quiet font-normal"> ({counted(judged, 'result')} judged)</span>
          </b>
        )}{' '}
        <span className="quiet">
          <kbd>Y</kbd> like mine, <kbd>N</kbd> not
        </span>
      </p>
      <ul ref={list} className="cards" aria-label={`Results for ${term}`}>
        {results.map((r, i) => {
          const isLike = here?.judged[nameOf(r)]
          return (
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a card is judged by key
            // biome-ignore lint/suspicious/noArrayIndexKey: results are in the market's order
            <li key={`${nameOf(r)} ${i}`} tabIndex={0} className="card-result" data-like={isLike} onKeyDown={(e) => keys(e, r, i)}>
              <Picture result={r} isDrawn={desk.market.simulated && !desk.market.own} />
              <span className="leading-tight line-clamp-2" title={r.title}>
                {r.title}
              </span>
              <span className="num text-[12.5px]">
                {r.price === null ? <span className="quiet font-sans">price unknown</span> : <b>{money(r.price, desk.market.currency)}</b>}
                {r.isAd && <span className="mark ml-1">ad</span>}
              </span>
              <span className="quiet num text-[12px]">
                {[
                  r.shipping === null || r.price === null
                    ? null
                    : r.shipping > 0
                      ? `+ ${money(r.shipping, desk.market.currency)}`
                      : 'free shipping',
                  r.rating === null ? null : `${fixed(r.rating, 1)}★${r.ratings === null ? '' : ` ${compact(r.ratings)}`}`,
                  r.photos === null ? null : counted(r.photos, 'photo'),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
              {r.alt && r.alt !== r.title && (
                <span className="quiet text-[12px] leading-tight line-clamp-2" title={`Alt text: ${r.alt}`}>
                  Alt text: {r.alt}
                </span>
              )}
              <span className="flex gap-1">
                <button type="button" tabIndex={-1} className="choice" aria-pressed={isLike === true} onClick={() => judge(r, true)}>
                  like mine
                </button>
                <button type="button" tabIndex={-1} className="choice" aria-pressed={isLike === false} onClick={() => judge(r, false)}>
                  not
                </button>
              </span>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function Picture({ result, isDrawn }: { result: Result; isDrawn: boolean }) {
  const source = result.picture
    ? `/api/pictures/files/${result.picture}?small=true`
    : isDrawn
      ? `/api/drawings?title=${encodeURIComponent(result.title.slice(0, longestName))}`
      : null
  return source ? (
    <img src={source} alt={result.alt ?? ''} title={result.alt ?? undefined} loading="lazy" />
  ) : (
    <span className="no-picture quiet">no picture</span>
  )
}
