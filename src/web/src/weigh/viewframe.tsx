import type { ReactNode } from 'react'
import type { ViewProps } from './frame'

/** A view with its head, and the panel beside it: the moves, or what the view says of the current row. */
export function ViewFrame(
  p: Pick<ViewProps, 'head' | 'tabs' | 'moves'> & { name: string; top: ReactNode; children: ReactNode; side: ReactNode },
) {
  return (
    <>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid={p.name}>
        {p.head}
        <div className="mb-2">{p.top}</div>
        {p.children}
      </section>
      <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
        {p.tabs}
        {p.moves || (
          <div className="side-part" data-testid={`${p.name}-detail`}>
            {p.side}
          </div>
        )}
      </aside>
    </>
  )
}

/** A share of a whole as a small bar with its number. */
export function Bar({ value, of = 100, shown, mine }: { value: number; of?: number; shown: string; mine?: boolean }) {
  return (
    <span className="inline-flex items-center gap-2 w-full">
      <span className="flex-1 h-2 bg-base-300 rounded-sm overflow-hidden" aria-hidden="true">
        <span
          className="block h-full"
          style={{
            width: `${Math.min(100, (value / of) * 100)}%`,
            background: mine ? 'var(--color-primary)' : 'var(--color-base-content)',
          }}
        />
      </span>
      <span className="num w-[4ch] text-right">{shown}</span>
    </span>
  )
}
