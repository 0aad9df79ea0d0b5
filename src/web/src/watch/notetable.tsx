import type { ReactNode } from 'react'
import { useAddress } from '../kit/address'
import type { Note } from '../kit/api'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'

/** Notes in the order that the address remembers, and the one that it names; the first where it names none. */
export function useNoteRows(notes: Note[], columns: Column<Note>[]) {
  const [params] = useAddress()
  const rows = sortRows(notes, columns, sortIn(params, { key: 'day', down: true }))
  const at = Math.max(
    0,
    rows.findIndex((n) => String(n.id) === params.get('at')),
  )
  return { rows, at, note: rows[at] as Note | undefined }
}

/** Change notes as a table. */
export function NoteTable(p: { name: string; rows: Note[]; at: number; columns: Column<Note>[]; empty: ReactNode }) {
  const [params, set] = useAddress()
  return (
    <Table
      name={p.name}
      rows={p.rows}
      columns={p.columns}
      id={(n) => String(n.id)}
      at={p.rows.length > 0 ? p.at : -1}
      rowHeight={34}
      onAt={(_, n) => set({ at: n ? String(n.id) : null })}
      sort={sortIn(params, { key: 'day', down: true })}
      onSort={(s) => set(sortChanges(s))}
      empty={p.empty}
    />
  )
}
