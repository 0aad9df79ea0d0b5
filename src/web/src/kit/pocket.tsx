import { memo, useCallback, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Grade, Pick } from './api'
import { Num } from './num'
import { full } from './numbers'
import { usePickActions, usePicks } from './picks'
import type { Desk } from './shop'
import { Thread } from './thread'
import { useWeighing } from './weighing'

// Labels beyond this are found by the filter, or in Pick.
const Most = 60

const Chip = memo(function Chip({ pick, grade, open }: { pick: Pick; grade: Grade | undefined; open: (key: string) => void }) {
  return (
    <button
      type="button"
      className="label-chip"
      title={`${pick.numbers.volume === null ? 'No data' : `${full(pick.numbers.volume)} searches/mo`}${pick.home === 'later' ? '; saved for later' : ''}. Open in Pick`}
      onClick={() => open(pick.key)}
    >
      <Thread grade={grade} width={26} />
      {pick.text}
      <span className="text-[12px] quiet">
        <Num value={pick.numbers.volume} unit="searches/mo" />
      </span>
    </button>
  )
})

/** The product's picks, on every screen: each with its thread in the listing and its searches/mo. */
export function Pocket({ desk }: { desk: Desk }) {
  const picks = usePicks(desk).data?.picks
  const weighing = useWeighing(desk)
  const actions = usePickActions(desk)
  const navigate = useNavigate()
  const [folded, setFolded] = useState(localStorage.getItem('pocket') === 'folded')
  const [filter, setFilter] = useState('')
  const open = useCallback((key: string) => navigate(`${desk.base}/pick?at=${encodeURIComponent(key)}`), [navigate, desk.base])
  const grades = new Map(weighing?.terms.map((t) => [t.key, t.grade]))
  const shown = picks?.filter((p) => p.home !== 'avoid' && p.text.toLowerCase().includes(filter.toLowerCase()))
  const count = picks?.filter((p) => p.home !== 'avoid').length
  const fold = () => {
    localStorage.setItem('pocket', folded ? '' : 'folded')
    setFolded(!folded)
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: what dropping here does, P does too
    <footer
      className={`pocket ${folded ? 'folded' : ''}`}
      data-testid="pocket"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const text = e.dataTransfer.getData('text/plain').trim()
        if (text) actions.change([text], { source: e.dataTransfer.getData('application/x-source') || 'dropped' })
      }}
    >
      <button
        type="button"
        className="head font-semibold text-[13px] whitespace-nowrap cursor-pointer"
        onClick={fold}
        aria-expanded={!folded}
        title={folded ? 'Show the pocket' : 'Hide the pocket'}
      >
        Pocket {count ?? ''} <span className="quiet">{folded ? '▴' : '▾'}</span>
      </button>
      {!folded && (
        <>
          <div className="labels">
            {shown?.slice(0, Most).map((p) => (
              <Chip key={p.key} pick={p} grade={grades.get(p.key)} open={open} />
            ))}
            {(shown?.length ?? 0) > Most && (
              <button type="button" className="link text-[13.5px]" onClick={() => navigate(`${desk.base}/pick`)}>
                and {(shown?.length ?? 0) - Most} more
              </button>
            )}
            {count === 0 && <span className="quiet text-[13.5px] self-center">No picks yet. Press P on a term, or drag one here.</span>}
          </div>
          {(count ?? 0) > 8 && (
            <input
              className="inline-input w-28"
              placeholder="Filter picks"
              aria-label="Filter picks"
              value={filter}
              onChange={(e) => setFilter(e.target.value)}
            />
          )}
        </>
      )}
    </footer>
  )
}
