import { useMemo } from 'react'
import { useAddress } from '../kit/address'
import type { HeldTerm, Rivals, Weighing } from '../kit/api'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import type { Column } from '../kit/table'
import { type TermLine, weighedLines } from '../kit/terms/line'
import { sortTerms, TermTable, useTermColumns } from '../kit/terms/termtable'
import { gradeWords, Thread } from '../kit/thread'
import { nameOf } from './names'

type Row = TermLine & { held: HeldTerm; lacks: boolean }

/** For each pick: who holds it, how, and in which field; what rivals hold and the listing lacks comes first. */
export function HeldTerms({ desk, data, weighing, leadKey }: { desk: Desk; data: Rivals; weighing: Weighing; leadKey: string | null }) {
  const [params, set] = useAddress()
  const picks = usePicks(desk).data?.picks
  const last = useMemo(() => holdersOf(data), [data])
  const columns = useTermColumns<Row>({ desk, table: 'who holds what', own, usual, last, fields: weighing.fields })
  const rows = useMemo(() => {
    const byKey = new Map(weighedLines(weighing.terms, picks, leadKey).map((t) => [t.key, t]))
    return data.terms
      .flatMap((held): Row[] => {
        const term = byKey.get(held.key)
        return term ? [{ ...term, held, lacks: held.holders.length > 0 && !held.holders.some((h) => h.rival === 0) }] : []
      })
      .sort((a, b) => Number(b.lacks) - Number(a.lacks) || (b.weight?.worth ?? 0) - (a.weight?.worth ?? 0))
  }, [data, weighing, picks, leadKey])
  const sort = sortIn(params)
  const sorted = sortTerms(rows, columns, sort)
  return (
    <TermTable
      desk={desk}
      name="Who holds what"
      rows={sorted}
      columns={columns}
      source="rivals"
      at={Math.max(
        0,
        sorted.findIndex((r) => r.key === params.get('pick')),
      )}
      rowHeight={34}
      onAt={(_, r) => set({ pick: r?.key ?? null })}
      sort={sort}
      onSort={(s) => set(sortChanges(s))}
      empty="No picks yet."
    />
  )
}

const shownRivals = 8

const own: Column<Row>[] = [
  {
    key: 'text',
    head: 'Pick',
    width: 'minmax(150px,1fr)',
    words: true,
    value: (r) => r.text,
    cell: (r) => (
      <>
        {r.text}
        {r.lacks && <small className="mark ml-2">only theirs</small>}
      </>
    ),
  },
]

const usual = ['volume']

function holdersOf(data: Rivals): Column<Row>[] {
  const holder = (id: number, head: string, title: string): Column<Row> => {
    const of = (r: Row) => r.held.holders.find((h) => h.rival === id)
    return {
      key: `h${id}`,
      head,
      title,
      width: 'minmax(64px,0.35fr)',
      value: (r) => of(r)?.grip ?? 0,
      cell: (r) => {
        const held = of(r)
        if (!held) return <span className="sr-only">No match</span>
        const where = held.field ?? 'several fields'
        return <Thread grade={held.grade} title={`${gradeWords[held.grade]} in ${where}, grip ${Math.round(held.grip * 100)}`} />
      },
    }
  }
  return [
    holder(0, 'Yours', 'Your listing'),
    ...data.rivals.slice(0, shownRivals).map((r) => holder(r.id, nameOf(r), `${nameOf(r)}: ${r.title}`)),
  ]
}
