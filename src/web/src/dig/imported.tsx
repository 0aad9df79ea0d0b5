import type { ImportPart } from '../kit/api'
import { Key } from '../kit/key'
import { counted, full } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import type { ImportDraft } from './useimport'

/** How an import ended: what was added, what was skipped and why. */
export function Imported({
  desk,
  draft,
  part,
  count,
  close,
  choose,
}: {
  desk: Desk
  draft: ImportDraft
  part: ImportPart
  count: NonNullable<ImportPart['count']>
  close: (imported: boolean) => void
  choose: () => void
}) {
  return (
    <div data-testid="imported">
      <p className="mb-2 text-[16px]">
        {count.new + count.changed === 0
          ? 'No changes: already imported.'
          : `${counted(count.new, 'term')} added${count.changed > 0 ? `, ${full(count.changed)} updated (history kept)` : ''}.`}
      </p>
      <p className="quiet text-[13.5px] mb-3">
        {[
          count.same > 0 ? `${counted(count.same, 'term')} unchanged` : null,
          count.repeated > 0 ? `${counted(count.repeated, 'row')} skipped because an earlier row has the same term` : null,
          part.bounds > 0 ? `${counted(part.bounds, 'range')} such as < 10 imported as no data` : null,
          part.bad > 0 ? `${counted(part.bad, 'row')} skipped; download them below to fix them` : 'Every row was read',
        ]
          .filter(Boolean)
          .join('. ')}
        .
      </p>
      {part.badRows && part.badRows.length > 0 && (
        <>
          <table className="plain max-w-2xl mb-2">
            <tbody>
              {part.badRows.slice(0, 12).map((b) => (
                <tr key={b.row}>
                  <td className="num">Row {b.row}</td>
                  <td>{b.reason}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mb-3">
            <a className="link" href={`/api/markets/${desk.market.id}/imports/${draft.view?.id}/bad.csv`}>
              Download the skipped rows
            </a>
          </p>
        </>
      )}
      <p className="flex gap-2">
        <button type="button" autoFocus className="btn btn-sm btn-primary" onClick={() => close(true)}>
          Show the shelf
        </button>
        <button type="button" className="btn btn-sm" onClick={() => choose()}>
          Another file <Key of="chooseFile" />
        </button>
        {count.new + count.changed > 0 && (
          <button type="button" className="btn btn-sm" onClick={() => draft.undoThis(count.id)}>
            Undo this import
          </button>
        )}
      </p>
    </div>
  )
}
