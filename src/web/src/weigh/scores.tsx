import type { Listing, Weighing } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { counted, full, withoutData } from '../kit/numbers'
import { isHeadline } from '../kit/weighing'
import { GripBar } from './gripbar'

/** Reach and grip with what they are made of. */
export function Scores({ weighing, listing, required }: { weighing: Weighing; listing: Listing; required: number | undefined }) {
  const known = weighing.totalVolume > 0
  const { sums } = weighing
  const big = isHeadline(weighing, required) ? 'big' : 'big less'
  return (
    <>
      <div className="grid grid-cols-2 gap-6 mb-2 max-w-[860px]">
        <div>
          <div className="flex items-baseline gap-3">
            <span className={big} data-testid="reach">
              {known ? (
                <>
                  {Math.round(weighing.reach)}
                  <span className="text-[24px]">%</span>
                </>
              ) : (
                <span className="text-[20px]">No data</span>
              )}
            </span>
            <span className="head font-semibold text-[16px]">Reach</span>
            <HelpLink to="reach" about="reach" />
          </div>
          <p className="quiet text-[13.5px] mt-1">
            The share of your picks’ searches that can find this listing: {weighing.eligible} of {counted(weighing.picks, 'pick')},{' '}
            {full(weighing.volume)} of {full(weighing.totalVolume)} searches/mo{withoutData(weighing.unknownVolume)}. Weighted by fit:{' '}
            {full(sums.eligibleDemand)} ÷ {full(sums.demand)}.
          </p>
        </div>
        <div>
          <div className="flex items-baseline gap-3">
            <span className={big} data-testid="grip">
              {known ? Math.round(weighing.grip) : <span className="text-[20px]">No data</span>}
            </span>
            <span className="head font-semibold text-[16px]">Grip</span>
            <HelpLink to="grip" about="grip" />
          </div>
          <p className="quiet text-[13.5px] mt-1">
            0–100: how firmly the listing holds them. Exact phrases, important fields and early words count more. Worth held:{' '}
            {full(sums.gripped)} ÷ {full(sums.worth)}.
          </p>
        </div>
      </div>
      {known && <GripBar weighing={weighing} listing={listing} />}
    </>
  )
}

/** Reach and grip in one line, over the views that are about something else. */
export function ScoreLine({ weighing }: { weighing: Weighing }) {
  const known = weighing.totalVolume > 0
  return (
    <span className="text-[14px] ml-auto quiet">
      Reach{' '}
      <b className="num text-base-content" data-testid="reach">
        {known ? `${Math.round(weighing.reach)}%` : 'No data'}
      </b>
      {' · '}Grip{' '}
      <b className="num text-base-content" data-testid="grip">
        {known ? Math.round(weighing.grip) : 'No data'}
      </b>
    </span>
  )
}
