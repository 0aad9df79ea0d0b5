import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type ColumnRole, type ImportPart, type ImportView, messageOf, type TableLook } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { Menu } from '../kit/menu'
import { messages } from '../kit/messages'
import { compact, counted, dateTimeOf, full, money } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { lines } from '../kit/stream'

const roles: [ColumnRole, string][] = [
  ['ignore', 'Ignore'],
  ['term', 'Term'],
  ['volume', 'Searches/mo'],
  ['competition', 'Competing listings'],
  ['titlesHolding', 'Exact-title matches'],
  ['clickCost', 'CPC'],
  ['month', 'Searches in month…'],
]
const separators: [string, string][] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'vertical bar'],
]

/** Adds the terms of a file to the shelf: columns are guessed, shown with the first rows, corrected, then all is imported or nothing. */
export function Import({ desk, file, close }: { desk: Desk; file: File | null; close: (taken: boolean) => void }) {
  const [view, setView] = useState<ImportView | null>(null)
  const [source, setSource] = useState('')
  const [part, setPart] = useState<ImportPart | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState('')
  const running = useRef<AbortController>(undefined)
  const input = useRef<HTMLInputElement>(null)
  const cache = useQueryClient()
  const changes = useChanges()
  const path = { marketId: desk.market.id }
  const [rows, setRows] = useState<{ rows: number; more: boolean } | null>(null)
  const [id, separator, encoding] = [view?.id, view?.look.separator, view?.look.encoding]
  // The rows are counted beside everything else: a million takes a moment.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is counted depends on these alone
  useEffect(() => {
    setRows(null)
    if (!view) return
    let gone = false
    ask(
      api.POST('/api/markets/{marketId}/imports/{id}/rows', {
        params: { path: { ...path, id: view.id } },
        body: { look: view.look, encoding: null, separator: null },
      }),
    )
      .then((counted) => !gone && setRows(counted))
      .catch(() => undefined)
    return () => {
      gone = true
    }
  }, [id, separator, encoding])

  const begin = async (chosen: File) => {
    setError('')
    setPart(null)
    setBusy(`Reading ${chosen.name}…`)
    try {
      const response = await fetch(`/api/markets/${desk.market.id}/imports?name=${encodeURIComponent(chosen.name)}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: chosen,
      })
      const answer = await response.json()
      if (!response.ok) throw new Error(messageOf(answer, response.status))
      setView(answer)
      setSource(chosen.name.replace(/\.\w+$/, ''))
    } catch (e) {
      setError(messages.notImported((e as Error).message))
    }
    setBusy('')
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: a file that was dropped is read at once
  useEffect(() => {
    if (file) begin(file)
  }, [file])

  const look = async (change: Partial<TableLook>, again = false) => {
    if (!view) return
    setError('')
    const body = again
      ? { look: null, encoding: change.encoding ?? view.look.encoding, separator: change.separator ?? view.look.separator }
      : { look: { ...view.look, ...change }, encoding: null, separator: null }
    try {
      setView(await ask(api.POST('/api/markets/{marketId}/imports/{id}/look', { params: { path: { ...path, id: view.id } }, body })))
    } catch (e) {
      // What was chosen stays in sight beside what is wrong with it.
      if (!again) setView({ ...view, look: { ...view.look, ...change } as TableLook })
      setError((e as Error).message)
    }
  }
  const role = (i: number, to: ColumnRole) =>
    view &&
    look({
      columns: view.look.columns.map((c, k) => ({
        ...c,
        role: k === i ? to : to !== 'month' && to !== 'ignore' && c.role === to ? 'ignore' : c.role,
      })),
    })

  const run = async () => {
    if (!view || part?.doing) return
    setError('')
    const controller = new AbortController()
    running.current = controller
    try {
      const url = `/api/markets/${desk.market.id}/imports/${view.id}/run`
      for await (const p of lines<ImportPart>(url, { look: view.look, source }, controller.signal)) setPart(p)
      await refresh(cache, 'numbers')
    } catch (e) {
      setPart(null)
      setError(controller.signal.aborted ? messages.importStopped : messages.notImported((e as Error).message))
    }
  }
  const stop = () => running.current?.abort()
  const undoImport = (id: number) =>
    changes.run(
      async () => {
        const { what } = await ask(api.POST('/api/markets/{marketId}/imports/{import}/undo', { params: { path: { ...path, import: id } } }))
        return { what: what ? messages.undone(what) : messages.nothingToUndo }
      },
      () => refresh(cache, 'numbers'),
    )
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
          <div className="flex flex-wrap gap-x-5 gap-y-1 text-[13.5px] my-2 items-center">
            {view.look.separator !== '' && (
              <>
                <label>
                  Delimiter{' '}
                  <select className="inline-input" value={view.look.separator} onChange={(e) => look({ separator: e.target.value }, true)}>
                    {separators.map(([s, name]) => (
                      <option key={s} value={s}>
                        {name}
                      </option>
                    ))}
                  </select>
                </label>
                <label>
                  Encoding{' '}
                  <select className="inline-input" value={view.look.encoding} onChange={(e) => look({ encoding: e.target.value }, true)}>
                    {['utf-8', 'utf-16', 'utf-16BE', 'windows-1252'].map((c) => (
                      <option key={c}>{c}</option>
                    ))}
                  </select>
                </label>
              </>
            )}
            <label>
              Number format{' '}
              <select
                className="inline-input"
                value={view.look.style}
                onChange={(e) => look({ style: e.target.value as 'point' | 'comma' })}
              >
                <option value="point">1,300.50</option>
                <option value="comma">1.300,50</option>
              </select>
            </label>
            <label className="inline-flex gap-1.5 items-center">
              <input
                type="checkbox"
                className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
                checked={view.look.hasHead}
                onChange={(e) => look({ hasHead: e.target.checked })}
              />
              First row is a header
            </label>
            <label>
              Source name <input className="inline-input w-36" value={source} onChange={(e) => setSource(e.target.value)} />
            </label>
          </div>
          <div className="overflow-x-auto border border-base-300 rounded">
            <table className="plain looks">
              <thead>
                <tr>
                  <th className="r">Row</th>
                  {view.look.columns.map((c, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
                    <th key={i} className={c.role === 'ignore' ? 'quiet' : ''}>
                      <select
                        className={`text-[13px] cursor-pointer bg-transparent ${c.role === 'ignore' ? '' : 'font-semibold text-primary'}`}
                        aria-label={`Column ${i + 1}`}
                        value={c.role}
                        onChange={(e) => role(i, e.target.value as ColumnRole)}
                      >
                        {roles.map(([r, name]) => (
                          <option key={r} value={r}>
                            {name}
                          </option>
                        ))}
                      </select>
                      {c.role === 'month' && (
                        <input
                          className="inline-input num w-20 ml-1"
                          aria-label={`Month of column ${i + 1}`}
                          placeholder="2025-01"
                          defaultValue={c.month ?? ''}
                          onBlur={(e) =>
                            look({ columns: view.look.columns.map((k, n) => (n === i ? { ...k, month: e.target.value } : k)) })
                          }
                        />
                      )}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {view.rows.map((cells, y) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the rows of a file have only their number
                  <tr key={y} className={y === 0 && view.look.hasHead ? 'font-semibold' : ''}>
                    <td className="r num quiet">{y + 1}</td>
                    {view.look.columns.map((c, x) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
                      <td key={x} className={`whitespace-nowrap max-w-64 truncate ${c.role === 'ignore' ? 'quiet' : ''}`}>
                        {cells[x]}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="sub">Preview</div>
          <ul className="text-[13.5px]" data-testid="read-as">
            {view.terms.slice(0, 4).map((t) => (
              <li key={t.row}>
                <b>{t.text}</b>{' '}
                <span className="quiet">
                  {[
                    t.volume === null ? 'no search data' : `${full(t.volume)} searches/mo`,
                    t.competition === null ? null : counted(t.competition, 'competing listing'),
                    t.titlesHolding === null ? null : counted(t.titlesHolding, 'exact-title match', 'exact-title matches'),
                    t.clickCost === null ? null : `CPC ${money(t.clickCost, desk.market.currency)}`,
                    t.months === null
                      ? null
                      : `${t.months.length} months, ${compact(Math.min(...t.months))} to ${compact(Math.max(...t.months))}`,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
              </li>
            ))}
            {view.bad.map((b) => (
              <li key={b.row} className="text-accent">
                Row {b.row}: {b.reason}
              </li>
            ))}
          </ul>
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
                <a className="link" href={`/api/markets/${desk.market.id}/imports/${view?.id}/bad.csv`}>
                  Download the skipped rows
                </a>
              </p>
            </>
          )}
          <p className="flex gap-2">
            <button type="button" autoFocus className="btn btn-sm btn-primary" onClick={() => close(true)}>
              Show the shelf
            </button>
            <button type="button" className="btn btn-sm" onClick={() => input.current?.click()}>
              Another file <Key of="chooseFile" />
            </button>
            {count.new + count.changed > 0 && (
              <button type="button" className="btn btn-sm" onClick={() => undoImport(count.id).then(() => setPart(null))}>
                Undo this import
              </button>
            )}
          </p>
        </div>
      )}
      {!view && <Imports desk={desk} undo={undoImport} />}
    </section>
  )
}

/** The imports of this market, each with its name, and undone as a whole. */
function Imports({ desk, undo }: { desk: Desk; undo: (id: number) => Promise<void> }) {
  const [naming, setNaming] = useState<{ id: number; source: string } | null>(null)
  const { run } = useChanges()
  const path = { marketId: desk.market.id }
  const imports = useQuery({
    queryKey: queryKey('imports', desk.market.id),
    queryFn: () => ask(api.GET('/api/markets/{marketId}/imports', { params: { path } })),
  }).data
  if (!imports || imports.length === 0) return null
  return (
    <div className="mt-6 max-w-2xl" data-testid="imports">
      <h2 className="sub">Earlier imports</h2>
      <table className="plain">
        <tbody>
          {imports.map((i) => (
            <tr key={i.id}>
              <td>{i.source}</td>
              <td className="r">{counted(i.rows, 'term')}</td>
              <td className="r quiet">{dateTimeOf(i.at)}</td>
              <td className="r">
                <Menu
                  label={`Import “${i.source}”`}
                  items={[
                    { label: 'Rename…', run: () => setNaming(i) },
                    { label: 'Undo the import', run: () => undo(i.id) },
                  ]}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {naming && (
        <NameDialog
          title="Rename import"
          label="Source name"
          value={naming.source}
          action="Rename"
          done={(name) =>
            run(() =>
              ask(
                api.PUT('/api/markets/{marketId}/imports/{import}/source', {
                  params: { path: { ...path, import: naming.id } },
                  body: { name },
                }),
              ),
            )
          }
          close={() => setNaming(null)}
        />
      )}
    </div>
  )
}
