import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { api, ask, type Measured, type Norm } from './api'
import { publishBy, Year } from './charts'
import { HelpLink } from './helplink'
import { Key } from './key'
import { MarketLink } from './marketlink'
import { counted, fixed, full, monthName, percent } from './numbers'
import { queryKey } from './queries'
import { type Desk, useConnected } from './shop'
import { useShortcuts } from './shortcuts'
import { Countries, FamilyBars, Seen } from './termmarket'
import { Correct, Figures, Readings } from './termnumbers'
import { WebResults } from './webresults'
import { useSettled } from './words'

const shapeWords = {
  sparse: 'Too few searches to show a pattern',
  'one-off': 'One-off: a short burst in one year only',
  seasonal: 'Seasonal',
  rising: 'Rising',
  fading: 'Fading',
  steady: 'Steady all year',
}

/** Everything known about one term in one market, with how each figure is worked out. */
export function TermDetail({
  desk,
  text,
  numbers: first,
  norm,
  dig,
  actions,
}: {
  desk: Desk
  text: string
  numbers: Measured
  norm: Norm | undefined
  dig?: (text: string) => void
  actions?: ReactNode
}) {
  const { market } = desk
  const connected = useConnected()
  const settled = useSettled(text)
  const view = useQuery({
    queryKey: queryKey('term', market.id, text.toLowerCase()),
    queryFn: () => ask(api.GET('/api/markets/{marketId}/term', { params: { path: { marketId: market.id }, query: { text } } })),
    enabled: settled === text,
    staleTime: 60_000,
  }).data
  const [correcting, setCorrecting] = useState<string | null>(null)
  const numbers = view?.numbers ?? first
  const { volume, competition } = numbers
  useShortcuts({ correct: () => setCorrecting(text) })
  return (
    <div data-testid="detail">
      <h3>{text}</h3>
      <MarketLink market={market} term={text} />
      <p className="quiet text-[13.5px]">
        {volume === null && competition === null
          ? connected
            ? 'No market data for this term. Correct it, paste your own numbers or import a file.'
            : 'No numbers of this term known here.'
          : `${volume === null ? 'No search data' : `${full(volume)} searches/mo`}, ${competition === null ? 'no data on competing listings' : counted(competition, 'competing listing')}.`}{' '}
        {view?.year && (
          <span title={view.year.howSure} data-testid="shape">
            {shapeWords[view.year.shape]}
            {view.year.shape === 'seasonal' &&
              `, peak in ${monthName(view.year.peakMonths[0] - 1)}${view.year.peakMonths.length > 1 ? ` to ${monthName(view.year.peakMonths[view.year.peakMonths.length - 1] - 1)}` : ''}`}
            {(view.year.shape === 'rising' || view.year.shape === 'fading') &&
              `, ${view.year.change12 > 0 ? 'up' : 'down'} ${fixed(Math.abs(view.year.change12), 0)}% in 12 months`}
            .{view.year.readyBy && <b className="text-base-content"> {publishBy(view.year.readyBy)}</b>}
          </span>
        )}
      </p>
      {actions}
      {numbers.doubts.length > 0 && (
        <div className="doubts" data-testid="doubts">
          <b>These numbers look wrong.</b> {numbers.doubts.map((d) => d.why).join(' ')}{' '}
          <button type="button" className="link" onClick={() => setCorrecting(text)}>
            Correct <Key of="correct" />
          </button>
        </div>
      )}
      {correcting === text && <Correct desk={desk} text={text} numbers={numbers} done={() => setCorrecting(null)} />}
      {numbers.months && numbers.from && (
        <div className="mt-3">
          <Year months={numbers.months} from={numbers.from} />
          {view?.year && (
            <details className="text-[13px]">
              <summary className="link w-fit">How this is worked out</summary>
              <p className="quiet mt-1">
                {view.year.howSure}{' '}
                {view.year.seasonalStrength !== null &&
                  `The season explains ${percent(view.year.seasonalStrength)} of the variation (60% needed). `}
                The trend is {fixed(view.year.change12, 0)}% in 12 months (25% needed), p{' '}
                {view.year.p < 0.001 ? '< 0.001' : fixed(view.year.p, 3)}.{' '}
                <HelpLink to="the-shape-of-a-year" about="the pattern of a year" />
              </p>
            </details>
          )}
        </div>
      )}
      {view && view.family.length > 1 && <FamilyBars view={view} here={text} dig={dig} />}
      {view?.pages && <WebResults pages={view.pages} country={market.countryName} />}
      {view && !view.pages && <Seen seen={view.seen} desk={desk} term={text} dig={dig} />}
      <Countries key={text} desk={desk} text={text} />
      <Figures desk={desk} numbers={numbers} norm={view?.norm ?? norm} steps={view?.headroom} currency={market.currency} />
      {view && <Readings desk={desk} view={view} correct={() => setCorrecting(text)} />}
    </div>
  )
}
