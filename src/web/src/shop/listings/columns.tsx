import type { ListingLine, Schemas, WeighedListing } from '../../kit/api'
import { lostRank, wholePercent } from '../../kit/demand'
import { Num } from '../../kit/num'
import { compact, counted, dateOf, fixed, noData, shortDay } from '../../kit/numbers'
import type { Column } from '../../kit/table'

const score = (l: ListingLine) => l.score

/** A score that is being worked out anew is paler than one that stands. */
function Pale({ of, children }: { of: ListingLine; children: React.ReactNode }) {
  return <span className={of.isFresh ? '' : 'opacity-60'}>{children}</span>
}

function Share({ of, value, unit }: { of: ListingLine; value: number | null | undefined; unit: string }) {
  if (!of.score) return <span className="quiet">…</span>
  if (value === null || value === undefined) return <Num value={null} />
  return (
    <Pale of={of}>
      <span
        className="num"
        title={
          of.score.unknownVolume > 0
            ? `${counted(of.score.unknownVolume, 'pick')} without search numbers, counted by an assumed number`
            : undefined
        }
      >
        {unit === '%' ? wholePercent(value) : fixed(value, 0)}
        {unit}
      </span>
    </Pale>
  )
}

function Recent({ of, value, unit }: { of: ListingLine; value: number | null | undefined; unit: string }) {
  const { recent } = of
  return (
    <span title={recent && recent.known < recent.days ? `${recent.known} of the last ${recent.days} days are known` : undefined}>
      <Num value={value ?? null} unit={unit} shown={compact(value ?? null)} />
    </span>
  )
}

/** What is to be gained: what is lost counts for more where more is sold, and no less where nothing is sold yet. */
export const byGain = (rows: ListingLine[]) => {
  const gain = (l: ListingLine) => (lostRank(l.score) ?? -1) * Math.max(1, l.recent?.sales ?? 0)
  return [...rows].sort((a, b) => gain(b) - gain(a))
}

/** What a listing loses: searches where they are known, otherwise picks. */
export function Lost({ of }: { of: Pick<WeighedListing, 'lost' | 'lostPicks'> }) {
  return of.lost === null ? (
    <span title="Picks that can’t find it; none of its picks has search numbers">{counted(of.lostPicks, 'pick')}</span>
  ) : (
    <Num value={of.lost} unit="searches/mo" shown={compact(of.lost)} />
  )
}

/** The list of all listings. */
export const columns: Column<ListingLine>[] = [
  {
    key: 'product',
    head: 'Product',
    width: 'minmax(170px,1fr)',
    narrow: 'minmax(0,1fr)',
    words: true,
    value: (l) => l.product,
    cell: (l) => (
      <span className="block truncate" title={l.product}>
        <b className="font-semibold">{l.product}</b>
        {l.isPage && <span className="quiet text-[13px]"> page</span>}
      </span>
    ),
  },
  {
    key: 'platform',
    head: 'Platform',
    width: 'minmax(96px,0.4fr)',
    narrow: 'minmax(0,0.6fr)',
    words: true,
    value: (l) => l.platform,
    cell: (l) => l.platform,
  },
  {
    key: 'lost',
    head: 'Lost',
    title: 'Searches per month of its picks that can’t find it',
    width: '78px',
    narrow: '84px',
    right: true,
    value: (l) => lostRank(l.score),
    cell: (l) =>
      l.score ? (
        <Pale of={l}>{l.score.picks === 0 ? <span className="quiet">no picks</span> : <Lost of={l.score} />}</Pale>
      ) : (
        <span className="quiet">{l.marketId === null ? noData : '…'}</span>
      ),
  },
  {
    key: 'reach',
    head: 'Reach',
    title: 'The share of its picks’ searches that can find it',
    width: '52px',
    narrow: false,
    right: true,
    value: (l) => score(l)?.reach,
    cell: (l) => <Share of={l} value={l.score?.reach} unit="%" />,
  },
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly it holds its picks, 0–100',
    width: '44px',
    narrow: false,
    right: true,
    value: (l) => score(l)?.grip,
    cell: (l) => <Share of={l} value={l.score?.grip} unit="" />,
  },
  {
    key: 'findings',
    head: 'Findings',
    title: 'Required findings, which must be fixed before it can be published, and recommended ones',
    width: '74px',
    narrow: false,
    right: true,
    value: (l) => (l.score ? l.score.required * 1000 + l.score.recommended : undefined),
    text: (l) => (l.score ? `${l.score.required} required, ${l.score.recommended} recommended` : ''),
    cell: (l) =>
      l.score && (
        <Pale of={l}>
          <span className="num whitespace-nowrap">
            {l.score.required > 0 && <b className="text-accent font-semibold">{l.score.required} + </b>}
            <span className="quiet">{l.score.recommended}</span>
          </span>
        </Pale>
      ),
  },
  {
    key: 'views',
    head: 'Views',
    title: 'Views in the last 28 days',
    width: '64px',
    narrow: false,
    right: true,
    value: (l) => l.recent?.views,
    cell: (l) => <Recent of={l} value={l.recent?.views} unit="views" />,
  },
  {
    key: 'sales',
    head: 'Sales',
    title: 'Sales in the last 28 days; for stays, nights booked',
    width: '58px',
    narrow: false,
    right: true,
    value: (l) => l.recent?.sales,
    cell: (l) => <Recent of={l} value={l.recent?.sales} unit="sales" />,
  },
  {
    key: 'checked',
    head: 'Checked',
    title: 'The last day on which it was looked for at the marketplace',
    width: '72px',
    narrow: false,
    right: true,
    value: (l) => l.checkedOn,
    cell: (l) => (
      <span className="quiet text-[13px]" title={l.checkedOn ? dateOf(l.checkedOn) : undefined}>
        {l.checkedOn ? shortDay(l.checkedOn) : 'never'}
      </span>
    ),
  },
  {
    key: 'sent',
    head: 'Sent',
    title: 'When it was sent or published last; * where it was changed since',
    width: '72px',
    narrow: false,
    right: true,
    value: (l) => l.sentAt,
    text: (l) => (l.sentAt ? `${l.sentAt}${l.changed ? ', changed since' : ''}` : 'never'),
    cell: (l) => (
      <span
        className="quiet text-[13px]"
        title={`Changed ${dateOf(l.savedAt)}${l.sentAt ? `, sent ${dateOf(l.sentAt)}${l.changed ? '; changed since' : ''}` : ''}`}
      >
        {l.sentAt ? `${shortDay(l.sentAt)}${l.changed ? ' *' : ''}` : 'never'}
      </span>
    ),
  },
]

/** The last column: what comes next for each listing. */
export const nextColumn = (steps: ReadonlyMap<number, Schemas['NextStep'] | null>): Column<ListingLine> => ({
  key: 'next',
  head: 'Next',
  title: 'The next useful thing to do, and what it gains',
  width: 'minmax(190px,1.2fr)',
  narrow: false,
  words: true,
  text: (l) => steps.get(l.id)?.text ?? '',
  cell: (l) => {
    const step = steps.get(l.id)
    if (step === undefined) return <span className="quiet text-[13px]">{l.archivedAt || !l.marketId ? '' : '…'}</span>
    if (step === null) return <span className="quiet text-[13px]">nothing for now</span>
    return (
      <span className="block truncate text-[13px]" title={`${step.text}. ${step.why}`}>
        {step.text}
        {step.move && <span className="num quiet"> +{fixed(step.move.gain, 1)}</span>}
      </span>
    )
  },
})
