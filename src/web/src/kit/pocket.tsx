import { useState } from 'react'
import { useNavigate } from 'react-router'
import { compact, full } from './numbers'
import { type Place, usePickActions, usePicks, useWeighing } from './shop'
import { Thread } from './thread'

/** The product's picks, on every screen: each with its thread in the listing and its searches a month. */
export function Pocket({ place }: { place: Place }) {
  const picks = usePicks(place).data?.picks
  const weighing = useWeighing(place).data
  const actions = usePickActions(place)
  const navigate = useNavigate()
  const [folded, setFolded] = useState(localStorage.getItem('pocket') === 'folded')
  const [filter, setFilter] = useState('')
  const grades = new Map(weighing?.terms.map((t) => [t.key, t.grade]))
  const shown = picks?.filter((p) => p.home !== 'avoid' && p.text.toLowerCase().includes(filter.toLowerCase()))
  const count = picks?.filter((p) => p.home !== 'avoid').length
  const fold = () => {
    localStorage.setItem('pocket', folded ? '' : 'folded')
    setFolded(!folded)
  }
  return (
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
      <button type="button" className="head font-semibold text-[13px] whitespace-nowrap cursor-pointer" onClick={fold} aria-expanded={!folded} title={folded ? 'Show the picks' : 'Fold the pocket'}>
        Pocket {count ?? ''} <span className="quiet">{folded ? '▴' : '▾'}</span>
      </button>
      {!folded && (
        <>
          <div className="labels">
            {shown?.map((p) => (
              <button
                type="button"
                key={p.key}
                className="label-chip"
                title={`${full(p.numbers.volume)} searches a month. ${p.home === 'later' ? 'Kept for later. ' : ''}Opens it in Pick`}
                onClick={() => navigate(`${place.base}/pick?at=${encodeURIComponent(p.key)}`)}
              >
                <Thread grade={grades.get(p.key)} width={26} />
                {p.text}
                <span className="num text-[12px] quiet">{compact(p.numbers.volume)}</span>
              </button>
            ))}
            {count === 0 && <span className="quiet text-[13.5px] self-center">Empty. Pick a term with P, or drop one here; it stays in sight while you write.</span>}
          </div>
          {(count ?? 0) > 8 && (
            <input className="inline-input w-28" placeholder="Filter picks" aria-label="Filter picks" value={filter} onChange={(e) => setFilter(e.target.value)} />
          )}
        </>
      )}
    </footer>
  )
}
