import type { SeenPages } from './api'
import { full, percent } from './numbers'

const kinds: Record<string, string> = {
  product: 'product pages',
  category: 'categories',
  guide: 'guides',
  list: 'lists',
  other: 'other pages',
}

/** The pages that a web search finds for a term: which kinds answer it, which words they add, and whether it means the same elsewhere. */
export function WebResults({ pages, country }: { pages: SeenPages; country: string }) {
  if (pages.first.length === 0)
    return (
      <>
        <div className="sub">Search results</div>
        <p className="quiet text-[13.5px]">No data on the results of this search.</p>
      </>
    )
  return (
    <div data-testid="web-results">
      <div className="sub">Search results</div>
      <p className="text-[13.5px]">
        {pages.found === null ? 'Pages in all: no data' : `${full(pages.found)} pages`}. Of the first:{' '}
        {Object.entries(pages.kinds)
          .sort((a, b) => b[1] - a[1])
          .map(([kind, count]) => `${count} ${kinds[kind] ?? kind}`)
          .join(', ')}
        .
      </p>
      {pages.elsewhere && (
        <p className="doubts text-[13.5px]">
          <b>It may mean something else here.</b> The results in {country} share only {percent(pages.elsewhere.share)} of their words with
          those in {pages.elsewhere.countryName}.
        </p>
      )}
      {pages.modifiers.length > 0 && (
        <p className="text-[13.5px]">
          <span className="quiet">Words that their titles add:</span> {pages.modifiers.map((m) => `${m.text} ${m.count}`).join(', ')}
        </p>
      )}
      <details className="text-[13.5px]">
        <summary className="link w-fit">First {pages.first.length} results: are they like yours?</summary>
        {pages.first.map((p, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a result is its place
          <p key={i} className="border-b border-base-300 py-1">
            <b className="font-medium">{p.title}</b> <span className="quiet">{p.site}</span>
            <br />
            <span className="quiet">{p.description}</span>
          </p>
        ))}
      </details>
    </div>
  )
}
