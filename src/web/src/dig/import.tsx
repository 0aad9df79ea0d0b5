import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type ColumnRole, type ImportPart, type ImportView, type TableLook } from '../kit/api'
import { useKeys } from '../kit/keys'
import { compact, counted, full } from '../kit/numbers'
import type { Place } from '../kit/shop'
import { lines } from '../kit/stream'

const roles: [ColumnRole, string][] = [
  ['ignore', 'leave out'],
  ['term', 'the term'],
  ['volume', 'searches a month'],
  ['competition', 'listings'],
  ['titlesHolding', 'titles holding it'],
  ['clickCost', 'click cost'],
  ['month', 'searches in a month'],
]
const separators: [string, string][] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'bar'],
]

/** A table from anywhere joins the shelf: guessed, shown with its first rows, corrected, then taken whole or not at all. */
export function Import({ place, file, close }: { place: Place; file: File | null; close: (taken: boolean) => void }) {
  const [view, setView] = useState<ImportView | null>(null)
  const [source, setSource] = useState('')
  const [part, setPart] = useState<ImportPart | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState('')
  const running = useRef<AbortController>(undefined)
  const input = useRef<HTMLInputElement>(null)
  const cache = useQueryClient()
  const path = { marketId: place.market.id }

  const begin = async (chosen: File) => {
    setError('')
    setPart(null)
    setBusy(`Reading ${chosen.name}…`)
    try {
      const response = await fetch(`/api/markets/${place.market.id}/imports?name=${encodeURIComponent(chosen.name)}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: chosen,
      })
      const answer = await response.json()
      if (!response.ok) throw new Error(answer.detail ?? answer.title)
      setView(answer)
      setSource(chosen.name.replace(/\.\w+$/, ''))
    } catch (e) {
      setError(`${(e as Error).message} Nothing was taken.`)
    }
    setBusy('')
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: a file that was dropped is read at once
  useEffect(() => {
    if (file) begin(file)
  }, [file])

  const look = async (change: Partial<TableLook> | { encoding?: string; separator?: string }, again = false) => {
    if (!view) return
    setError('')
    const body = again
      ? { look: null, encoding: view.look.encoding, separator: view.look.separator, ...change }
      : { look: { ...view.look, ...change }, encoding: null, separator: null }
    try {
      setView(
        await ask(
          api.POST('/api/markets/{marketId}/imports/{id}/look', { params: { path: { ...path, id: view.id } }, body: body as never }),
        ),
      )
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
      const url = `/api/markets/${place.market.id}/imports/${view.id}/run`
      for await (const p of lines<ImportPart>(url, { look: view.look, source }, controller.signal)) setPart(p)
      await Promise.all(
        ['shelf', 'dig', 'term', 'picks', 'weigh', 'grid', 'alike'].map((key) => cache.invalidateQueries({ queryKey: [key] })),
      )
    } catch (e) {
      setPart(null)
      setError(
        controller.signal.aborted ? 'Stopped. Nothing was taken; the shelf is as it was.' : `${(e as Error).message} Nothing was taken.`,
      )
    }
  }
  const stop = () => running.current?.abort()
  useKeys({
    Escape: () => (part?.doing ? stop() : close(false)),
    'Ctrl+Enter': run,
    o: () => input.current?.click(),
  })

  const count = part?.count
  return (
    <section className="sheet" data-testid="import">
      <h1 className="text-[20px] font-bold mb-1">
        {view ? `Import ${view.name}` : 'Import a table of terms'}{' '}
        <small className="quiet text-[14px] font-normal font-sans">
          onto the shelf of {place.market.platformName}, {place.market.countryName}
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
            CSV or XLSX from anywhere, up to a million rows: a column of terms, and whatever numbers stand beside it. How it is written is
            guessed and shown to you first.
          </p>
          <p className="flex gap-2">
            <button type="button" className="btn btn-sm btn-primary" onClick={() => input.current?.click()}>
              Choose a file <kbd className="!text-inherit !bg-transparent">O</kbd>
            </button>
            <button type="button" className="btn btn-sm" onClick={() => close(false)}>
              Back <kbd>Esc</kbd>
            </button>
            <span className="quiet self-center text-[13.5px]">or drop it anywhere here</span>
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
                  Cells are apart by{' '}
                  <select className="inline-input" value={view.look.separator} onChange={(e) => look({ separator: e.target.value }, true)}>
                    {separators.map(([s, name]) => (
                      <option key={s} value={s}>
                        {name}
                      </option>
                    ))}
                  </select>
                </label>
                <label>
                  Letters are{' '}
                  <select className="inline-input" value={view.look.encoding} onChange={(e) => look({ encoding: e.target.value }, true)}>
                    {['utf-8', 'utf-16', 'utf-16BE', 'windows-1252'].map((c) => (
                      <option key={c}>{c}</option>
                    ))}
                  </select>
                </label>
              </>
            )}
            <label>
              Numbers are like{' '}
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
              The first row names the columns
            </label>
            <label>
              Say they are from <input className="inline-input w-36" value={source} onChange={(e) => setSource(e.target.value)} />
            </label>
          </div>
          <div className="overflow-x-auto border border-base-300 rounded">
            <table className="plain looks">
              <thead>
                <tr>
                  <th className="r">row</th>
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
          <div className="sub">Read as</div>
          <ul className="text-[13.5px]" data-testid="read-as">
            {view.terms.slice(0, 4).map((t) => (
              <li key={t.row}>
                <b>{t.text}</b>{' '}
                <span className="quiet">
                  {[
                    `${t.volume === null ? 'searches unknown' : `${full(t.volume)} searches a month`}`,
                    t.competition === null ? null : `${full(t.competition)} listings`,
                    t.titlesHolding === null ? null : `${full(t.titlesHolding)} titles`,
                    t.clickCost === null ? null : `click cost ${t.clickCost}`,
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
              {part.bad > 0 ? `, ${full(part.bad)} not taken` : ''}
              <button type="button" className="link" onClick={stop}>
                Stop <kbd>Esc</kbd>
              </button>
            </p>
          ) : (
            <p className="flex gap-2 mt-4">
              <button type="button" className="btn btn-sm btn-primary" disabled={error !== ''} onClick={run}>
                Put on the shelf <kbd className="!text-inherit !bg-transparent">Ctrl Enter</kbd>
              </button>
              <button type="button" className="btn btn-sm" onClick={() => input.current?.click()}>
                Another file <kbd>O</kbd>
              </button>
              <button type="button" className="btn btn-sm" onClick={() => close(false)}>
                Back <kbd>Esc</kbd>
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
              ? 'The shelf knew all of it: nothing changed.'
              : `${counted(count.new, 'new term')}${count.changed > 0 ? `, ${full(count.changed)} known with new numbers; the old ones are kept` : ''}.`}
          </p>
          <p className="quiet text-[13.5px] mb-3">
            {[
              count.same > 0 ? `${full(count.same)} were known with the same numbers` : null,
              count.repeated > 0 ? `${full(count.repeated)} rows repeat a term of an earlier row, which counts` : null,
              part.bounds > 0
                ? `${full(part.bounds)} ${part.bounds === 1 ? 'cell gives only a bound, such as < 10, and stays' : 'cells give only a bound, such as < 10, and stay'} unknown`
                : null,
              part.bad > 0 ? `${counted(part.bad, 'row')} could not be taken` : 'Every row could be read',
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
                <a className="link" href={`/api/markets/${place.market.id}/imports/${view?.id}/bad.csv`}>
                  Download the rows that were not taken
                </a>
              </p>
            </>
          )}
          <p className="flex gap-2">
            <button type="button" autoFocus className="btn btn-sm btn-primary" onClick={() => close(true)}>
              See the shelf
            </button>
            <button type="button" className="btn btn-sm" onClick={() => input.current?.click()}>
              Another file <kbd>O</kbd>
            </button>
          </p>
        </div>
      )}
    </section>
  )
}
