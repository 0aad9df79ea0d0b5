import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { useChanges } from '../kit/changes'
import { counted } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'

type Step = { id: number; text: string; parentId: number | null; picked: number }

/** The searches made, each under the one it came from, with how many picks came from it. */
export function Trail({
  desk,
  here,
  go,
  above,
}: {
  desk: Desk
  here: number | undefined
  go: (text: string, parent: number | null) => void
  above?: React.ReactNode
}) {
  const steps =
    useQuery({
      queryKey: queryKey('trail', desk.product.id, desk.market.id),
      queryFn: () =>
        ask(api.GET('/api/products/{id}/trail/{marketId}', { params: { path: { id: desk.product.id, marketId: desk.market.id } } })),
    }).data ?? []
  const { run } = useChanges()
  const inside = (parent: number | null): Step[] => steps.filter((s) => s.parentId === parent)
  const list = (parent: number | null) => {
    const children = inside(parent)
    return children.length === 0 ? null : (
      <ul className={parent === null ? '' : 'ml-1 pl-3 border-l-2 border-(--tin-2)'}>
        {children.map((s) => (
          <li key={s.id} className="trail-step">
            <button
              type="button"
              className={`text-left cursor-pointer ${s.id === here ? 'font-semibold text-secondary' : ''}`}
              onClick={() => go(s.text, s.parentId)}
            >
              {s.text}
              {s.picked > 0 && (
                <small className="num quiet ml-1.5" title={counted(s.picked, 'pick')}>
                  {s.picked}
                </small>
              )}
            </button>
            <button
              type="button"
              className="trail-delete"
              title="Delete from the trail"
              aria-label={`Delete “${s.text}” from the trail`}
              onClick={() =>
                run(() => ask(api.DELETE('/api/products/{id}/trail/{stepId}', { params: { path: { id: desk.product.id, stepId: s.id } } })))
              }
            >
              ×
            </button>
            {list(s.id)}
          </li>
        ))}
      </ul>
    )
  }
  return (
    <nav className="overflow-auto border-r border-base-300 p-4 text-[14px]" aria-label="Trail">
      {above}
      <h2 className="text-[14px] font-semibold mb-1">Trail</h2>
      {list(null) ?? <p className="quiet text-[13px]">Your searches appear here, each under the one it came from.</p>}
      {steps.some((s) => s.picked > 0) && <p className="quiet text-[13px] mt-3">Numbers: picks from each search.</p>}
    </nav>
  )
}
