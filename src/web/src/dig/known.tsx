import type { DugSources } from '../kit/api'
import { counted, full } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { seenOn, ToBring } from '../kit/tobring'

/** Where what is shown of a term came from, and what of it was never brought in. */
export function Known({ known, desk, term }: { known: DugSources; desk: Desk; term: string }) {
  const { results } = known
  const missing = [known.hasSuggestions ? null : 'suggestions', results ? null : 'results'].filter(Boolean)
  return (
    <div className="text-[13px] quiet" data-testid="known">
      {results?.seen && (
        <p>
          Results: {counted(results.looked, 'listing')} read
          {results.ads > 0 ? `, ${full(results.ads)} of them ads` : ''}
          {results.found === null ? '' : `, of ${full(results.found)}`}. {seenOn(results.seen)}.
        </p>
      )}
      {known.suggested && <p>Suggestions: {seenOn(known.suggested)}.</p>}
      {missing.length > 0 && (
        <ToBring market={desk.market} term={term} what={`No ${missing.join(' and no ')} of “${term}” known here yet.`} />
      )}
    </div>
  )
}
