import type { Listing, Weighing } from '../kit/api'
import { countedBy, wholePercent } from '../kit/demand'
import { HelpLink } from '../kit/helplink'
import { counted, full, upTo } from '../kit/numbers'
import { isHeadline } from '../kit/weighing'
import { GripBar } from './gripbar'

/** Reach and grip with what they are made of. */
export function Scores({ weighing, listing, required }: { weighing: Weighing; listing: Listing; required: number | undefined }) {
  const known = weighing.picks > 0
  const { sums } = weighing
  // Picks that count the same make small sums.
  // What a pick counts before its fit: where no searches are known, each counts one.
  const demand = weighing.basis === 'counted' ? 'Picks' : 'Searches/mo'
  const sum = (n: number) => (weighing.basis === 'counted' ? upTo(n, 1) : full(n))
  const big = isHeadline(weighing, required) ? 'big' : 'big less'
  return (
    <>
      <div className="grid grid-cols-2 gap-6 mb-2 max-w-[860px]">
        <div>
          <div className="flex items-baseline gap-3">
            <span className={big} data-testid="reach">
              {known ? (
                <>
                  {wholePercent(weighing.reach)}
                  <span className="text-[24px]">%</span>
                </>
              ) : (
                <span className="text-[20px]">No picks</span>
              )}
            </span>
            <span className="head font-semibold text-[16px]">Reach</span>
            <HelpLink to="reach" about="reach" />
          </div>
          <p className="quiet text-[13.5px] mt-1">
            The share of your picks’ demand that can find this listing: {weighing.eligible} of {counted(weighing.picks, 'pick')}
            {weighing.basis !== 'counted' && `, ${full(weighing.volume)} of ${full(weighing.totalVolume)} searches/mo`}.{' '}
            {sums.demand > 0 && `${demand} × weight of each fit: ${sum(sums.eligibleDemand)} of ${sum(sums.demand)}. `}
            <span data-testid="counted-by">{countedBy(weighing)}</span>
          </p>
        </div>
        <div>
          <div className="flex items-baseline gap-3">
            <span className={big} data-testid="grip">
              {known ? Math.round(weighing.grip) : <span className="text-[20px]">No picks</span>}
            </span>
            <span className="head font-semibold text-[16px]">Grip</span>
            <HelpLink to="grip" about="grip" />
          </div>
          <p className="quiet text-[13.5px] mt-1">
            0–100: how firmly the listing holds them. Exact phrases, important fields and early words count more. Each pick counts by its
            worth ({weighing.basis === 'counted' ? '' : 'searches/mo × '}weight of its fit × more where competition is low):{' '}
            {sum(sums.gripped)} held of {sum(sums.worth)}.
          </p>
        </div>
      </div>
      {known && <GripBar weighing={weighing} listing={listing} />}
    </>
  )
}

/** Reach and grip in one line, over the views that are about something else. */
export function ScoreLine({ weighing }: { weighing: Weighing }) {
  const known = weighing.picks > 0
  return (
    <span className="text-[14px] ml-auto quiet">
      Reach{' '}
      <b className="num text-base-content" data-testid="reach">
        {known ? `${wholePercent(weighing.reach)}%` : 'No picks'}
      </b>
      {' · '}Grip{' '}
      <b className="num text-base-content" data-testid="grip">
        {known ? Math.round(weighing.grip) : 'No picks'}
      </b>
    </span>
  )
}
