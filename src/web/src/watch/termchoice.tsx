import { memo } from 'react'
import type { History } from '../kit/api'
import { Num } from '../kit/num'

const MostLines = 5

/** Which terms are drawn, with the rank of each on the day that is read out. It may be hundreds: drawn anew only when the day changes. */
export const TermChoice = memo(function TermChoice({
  terms,
  chosen,
  at,
  choose,
}: {
  terms: History['terms']
  chosen: number[]
  at: number
  choose: (terms: number[]) => void
}) {
  return (
    <>
      <h3>Ranks</h3>
      <p className="quiet text-[13.5px] mb-1">Choose up to {MostLines} terms to draw.</p>
      <ul className="text-[14px]">
        {terms.map((t) => (
          <li key={t.id} className="flex gap-2 items-baseline">
            <label className="flex gap-2 items-baseline min-w-0 flex-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs relative top-0.5"
                checked={chosen.includes(t.id)}
                disabled={!chosen.includes(t.id) && chosen.length >= MostLines}
                onChange={(e) => choose(e.target.checked ? [...chosen, t.id] : chosen.filter((id) => id !== t.id))}
              />
              <span className="truncate" title={t.text}>
                {t.text}
              </span>
            </label>
            <span className="num">{t.ranks[at] === 0 ? 'Not found' : <Num value={t.ranks[at]} unit="rank" />}</span>
          </li>
        ))}
      </ul>
    </>
  )
})
