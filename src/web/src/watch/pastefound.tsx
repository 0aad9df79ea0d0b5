import { Dialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { useKept, useSaving } from '../kit/saving'
import { pressed } from '../kit/shortcuts'

/** What somebody found by searching themselves, one term a line. */
export function PasteFound(p: {
  listingId: number
  /** Gives the problem, or null. */
  add: (file: Blob, name: string) => Promise<string | null>
  close: () => void
}) {
  const { add, close } = p
  const [text, setText, clear] = useKept(`found ${p.listingId}`, '')
  const saving = useSaving(() => {
    clear()
    close()
  })
  const save = () => {
    if (!text.trim()) return saving.setProblem(messages.noTerms)
    // A comma or a tab between the term and what was found; the last of several commas.
    const lines = text.split('\n').map((line) => (line.includes('\t') ? line : line.replace(/[,;]\s*([^,;]*)$/, '\t$1')))
    saving.save(() => add(new Blob([lines.join('\n')]), 'Pasted'))
  }
  return (
    <Dialog name="Type what you found" close={close}>
      <h2 className="text-[20px] font-bold mb-1">Type what you found</h2>
      <p className="quiet text-[14px] mb-2">
        One term a line, then its rank, or yes or no: <i>bird house, 12</i> or <i>nest box, no</i>. It counts as a check of today; for other
        days import a table with the columns term, rank and date.
      </p>
      <textarea
        className="slot w-full block"
        rows={9}
        maxLength={200_000}
        aria-label="Terms and what you found"
        data-first-focus=""
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => pressed(e, 'runImport') && save()}
      />
      {saving.problem && (
        <p className="text-accent text-[14px]" role="alert">
          {saving.problem}
        </p>
      )}
      <button type="button" className="btn btn-sm btn-primary mt-2" onClick={save}>
        Add check <Key of="runImport" plain />
      </button>
    </Dialog>
  )
}
