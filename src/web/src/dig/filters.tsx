import type { RefObject } from 'react'
import type { Changes } from '../kit/address'
import { Key } from '../kit/key'
import { counted } from '../kit/numbers'
import { FilterBoxes } from '../kit/terms/filterboxes'

/** Filters of Dig’s table, and export of what is shown. */
export function Filters({
  marketId,
  params,
  set,
  box,
  passing,
  out,
  copyQueries,
  views,
}: {
  marketId: string
  params: URLSearchParams
  set: (changes: Changes) => void
  box: RefObject<HTMLInputElement | null>
  passing: number
  out: (format: 'csv' | 'xlsx') => void
  copyQueries: () => void
  /** The choice between table, grid and scatter. */
  views: React.ReactNode
}) {
  return (
    <div className="flex flex-wrap gap-x-2 gap-y-1 items-center text-[13px]">
      <FilterBoxes marketId={marketId} params={params} set={set} box={box} />
      <span className="w-full inline-flex flex-wrap gap-x-3 items-center mt-0.5">
        {views}
        <span className="quiet" data-testid="passing">
          {counted(passing, 'term')}
        </span>
        <button type="button" className="link ml-auto" title="Export the terms shown as CSV" onClick={() => out('csv')}>
          Export CSV
        </button>
        <button type="button" className="link" title="Export the terms shown as XLSX" onClick={() => out('xlsx')}>
          XLSX
        </button>
        <button
          type="button"
          className="link"
          title="Copies one search per term that finds pages with the exact phrase in their title, to check elsewhere"
          onClick={copyQueries}
        >
          Copy exact-title searches <Key of="titleQueries" />
        </button>
      </span>
    </div>
  )
}
