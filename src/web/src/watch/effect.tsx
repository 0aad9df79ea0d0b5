import type { Effect } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { counted, dayName, fixed } from '../kit/numbers'
import { measureName, signed } from './names'

/** Before and after a change by one measure: two bars, the interval of the difference, and the verdict. */
export function EffectPart({ effect, nights }: { effect: Effect; nights: boolean }) {
  const { dailyBefore: before, dailyAfter: after, low, high, difference } = effect
  const most = Math.max(before ?? 0, after ?? 0, 0.01)
  const digits = most < 10 ? 1 : 0
  return (
    <section className="mb-4" data-testid={`effect-${effect.measure}`}>
      <h4 className="text-[14.5px] font-semibold">
        {measureName(effect.measure, nights)} <HelpLink to="before-and-after" about="before and after" />
      </h4>
      <p className="text-[15px]" data-testid="verdict">
        {effect.says}
      </p>
      {before !== null && after !== null && (
        <div className="grid gap-x-2 items-center text-[13px] mt-1" style={{ gridTemplateColumns: '48px 1fr 64px' }}>
          {(
            [
              ['Before', before],
              ['After', after],
            ] as const
          ).map(([label, value]) => (
            <div key={label} className="contents">
              <span className="quiet">{label}</span>
              <span className="h-3 bg-base-300 rounded-sm overflow-hidden" aria-hidden="true">
                <i
                  className="block h-full"
                  style={{ width: `${(value / most) * 100}%`, background: label === 'After' ? 'var(--color-primary)' : 'var(--tin-2)' }}
                />
              </span>
              <span className="num text-right">{fixed(value, digits)}/day</span>
            </div>
          ))}
        </div>
      )}
      {low !== null && high !== null && difference !== null && <Interval low={low} high={high} at={difference} />}
      {effect.days > 0 && effect.from && effect.to && (
        <p className="quiet text-[13px] mt-1">
          {counted(effect.days, 'day')} on each side, {dayName(effect.from)} to {dayName(effect.to)}, without the days the index needed.{' '}
          {effect.demand !== null
            ? `${demandOf(effect.demand)} That is taken off.`
            : effect.controls === null
              ? ''
              : effect.controls > 0
                ? `What happened to ${counted(effect.controls, 'untouched listing')} is taken off.`
                : 'No untouched listing to compare with: season and holidays are not taken off.'}
        </p>
      )}
    </section>
  )
}

const demandOf = (percent: number) =>
  Math.abs(percent) < 0.5
    ? 'Shoppers searched as much for its terms as before.'
    : `Shoppers searched ${fixed(Math.abs(percent), 0)}% ${percent > 0 ? 'more' : 'less'} for its terms.`

const Fall = 100

/** Where the difference may be, from −100% to twice as many, or to the end of the interval where that is more. */
function Interval({ low, high, at }: { low: number; high: number; at: number }) {
  const rise = Math.max(Fall, Math.ceil(high / Fall) * Fall)
  const x = (percent: number) => ((percent + Fall) / (rise + Fall)) * 100
  return (
    <div className="mt-1 relative" title={`Between ${signed(low)} and ${signed(high)}, with 95% confidence`}>
      <svg viewBox="0 0 100 10" preserveAspectRatio="none" className="w-full h-3" aria-hidden="true">
        <line x1="0" x2="100" y1="5" y2="5" stroke="var(--color-base-300)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
        <line x1={x(0)} x2={x(0)} y1="0" y2="10" stroke="var(--color-base-content)" strokeWidth="1" vectorEffect="non-scaling-stroke" />
        <line x1={x(low)} x2={x(high)} y1="5" y2="5" stroke="var(--color-primary)" strokeWidth="4" vectorEffect="non-scaling-stroke" />
        <line x1={x(at)} x2={x(at)} y1="1" y2="9" stroke="var(--color-primary)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
      </svg>
      <div className="text-[12px] quiet num h-4" aria-hidden="true">
        {x(0) > 25 && <span className="absolute left-0">−100%</span>}
        <span className="absolute" style={{ left: `${x(0)}%`, transform: x(0) > 10 ? 'translateX(-50%)' : undefined }}>
          no change
        </span>
        <span className="absolute right-0">{signed(rise)}</span>
      </div>
    </div>
  )
}
