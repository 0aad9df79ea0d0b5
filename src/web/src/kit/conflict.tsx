import { timeOf } from './numbers'

/**
 * Two windows changed the same text. Both are shown, and nothing is overwritten until the seller chooses.
 */
export function ConflictBox({
  what,
  savedAt,
  rows,
  keepMine,
  takeTheirs,
}: {
  what: string
  savedAt: string | null
  rows: { label: string; mine: string; theirs: string }[]
  keepMine: () => void
  takeTheirs: () => void
}) {
  const differ = rows.filter((r) => r.mine !== r.theirs)
  return (
    <div className="border border-accent rounded-md p-3 mb-3 text-[14px]" role="alert" data-testid="conflict">
      <b>{what} was changed in another window</b>
      {savedAt && ` at ${timeOf(savedAt)}`}. Nothing was overwritten. Your text here is safe until you choose.
      <table className="plain mt-2">
        <thead>
          <tr>
            <th className="w-28">Field</th>
            <th>This window</th>
            <th>Other window</th>
          </tr>
        </thead>
        <tbody>
          {differ.map((r) => (
            <tr key={r.label}>
              <td>{r.label}</td>
              <td className="pr-4">{r.mine || '(empty)'}</td>
              <td>{r.theirs || '(empty)'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 flex gap-2">
        <button type="button" className="btn btn-sm btn-primary" onClick={keepMine}>
          Keep this window’s text
        </button>
        <button type="button" className="btn btn-sm" onClick={takeTheirs}>
          Use the other window’s text
        </button>
      </p>
    </div>
  )
}
