import { useRef } from 'react'
import { Key } from '../kit/key'
import { counted, full } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { Imported } from './imported'
import { ImportLook } from './importlook'
import { Imports } from './imports'
import { useImport } from './useimport'

/** Adds the terms of a file to the shelf: columns are guessed, shown with the first rows, corrected, then all is imported or nothing. */
export function Import({ desk, file, close }: { desk: Desk; file: File | null; close: (taken: boolean) => void }) {
  const draft = useImport(desk, file)
  const { view, part, error, busy, rows, begin, run, stop, undoImport } = draft
  const input = useRef<HTMLInputElement>(null)
  useShortcuts({
    close: () => (part?.doing ? stop() : close(false)),
    runImport: run,
    chooseFile: () => input.current?.click(),
  })

  const count = part?.count
  return (
    <section className="sheet" data-testid="import">
      <h1 className="text-[20px] font-bold mb-1">
        {view ? `Import ${view.name}` : 'Add terms from a file'}{' '}
        <small className="quiet text-[14px] font-normal font-sans">
          to the shelf of {desk.market.platformName}, {desk.market.countryName}
        </small>
      </h1>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,.xlsx"
        className="hidden"
        aria-label="File"
        onChange={(e) => e.target.files?.[0] && begin(e.target.files[0])}
      />
      {!view && (
        <>
          <p className="quiet mb-3 max-w-[64ch]">
            CSV or XLSX from any source, up to a million rows: a column of terms and any numbers beside it. You see how it is read before
            anything is imported.
          </p>
          <p className="flex gap-2">
            <button type="button" autoFocus className="btn btn-sm btn-primary" onClick={() => input.current?.click()}>
              Choose a file <Key of="chooseFile" plain />
            </button>
            <button type="button" className="btn btn-sm" onClick={() => close(false)}>
              Cancel <kbd>Esc</kbd>
            </button>
            <span className="quiet self-center text-[13.5px]">or drop it here</span>
          </p>
        </>
      )}
      {busy && <p className="quiet mt-3">{busy}</p>}
      {error && (
        <p className="text-accent my-2" role="alert">
          {error}
        </p>
      )}
      {view && !count && (
        <>
          <ImportLook draft={draft} view={view} currency={desk.market.currency} />
          {part?.doing ? (
            <p className="flex gap-3 items-center mt-4" role="status">
              <progress className="progress progress-primary w-56" value={part.share} max={1} aria-label="How far" />
              {part.doing}: {full(part.read)}
              {part.bad > 0 ? `, ${full(part.bad)} skipped` : ''}
              <button type="button" className="link" onClick={stop}>
                Stop <kbd>Esc</kbd>
              </button>
            </p>
          ) : (
            <p className="flex gap-2 mt-4">
              <button type="button" className="btn btn-sm btn-primary" disabled={error !== ''} onClick={run}>
                {rows === null
                  ? 'Import'
                  : `Import ${rows.more ? 'more than ' : ''}${counted(rows.rows - (view.look.hasHead ? 1 : 0), 'row')}`}{' '}
                <Key of="runImport" plain />
              </button>
              <button type="button" className="btn btn-sm" onClick={() => input.current?.click()}>
                Another file <Key of="chooseFile" />
              </button>
              <button type="button" className="btn btn-sm" onClick={() => close(false)}>
                Cancel <kbd>Esc</kbd>
              </button>
            </p>
          )}
        </>
      )}
      {part?.problem && (
        <p className="text-accent my-2" role="alert">
          {part.problem}
        </p>
      )}
      {count && part && (
        <Imported desk={desk} draft={draft} part={part} count={count} close={close} choose={() => input.current?.click()} />
      )}
      {!view && <Imports desk={desk} undo={undoImport} />}
    </section>
  )
}
