import type { ListingLine, WeighedListing } from '../../kit/api'
import { lostRank, wholePercent } from '../../kit/demand'
import { Num } from '../../kit/num'
import { compact, counted, dateOf, fixed, noData } from '../../kit/numbers'
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
    width: 'minmax(190px,1fr)',
    words: true,
    value: (l) => l.product,
    cell: (l) => <b className="font-semibold">{l.product}</b>,
  },
  { key: 'platform', head: 'Platform', width: 'minmax(110px,0.5fr)', words: true, value: (l) => l.platform, cell: (l) => l.platform },
  {
    key: 'lost',
    head: 'Lost searches/mo',
    title: 'Searches per month of its picks that can’t find it',
    width: '124px',
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
    width: '62px',
    right: true,
    value: (l) => score(l)?.reach,
    cell: (l) => <Share of={l} value={l.score?.reach} unit="%" />,
  },
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly it holds its picks, 0–100',
    width: '54px',
    right: true,
    value: (l) => score(l)?.grip,
    cell: (l) => <Share of={l} value={l.score?.grip} unit="" />,
  },
  {
    key: 'required',
    head: 'Required',
    title: 'Findings that must be fixed before it can be published',
    width: '70px',
    right: true,
    value: (l) => score(l)?.required,
    cell: (l) =>
      l.score && (
        <Pale of={l}>
          <span className={`num ${l.score.required > 0 ? 'text-accent font-semibold' : 'quiet'}`}>{l.score.required}</span>
        </Pale>
      ),
  },
  {
    key: 'recommended',
    head: 'Recommended',
    width: '96px',
    right: true,
    value: (l) => score(l)?.recommended,
    cell: (l) =>
      l.score && (
        <Pale of={l}>
          <span className="num quiet">{l.score.recommended}</span>
        </Pale>
      ),
  },
  {
    key: 'saved',
    head: 'Last change',
    width: '100px',
    right: true,
    value: (l) => l.savedAt,
    cell: (l) => <span className="quiet text-[13px]">{dateOf(l.savedAt)}</span>,
  },
  {
    key: 'sent',
    head: 'Last sent',
    width: '112px',
    right: true,
    value: (l) => l.sentAt,
    cell: (l) => (
      <span className="quiet text-[13px]" title={l.changed ? 'Changed since' : undefined}>
        {l.sentAt ? `${dateOf(l.sentAt)}${l.changed ? ' *' : ''}` : 'never'}
      </span>
    ),
  },
]
