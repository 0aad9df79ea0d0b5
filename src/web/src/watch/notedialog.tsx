import type { Note, NoteKind } from '../kit/api'
import { Dialog } from '../kit/dialog'
import { useKept, useSaving } from '../kit/saving'
import { kindNames } from './names'
import type { NewNote } from './usenotes'

/** A change note that the seller writes or edits. */
export function NoteDialog({
  name,
  note,
  today,
  product,
  platform,
  save,
  close,
}: {
  /** What it is kept as when it is closed without saving. */
  name: string
  /** The note that is edited; a new one where undefined. */
  note?: Note
  /** The day in the market's time. */
  today: string
  product: string
  platform: string
  /** Gives the problem, or null. */
  save: (note: NewNote) => Promise<string | null>
  close: () => void
}) {
  const [typed, setTyped, clear] = useKept<NewNote>(name, {
    text: note?.text ?? '',
    kinds: note?.kinds ?? [],
    day: note?.at.slice(0, 10) ?? today,
    about: 'listing',
    term: note?.term ?? '',
  })
  const { text, kinds, day, about, term } = typed
  const change = (what: Partial<NewNote>) => setTyped({ ...typed, ...what })
  const saving = useSaving(() => {
    clear()
    close()
  })
  const done = () => {
    if (!text.trim() && kinds.length === 0) return saving.setProblem('Say what was changed.')
    if (!day) return saving.setProblem('Enter the day of the change.')
    saving.save(() => save({ ...typed, term: term.trim() }))
  }
  return (
    <Dialog name={note ? 'Edit the note' : 'Add a change note'} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          done()
        }}
      >
        <h2 className="text-[20px] font-bold mb-2">{note ? 'Edit the note' : 'Add a change note'}</h2>
        <label className="block text-[14px] mb-2">
          What was changed
          <input
            className="input input-sm w-full mt-1"
            maxLength={2000}
            data-first-focus=""
            value={text}
            placeholder="Raised the price from $22 to $24"
            onChange={(e) => change({ text: e.target.value })}
          />
        </label>
        {!note?.isAutomatic && (
          <>
            <fieldset className="flex flex-wrap gap-1 mb-2">
              <legend className="text-[14px] mb-1">Kind, to compare it with others of its kind</legend>
              {(Object.keys(kindNames) as NoteKind[]).map((k) => (
                <button
                  key={k}
                  type="button"
                  className="choice"
                  aria-pressed={kinds.includes(k)}
                  onClick={() => change({ kinds: kinds.includes(k) ? kinds.filter((x) => x !== k) : [...kinds, k] })}
                >
                  {kindNames[k]}
                </button>
              ))}
            </fieldset>
            <div className="flex flex-wrap gap-4 text-[14px] mb-2">
              <label>
                Day{' '}
                <input
                  type="date"
                  className="input input-sm w-40"
                  value={day}
                  max={today}
                  onChange={(e) => change({ day: e.target.value })}
                />
              </label>
              {!note && (
                <>
                  <label>
                    About{' '}
                    <select
                      className="select select-sm w-64"
                      value={about}
                      onChange={(e) => change({ about: e.target.value as NewNote['about'] })}
                    >
                      <option value="listing">this listing on {platform}</option>
                      <option value="product">{product}, everywhere</option>
                      <option value="shop">the whole shop</option>
                    </select>
                  </label>
                  <label>
                    Term (optional){' '}
                    <input
                      className="input input-sm w-48"
                      maxLength={200}
                      value={term}
                      onChange={(e) => change({ term: e.target.value })}
                    />
                  </label>
                </>
              )}
            </div>
          </>
        )}
        {saving.problem && (
          <p className="text-accent text-[14px]" role="alert">
            {saving.problem}
          </p>
        )}
        <button type="submit" className="btn btn-sm btn-primary">
          Save
        </button>
      </form>
    </Dialog>
  )
}
