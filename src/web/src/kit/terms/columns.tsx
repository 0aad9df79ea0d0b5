import type { FoundTerm, Listing, Measured, OwnTerm, Schemas } from '../api'

type Likeness = Schemas['LikenessView']
type Bands = Schemas['Bands']

import { HeadroomBar, Silhouette } from '../charts'
import { homeName } from '../names'
import { Num } from '../num'
import { compact, counted, fixed, full, gripOf, monthName, percent, upTo } from '../numbers'
import type { Column } from '../table'
import { gradeWords, Thread } from '../thread'
import { fits, homes, orderOf } from './given'
import type { TermLine } from './line'

export type Shape = Schemas['Shape']

export const shapeNames: Record<Shape, string> = {
  sparse: 'sparse',
  'one-off': 'one-off',
  seasonal: 'seasonal',
  rising: 'rising',
  fading: 'fading',
  steady: 'steady',
}

/** A change in percent with its sign: “+12%”. */
export const changeText = (percent: number | null | undefined) =>
  percent === null || percent === undefined
    ? ''
    : `${Math.round(percent) > 0 ? '+' : Math.round(percent) < 0 ? '−' : ''}${full(Math.abs(percent))}%`

/** “seasonal: October, November” */
export const shapeText = (numbers: Measured) => {
  const trend = numbers.trend
  if (!trend?.shape) return ''
  const peaks = trend.peakMonths.map((m) => monthName(m - 1).slice(0, 3))
  return shapeNames[trend.shape] + (peaks.length > 0 ? `: ${peaks.length > 2 ? `${peaks[0]}–${peaks.at(-1)}` : peaks.join(', ')}` : '')
}

const number = (key: string, head: string, title: string, width: string, value: (n: Measured) => number | null | undefined, unit: string) =>
  ({
    key,
    head,
    title,
    width,
    narrow: false,
    right: true,
    value: (r) => value(r.numbers),
    cell: (r) => <Num value={value(r.numbers)} unit={unit} />,
  }) satisfies Column<TermLine>

const change = (key: string, head: string, title: string, value: (n: Measured) => number | null | undefined): Column<TermLine> => ({
  key,
  head,
  title,
  width: '72px',
  narrow: false,
  right: true,
  value: (r) => value(r.numbers),
  cell: (r) => <Num value={value(r.numbers)} shown={changeText(value(r.numbers))} unit="%" />,
})

/** Searches a month. */
export const volumeColumn: Column<TermLine> = {
  ...number('volume', 'Searches/mo', 'Searches per month in this market', '86px', (n) => n.volume, 'searches/mo'),
  narrow: '80px',
}

/** A number against the terms on the market’s shelf, in a word. */
const band = (key: string, head: string, what: string, value: (n: Measured) => number | null | undefined, of: keyof Bands) =>
  ({
    key: `${key}Band`,
    head,
    title: `${what}: low, medium or high compared with the terms on this market’s shelf, by thirds`,
    width: '76px',
    narrow: false,
    value: (r) => value(r.numbers),
    text: (r) => r.numbers.bands[of] ?? '',
    cell: (r) => <span className="text-[13px]">{r.numbers.bands[of] ?? <Num value={null} />}</span>,
  }) satisfies Column<TermLine>

/** Competing listings with their band. */
export const competitionColumn: Column<TermLine> = {
  ...number(
    'competition',
    'Competing',
    'Competing listings; low, medium or high compared with the terms on this market’s shelf',
    '104px',
    (n) => n.competition,
    'competing listings',
  ),
  cell: (r) =>
    r.numbers.competition === null ? (
      <Num value={null} />
    ) : (
      <>
        <span className="quiet text-[12px]">{r.numbers.bands.competition} </span>
        <Num value={r.numbers.competition} unit="competing listings" shown={compact(r.numbers.competition)} />
      </>
    ),
}

/** Demand against supply. */
export const headroomColumn: Column<TermLine> = {
  key: 'headroom',
  head: 'Headroom',
  title: 'Demand compared with supply, 0–100; 50 is typical for this market',
  width: '92px',
  narrow: false,
  right: true,
  value: (r) => r.numbers.headroom,
  text: (r) => (r.numbers.headroom === null ? '' : `${Math.round(r.numbers.headroom * 10) / 10}`),
  cell: (r) => <HeadroomBar value={r.numbers.headroom} />,
}

const place = (t: FoundTerm | undefined) => (t === undefined || t.found === null ? null : !t.found ? Number.POSITIVE_INFINITY : t.rank)

const placeText = (t: FoundTerm | undefined) =>
  t === undefined || t.found === null ? '' : !t.found ? 'Not found' : t.rank === null ? 'Found' : `${t.rank}`

/** What a table of terms can show, apart from the term: numbers of the market, the seller's own choices, what the listing holds, what was found. */
export function termColumns(
  listing: Listing | undefined,
  weighed: readonly string[],
  found: ReadonlyMap<string, FoundTerm> | undefined,
  used: ReadonlyMap<string, OwnTerm> | undefined,
  likeness: ReadonlyMap<string, Likeness> | undefined,
) {
  const label = (key: string) => listing?.fields.find((f) => f.key === key)?.label ?? key
  const all: Column<TermLine>[] = [
    {
      key: 'fit',
      head: 'Fit',
      title: 'How true and central it is: core, good or stretch',
      width: '50px',
      narrow: false,
      words: true,
      value: (r) => (r.pick ? orderOf(fits, r.pick.fit) : null),
      text: (r) => r.pick?.fit ?? '',
      cell: (r) => <span className="text-[13px]">{r.pick?.fit}</span>,
    },
    {
      key: 'home',
      head: 'Home',
      title: 'Where to use it',
      width: '74px',
      narrow: false,
      words: true,
      value: (r) => (r.pick ? orderOf(homes, r.pick.home) : null),
      text: (r) => (r.pick ? homeName[r.pick.home] : ''),
      cell: (r) => r.pick && <span className={`text-[13px] ${r.pick.home === 'anywhere' ? 'quiet' : ''}`}>{homeName[r.pick.home]}</span>,
    },
    volumeColumn,
    band('volume', 'Search level', 'Searches', (n) => n.volume, 'volume'),
    number('lastMonth', 'Last month', 'Searches in the newest month that is known', '78px', (n) => n.trend?.lastMonth, 'searches'),
    change('change3', '3 months', 'The newest three months against the three before them', (n) => n.trend?.change3),
    change('change12', '12 months', 'The change over twelve months along the line through the known months', (n) => n.trend?.change12),
    {
      key: 'shape',
      head: 'Shape',
      title: 'The shape of its year; with the peak months of a seasonal one',
      width: '112px',
      narrow: false,
      words: true,
      value: (r) => shapeText(r.numbers) || null,
      cell: (r) => <span className="text-[13px]">{shapeText(r.numbers) || <Num value={null} />}</span>,
    },
    {
      key: 'months',
      head: 'Trend',
      title: 'Searches by month',
      width: '80px',
      narrow: false,
      cell: (r) => <Silhouette months={r.numbers.months} width={80} />,
    },
    number('web', 'Web', 'Searches per month on the web of the same country', '64px', (n) => n.webVolume, 'searches/mo on the web'),
    band('web', 'Web level', 'Searches on the web', (n) => n.webVolume, 'webVolume'),
    competitionColumn,
    number('titles', 'In titles', 'Exact-title matches: listings whose title has the phrase', '66px', (n) => n.titlesHolding, 'listings'),
    band('titles', 'Titles level', 'Exact-title matches', (n) => n.titlesHolding, 'titles'),
    headroomColumn,
    band('headroom', 'Headroom level', 'Headroom', (n) => n.headroom, 'headroom'),
    {
      ...number('cost', 'CPC', 'Cost per click', '56px', (n) => n.clickCost, ''),
      cell: (r) => <Num value={r.numbers.clickCost} shown={fixed(r.numbers.clickCost, 2)} />,
    },
    band('cost', 'CPC level', 'Cost per click', (n) => n.clickCost, 'clickCost'),
    number(
      'clicks',
      'Clicks',
      'Clicks on your listings after a search for it, in the time that the imported file covers',
      '60px',
      (n) => n.clicks,
      'clicks',
    ),
    number('orders', 'Orders', 'Orders that came of those clicks', '60px', (n) => n.orders, 'orders'),
    {
      ...number('sales', 'Sales', 'What those orders were worth', '70px', (n) => n.sales, ''),
      cell: (r) => <Num value={r.numbers.sales} shown={fixed(r.numbers.sales, 2)} />,
    },
    {
      key: 'grip',
      head: 'Grip',
      title: 'How firmly the listing holds it, 0–100',
      width: '46px',
      narrow: false,
      right: true,
      value: (r) => r.weight?.grip,
      text: (r) => (r.weight ? upTo(gripOf(r.weight.grip) ?? 0, 1) : ''),
      cell: (r) => <Num value={gripOf(r.weight?.grip)} shown={`${Math.round(gripOf(r.weight?.grip) ?? 0)}`} unit="of 100" />,
    },
    {
      key: 'missing',
      head: 'Missing',
      title: 'Words of it that the listing lacks',
      width: '110px',
      narrow: false,
      words: true,
      value: (r) => r.weight?.missing.join(' ') || null,
      cell: (r) => <span className="text-[13px]">{r.weight?.missing.join(', ')}</span>,
    },
    ...weighed.map(
      (key, i): Column<TermLine> => ({
        key: `f-${key}`,
        head: label(key),
        title: `How firmly ${label(key)} alone holds it; weight ${listing?.fields.find((f) => f.key === key)?.weight ?? ''}`,
        width: `minmax(${Math.max(64, label(key).length * 7 + 8)}px,0.3fr)`,
        narrow: false,
        value: (r) => r.weight?.strengths[i],
        text: (r) => (r.weight ? gradeWords[r.weight.grades[i]] : ''),
        cell: (r) =>
          !r.weight ? null : r.weight.grades[i] === 'missing' ? (
            <span className="sr-only">No match</span>
          ) : (
            <Thread
              grade={r.weight.grades[i]}
              title={`${label(key)}: ${gradeWords[r.weight.grades[i]]}, strength ${Math.round(r.weight.strengths[i] * 100)}`}
            />
          ),
      }),
    ),
    {
      key: 'rank',
      head: 'Rank',
      title: 'The position among the search results at the last check',
      width: '84px',
      narrow: false,
      right: true,
      value: (r) => place(found?.get(r.key)),
      text: (r) => placeText(found?.get(r.key)),
      cell: (r) => <span className="num text-[13px]">{placeText(found?.get(r.key)) || <span className="quiet">Not checked</span>}</span>,
    },
    {
      key: 'flipped',
      head: 'Flipped',
      title: 'Whether it is found newly, or no longer, since the check before',
      width: '84px',
      narrow: false,
      words: true,
      value: (r) => flips[found?.get(r.key)?.flip ?? 'none'] || null,
      cell: (r) => <span className="mark">{flips[found?.get(r.key)?.flip ?? 'none']}</span>,
    },
    {
      key: 'likeMine',
      head: 'Like mine',
      title: 'The share of its first results that are the same kind of thing, as far as you judged them',
      width: '78px',
      narrow: false,
      right: true,
      value: (r) => shareOf(likeness?.get(r.key)),
      text: (r) => percent(shareOf(likeness?.get(r.key))),
      cell: (r) => {
        const share = shareOf(likeness?.get(r.key))
        return share === null ? (
          <span className="quiet text-[13px]">not judged</span>
        ) : (
          <span className="num" title={counted(Object.keys(likeness?.get(r.key)?.judged ?? {}).length, 'result')}>
            {percent(share)}
          </span>
        )
      },
    },
    {
      key: 'ownListings',
      head: 'Own listings',
      title: 'Listings of yours in this market that pick it, this one included',
      width: '92px',
      narrow: false,
      right: true,
      value: (r) => used?.get(r.key)?.picked ?? null,
      text: (r) => `${used?.get(r.key)?.picked ?? 0}`,
      cell: (r) => used && <span className="num text-[13px]">{used.get(r.key)?.picked ?? 0}</span>,
    },
    {
      key: 'source',
      head: 'Source',
      title: 'Where its numbers come from',
      width: '110px',
      narrow: false,
      words: true,
      value: (r) => r.numbers.source,
      cell: (r) => <span className="quiet text-[12.5px]">{r.numbers.source}</span>,
    },
  ]
  return all
}

const flips: Record<FoundTerm['flip'], string> = { none: '', appeared: 'Now found', disappeared: 'No longer' }

/** A mark behind a term whose numbers look wrong, with the reasons. */
export function DoubtMark({ numbers }: { numbers: Measured }) {
  if (numbers.doubts.length === 0) return null
  return (
    <span className="doubt" title={numbers.doubts.map((d) => d.why).join(' ')}>
      check numbers
    </span>
  )
}

const shareOf = (l: Likeness | undefined) => (l ? l.like / Object.keys(l.judged).length : null)
