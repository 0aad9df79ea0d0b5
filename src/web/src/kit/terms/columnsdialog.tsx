import { useState } from 'react'
import { api, ask } from '../api'
import { useChanges } from '../changes'
import { Dialog } from '../dialog'
import { useSaved } from '../saved'
import { headOf } from '../table'
import type { TermLine } from './line'
import type { TermColumns } from './termtable'

/** Which columns a table of terms shows, and sets of them under a name. */
export function ColumnsDialog<T extends TermLine>({ columns, close }: { columns: TermColumns<T>; close: () => void }) {
  const { all, chosen, choose } = columns
  const [name, setName] = useState('')
  const { run } = useChanges()
  const saved = useSaved()
  const turn = (key: string) => choose(all.map((c) => c.key).filter((k) => (k === key ? !chosen.includes(key) : chosen.includes(k))))
  const save = async () => {
    const wanted = name.trim()
    if (!wanted) return
    await saved.saveColumns(wanted, chosen)
    setName('')
  }
  return (
    <Dialog name="Columns" close={close} width={560}>
      <h2 className="text-[18px] font-bold mb-2">Columns</h2>
      <div className="grid grid-cols-2 gap-x-6 gap-y-1 text-[14px]">
        {all.map((c, i) => (
          <label key={c.key} className="flex gap-2 items-baseline cursor-pointer" title={c.title}>
            <input
              type="checkbox"
              className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
              data-first-focus={i === 0 || undefined}
              checked={chosen.includes(c.key)}
              onChange={() => turn(c.key)}
            />
            {headOf(c)}
          </label>
        ))}
      </div>
      {saved.sets.length > 0 && (
        <>
          <h3 className="text-[14px] font-semibold mt-4 mb-1">Saved sets</h3>
          <ul className="text-[14px]">
            {saved.sets.map((s) => (
              <li key={s.id} className="flex gap-3">
                <button type="button" className="link" onClick={() => choose(s.keys)}>
                  {s.name}
                </button>
                <button
                  type="button"
                  className="link quiet"
                  aria-label={`Delete the set “${s.name}”`}
                  onClick={() => run(() => ask(api.DELETE('/api/filters/{id}', { params: { path: { id: s.id } } })))}
                >
                  Delete
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <form
        className="flex gap-2 items-center mt-4 text-[14px]"
        onSubmit={(e) => {
          e.preventDefault()
          save()
        }}
      >
        <input
          className="inline-input w-52"
          aria-label="Name of the set"
          placeholder="Save these as a set…"
          maxLength={60}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <button type="submit" className="pill" disabled={!name.trim()}>
          Save
        </button>
        <button type="button" className="link ml-auto" onClick={() => choose(null)}>
          The usual columns
        </button>
      </form>
    </Dialog>
  )
}
