import { useMemo } from 'react'
import { useAddress } from '../kit/address'
import type { HeldTerm, PickWeight, Rivals, Weighing } from '../kit/api'
import { Num } from '../kit/num'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { gradeWords, Thread } from '../kit/thread'
import { nameOf } from './names'

type Row = { term: PickWeight; held: HeldTerm; lacks: boolean }

/** For each pick: who holds it, how, and in which field; what rivals hold and the listing lacks comes first. */
export function HeldTerms({ data, weighing }: { data: Rivals; weighing: Weighing }) {
  const [params, set] = useAddress()
  const columns = useMemo(() => columnsOf(data), [data])
  const rows = useMemo(() => {
    const byKey = new Map(weighing.terms.map((t) => [t.key, t]))
    return data.terms
      .flatMap((held): Row[] => {
        const term = byKey.get(held.key)
        return term ? [{ term, held, lacks: held.holders.length > 0 && !held.holders.some((h) => h.rival === 0) }] : []
      })
      .sort((a, b) => Number(b.lacks) - Number(a.lacks) || (b.term.worth ?? 0) - (a.term.worth ?? 0))
  }, [data, weighing])
  const sort = sortIn(params)
  const sorted = sortRows(rows, columns, sort)
  return (
    <Table
      name="Who holds what"
      rows={sorted}
      columns={columns}
      id={(r) => r.term.key}
      at={Math.max(
        0,
        sorted.findIndex((r) => r.term.key === params.get('pick')),
      )}
      rowHeight={34}
      onAt={(_, r) => set({ pick: r?.term.key ?? null })}
      sort={sort}
      onSort={(s) => set(sortChanges(s))}
      empty="No picks yet."
    />
  )
}

const shownRivals = 8

function columnsOf(data: Rivals): Column<Row>[] {
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
    {
      key: 'text',
      head: 'Pick',
      width: 'minmax(150px,1fr)',
      words: true,
      value: (r) => r.term.text,
      cell: (r) => (
        <>
          {r.term.text}
          {r.lacks && <small className="mark ml-2">only theirs</small>}
        </>
      ),
    },
    {
      key: 'volume',
      head: 'Searches/mo',
      width: '86px',
      right: true,
      value: (r) => r.term.volume,
      cell: (r) => <Num value={r.term.volume} unit="searches/mo" />,
    },
    holder(0, 'Yours', 'Your listing'),
    ...data.rivals.slice(0, shownRivals).map((r) => holder(r.id, nameOf(r), `${nameOf(r)}: ${r.title}`)),
  ]
}
