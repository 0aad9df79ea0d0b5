import type { ReactNode } from 'react'

/** A view with its head, and beside it what it says of the current row, or another panel in its place. */
export function ViewFrame(p: {
  name: string
  head: ReactNode
  top: ReactNode
  children: ReactNode
  side: ReactNode
  /** The names of the panels beside the view, where there are several. */
  tabs?: ReactNode
  /** Another panel, where it is chosen. */
  moves?: ReactNode
}) {
  return (
    <>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid={p.name}>
        {p.head}
        <div className="mb-2">{p.top}</div>
        {p.children}
      </section>
      <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: p.tabs ? 'auto minmax(0,1fr)' : 'minmax(0,1fr)' }}>
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
