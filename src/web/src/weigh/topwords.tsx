import { useMemo } from 'react'
import type { FigureDifference, Top, TopWord } from '../kit/api'
import { counted, fixed, full, money, percent } from '../kit/numbers'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import type { Column, Sort } from '../kit/table'
import { type TermLine, unknownNumbers } from '../kit/terms/line'
import { sortTerms, useTermColumns } from '../kit/terms/termtable'
import { Bar } from '../kit/viewframe'

/** The texts whose words can be looked at. */
export const texts = [
  ['title', 'Words in titles'],
  ['tags', 'In tags'],
  ['description', 'In descriptions'],
] as const

type WordRow = TermLine & { word: TopWord }

const usualOfWords = ['volume']

/** The words of the first listings as terms, in the order that was chosen, and the columns of their table. */
export function useTopWords(desk: Desk, top: Top | undefined, sort: Sort) {
  const picks = usePicks(desk).data?.picks
  const own = useMemo(() => wordColumnsFor(desk.market.currency), [desk.market.currency])
  const columns = useTermColumns<WordRow>({ desk, table: 'words of rivals', own, usual: usualOfWords, fields: undefined })
  const rows = useMemo(() => {
    const byKey = new Map(picks?.map((p) => [p.key, p]))
    return (top?.words ?? []).map(
      (word): WordRow => ({ key: word.key, text: word.text, numbers: word.numbers ?? unknownNumbers, pick: byKey.get(word.key), word }),
    )
  }, [top, picks])
  return { columns, rows: sortTerms(rows, columns, sort) }
}

const wordColumnsFor = (currency: string): Column<WordRow>[] => [
  {
    key: 'text',
    head: 'Word',
    width: 'minmax(120px,0.8fr)',
    words: true,
    value: (w) => w.text,
    cell: (w) => (
      <>
        <b className="font-semibold">{w.text}</b>
        {w.pick && <small className="mark ml-2">{w.pick.home === 'avoid' ? 'avoided' : 'picked'}</small>}
      </>
    ),
  },
  {
    key: 'share',
    head: 'Use it',
    title: 'How many of the listings use it, and their share',
    width: '150px',
    value: (w) => w.word.share,
    text: (w) => `${w.word.held}`,
    cell: (w) => <Bar value={w.word.share} of={1} shown={`${full(w.word.held)}`} mine={w.word.isMine} />,
  },
  {
    key: 'meanRank',
    head: 'Mean rank',
    title: 'The mean rank of the listings that use it',
    width: '76px',
    narrow: false,
    right: true,
    value: (w) => w.word.rank,
    cell: (w) => <span className="num">{fixed(w.word.rank, 1)}</span>,
  },
  {
    key: 'price',
    head: 'Price',
    title: 'The median price of the listings that use it',
    width: '76px',
    narrow: false,
    right: true,
    value: (w) => w.word.price,
    cell: (w) => <span className="num">{money(w.word.price, currency)}</span>,
  },
  {
    key: 'mine',
    head: 'Yours',
    title: 'Whether the same text of your listing has it',
    width: '64px',
    value: (w) => Number(w.word.isMine),
    cell: (w) => (w.word.isMine ? <b className="text-primary">has it</b> : <span className="sr-only">No</span>),
  },
  {
    key: 'clear',
    head: 'Clear difference',
    width: 'minmax(120px,0.8fr)',
    narrow: false,
    value: (w) => (w.word.differences.some((d) => d.isClear) ? 1 : 0),
    cell: (w) => <Differences list={w.word.differences} />,
  },
]

const figureNames = { price: 'price', sales: 'sales', views: 'views', ratings: 'ratings', occupancy: 'occupancy' } as const

/** Which figures clearly differ, and which way. */
export function Differences({ list }: { list: readonly FigureDifference[] }) {
  const clear = list.filter((d) => d.isClear)
  if (clear.length > 0)
    return (
      <span>
        {clear
          .map((d) => `${figureNames[d.figure]} ${(d.estimate ?? 0) > (d.figure === 'occupancy' ? 0 : 1) ? 'higher' : 'lower'}`)
          .join(', ')}
      </span>
    )
  return <span className="quiet">{list.some((d) => d.estimate !== null) ? 'none' : 'too few to say'}</span>
}

/** Each difference in its sentence; one is enough where there are too few of them. */
export function Sentences({ list }: { list: readonly FigureDifference[] }) {
  const sentences = [...new Set(list.map((d) => d.sentence))]
  return (
    <ul className="text-[14px] my-2">
      {sentences.map((s) => (
        <li key={s} className="mb-1.5">
          {s}
        </li>
      ))}
    </ul>
  )
}

export function WordDetail({ word }: { word: TopWord }) {
  return (
    <>
      <h3 className="!mt-0">{word.text}</h3>
      <p className="text-[14px]">
        {counted(word.held, 'listing')} ({percent(word.share)}) have it, at a mean rank of {fixed(word.rank, 1)}.{' '}
        {word.isMine ? 'Yours has it.' : 'Yours doesn’t have it.'}
      </p>
      <div className="sub">Listings with it and without</div>
      <Sentences list={word.differences} />
    </>
  )
}
