import { useRef } from 'react'
import type { Pick } from '../kit/api'
import { Key } from '../kit/key'
import { useNote } from '../kit/note'
import { Num } from '../kit/num'
import { full, withoutData } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import type { Row } from './rows'

/** The market has no data for a term: what to do next. */
export function NoTerm({ term, paste, importFile }: { term: string; paste: () => void; importFile: () => void }) {
  return (
    <div data-testid="no-term">
      <p className="mb-2">No market data for “{term}”. Paste your own numbers, import a file, or try a broader term.</p>
      <p className="flex gap-2">
        <button type="button" className="btn btn-sm" onClick={paste}>
          Paste terms <Key of="paste" />
        </button>
        <button type="button" className="btn btn-sm" onClick={importFile}>
          Import a file <Key of="importFile" />
        </button>
      </p>
    </div>
  )
}

export function Marked({
  rows,
  pick,
  avoid,
  queries,
  none,
}: {
  rows: Row[]
  pick: () => void
  avoid: () => void
  queries: () => void
  none: () => void
}) {
  const volume = rows.reduce((sum, r) => sum + (r.numbers.volume ?? 0), 0)
  const unknown = rows.filter((r) => r.numbers.volume === null).length
  return (
    <div data-testid="marked">
      <h3>{rows.length} selected</h3>
      <p className="quiet text-[13.5px]">
        {full(volume)} searches/mo in all{withoutData(unknown)}.
      </p>
      <p className="flex flex-wrap gap-2 my-3">
        <button type="button" className="pill" onClick={pick}>
          Pick all <Key of="pick" />
        </button>
        <button type="button" className="pill" onClick={avoid}>
          Avoid all <Key of="avoid" />
        </button>
        <button type="button" className="pill" onClick={queries}>
          Copy exact-title searches <Key of="titleQueries" />
        </button>
        <button type="button" className="pill" onClick={none}>
          Clear selection <kbd>Esc</kbd>
        </button>
      </p>
      <ul className="text-[13.5px]">
        {rows.slice(0, 40).map((r) => (
          <li key={r.key} className="flex justify-between gap-3 border-b border-base-300 py-0.5">
            <span className="truncate" title={r.text}>
              {r.text}
            </span>
            <Num value={r.numbers.volume} unit="searches/mo" />
          </li>
        ))}
      </ul>
    </div>
  )
}

export function WhyAvoid({ productId, pick }: { productId: number; pick: Pick }) {
  const { text, setText, leave, state } = useNote(productId, pick)
  const box = useRef<HTMLInputElement>(null)
  useShortcuts({ reason: () => box.current?.focus() })
  return (
    <div>
      <label className="block mt-2 text-[13px]">
        <span className="quiet">
          Reason (all texts of the shop are checked for it) <Key of="reason" />
        </span>
        <input
          ref={box}
          className="inline-input w-full"
          placeholder="e.g. a trademark, or not true of it"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={leave}
          onKeyDown={(e) => (e.key === 'Enter' || e.key === 'Escape') && e.currentTarget.blur()}
        />
      </label>
      {state}
    </div>
  )
}
