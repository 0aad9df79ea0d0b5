import type { ReactNode } from 'react'
import type { Measured, Norm } from './api'
import { Year } from './charts'
import { compact, fixed, full } from './numbers'

/** Everything known of one term in one market, each figure opened to what made it. */
export function TermDetail({
  text,
  numbers,
  norm,
  marketName,
  actions,
}: {
  text: string
  numbers: Measured
  norm: Norm | undefined
  marketName: string
  actions?: ReactNode
}) {
  const { volume, competition, headroom } = numbers
  const ratio = volume && competition !== null ? Math.log10(volume / Math.max(1, competition)) : null
  return (
    <div data-testid="detail">
      <h3>{text}</h3>
      <p className="quiet text-[13.5px]">
        {volume === null ? 'Searches unknown' : `${full(volume)} searches a month`},{' '}
        {competition === null ? 'listings unknown' : `${full(competition)} listings`}.
      </p>
      {actions}
      {numbers.months && numbers.from && (
        <div className="mt-4">
          <Year months={numbers.months} from={numbers.from} />
        </div>
      )}
      <div className="sub">Numbers</div>
      <table className="plain">
        <tbody>
          <tr title="Competing listings against the market’s shelf, by thirds">
            <td>Competition</td>
            <td className="r">{numbers.band ?? 'unknown'}</td>
          </tr>
          <tr>
            <td className="whitespace-nowrap">Titles holding the phrase</td>
            <td className="r num">{full(numbers.titlesHolding)}</td>
          </tr>
          <tr>
            <td>Click cost</td>
            <td className="r num">{numbers.clickCost === null ? 'unknown' : numbers.clickCost.toFixed(2)}</td>
          </tr>
          <tr>
            <td>Headroom</td>
            <td className="r num">{fixed(headroom, 1)}</td>
          </tr>
        </tbody>
      </table>
      {norm?.lowTo !== null && norm?.lowTo !== undefined && (
        <p className="quiet text-[12.5px] mt-1">
          On this shelf, low competition goes to {compact(norm.lowTo)} listings, moderate to {compact(norm.moderateTo)}.
        </p>
      )}
      <details className="text-[13px] mt-1">
        <summary className="link w-fit">What made the headroom</summary>
        {headroom === null || ratio === null || norm?.centre === null || norm === undefined ? (
          <p className="quiet mt-1">It needs searches, listings and a shelf to compare with. Something of that is unknown here.</p>
        ) : (
          <p className="quiet mt-1">
            Searches ÷ listings is {full(volume)} ÷ {full(Math.max(1, competition ?? 1))}, its log10{' '}
            <b className="num">{ratio.toFixed(2)}</b>. Typical on this shelf of {full(norm.readings)} terms:{' '}
            <b className="num">{norm.centre.toFixed(2)}</b>. 50 + 25 × ({ratio.toFixed(2)} − {norm.centre.toFixed(2)}), kept within 0 and
            100, gives <b className="num">{Math.min(100, Math.max(0, 50 + 25 * (ratio - norm.centre))).toFixed(1)}</b>; times{' '}
            {(1 - Math.exp(-(volume ?? 0) / 200)).toFixed(3)}, because few searches prove little:{' '}
            <b className="num">{headroom.toFixed(1)}</b>.
          </p>
        )}
      </details>
      <p className="quiet text-[12.5px] mt-3">
        {numbers.source
          ? `${marketName}: ${numbers.source}, ${numbers.takenAt?.slice(0, 10)}. Simulated where the source is the stand-in market.`
          : `Nobody has measured it in ${marketName}.`}
      </p>
    </div>
  )
}
