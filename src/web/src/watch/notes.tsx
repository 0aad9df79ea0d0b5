import { useState } from 'react'
import { Link } from 'react-router'
import type { Note } from '../kit/api'
import { Key } from '../kit/key'
import { counted, full } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import { ViewFrame } from '../kit/viewframe'
import type { ViewProps } from './frame'
import { noteColumns } from './notecolumns'
import { NoteDetail } from './notedetail'
import { NoteDialog } from './notedialog'
import { NoteTable, useNoteRows } from './notetable'
import { useNotes } from './usenotes'

const columns = noteColumns(false)

/** Every change of the listing, and whether it helped. */
export function NotesView({ desk, watch, head }: ViewProps) {
  const notes = useNotes(desk)
  const [editing, setEditing] = useState<Note | 'new' | null>(null)
  const { rows, at, note } = useNoteRows(notes.query.data?.notes ?? [], columns)
  useShortcuts({ addNote: () => setEditing('new'), deleteNote: note && (() => notes.remove(note.id)) })
  const views = rows.flatMap((n) => n.effects.filter((e) => e.measure === 'views'))
  const helped = views.filter((e) => e.verdict === 'up').length
  const hurt = views.filter((e) => e.verdict === 'down').length
  const top = (
    <>
      <h1 className="text-[24px] font-bold leading-tight">
        {counted(notes.query.data?.all ?? 0, 'change')}
        {helped + hurt > 0 && (
          <span className="font-normal text-[17px]">
            {': '}
            {[helped > 0 && `${full(helped)} helped`, hurt > 0 && `${full(hurt)} hurt`].filter(Boolean).join(', ')}
          </span>
        )}
      </h1>
      <p className="quiet text-[13.5px]">
        Every text that goes live adds a note. Add one for what you change elsewhere: the price, photos, a promotion. Where other listings
        were left alone, what shoppers searched for meanwhile is taken off, so a busy season doesn’t count as your success.
      </p>
      <div className="flex gap-2 mt-2">
        <button type="button" className="pill" onClick={() => setEditing('new')}>
          Add a note <Key of="addNote" />
        </button>
        {note && (
          <>
            <button type="button" className="pill" onClick={() => setEditing(note)}>
              Edit
            </button>
            <button type="button" className="pill" onClick={() => notes.remove(note.id)}>
              Delete
            </button>
          </>
        )}
        <Link className="pill ml-auto" to="/watch?view=journal">
          Journal of the whole shop
        </Link>
      </div>
    </>
  )
  return (
    <>
      <ViewFrame name="notes" head={head} top={top} side={note && <NoteDetail note={note} nights={watch.nights} />}>
        <NoteTable
          name="Changes"
          rows={rows}
          at={at}
          columns={columns}
          empty={
            <span>
              <b className="block">No change is noted yet</b>
              <span className="quiet">Send the listing, or add a note of what you changed.</span>
            </span>
          }
        />
      </ViewFrame>
      {editing && (
        <NoteDialog
          name={editing === 'new' ? `note of ${desk.listingId}` : `note ${editing.id} ${editing.revision}`}
          note={editing === 'new' ? undefined : editing}
          today={watch.now.slice(0, 10)}
          product={desk.product.name}
          platform={desk.market.platformName}
          save={(n) => (editing === 'new' ? notes.add(n) : notes.save(editing.id, editing.revision, n))}
          close={() => setEditing(null)}
        />
      )}
    </>
  )
}
