import { useQuery } from '@tanstack/react-query'
import { api, ask, type Copy } from '../kit/api'
import { Num } from '../kit/num'
import { fixed } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { Walked } from '../kit/walked'
import { TermTable } from './termtable'

/** Every known term that the title contains, and those that it would contain in a better order. */
export function Reading({ desk, text, copy, put }: { desk: Desk; text: string; copy: () => Copy; put: (text: string) => void }) {
  const read = useQuery({
    queryKey: queryKey('reading', desk.listingId, desk.market.id, text),
    enabled: text.trim() !== '',
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/read', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, text, fields: copy() },
        }),
      ),
    placeholderData: (before) => before,
  }).data
  const empty = text.trim() === ''
  const measured = read?.holds.filter((t) => t.volume !== null) ?? []
  const unmeasured = read?.holds.filter((t) => t.volume === null) ?? []
  return (
    <Walked
      name="Reading"
      testid="reading"
      rows={read?.could ?? []}
      id={(c) => c.term.text}
      on={{ Enter: (c) => c.text && put(c.text) }}
      focus
      before={
        empty ? (
          <p>The title is empty. Once you write one, every known term it contains appears here.</p>
        ) : !read ? (
          <p className="quiet">Reading…</p>
        ) : (
          <>
            <h3 className="!mt-0">The title contains</h3>
            {read.holds.length === 0 && <p className="quiet">No known terms.</p>}
            <TermTable terms={measured.map((t) => ({ ...t, about: t.band ? `${t.band} competition` : '' }))} />
            {unmeasured.length > 0 && <p className="quiet text-[13px] mt-1">No data: {unmeasured.map((t) => t.text).join(', ')}.</p>}
            <h3>Better orders</h3>
            {read.could.length === 0 ? (
              <p className="quiet">No order of these words gains more.</p>
            ) : (
              <p className="quiet text-[13px] mb-1">
                <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>Enter</kbd> uses the order, <kbd>Esc</kbd> goes back to the text.
              </p>
            )}
          </>
        )
      }
      row={(c) => (
        <div className="flex items-baseline gap-3 text-[14px]">
          <span className="min-w-0 flex-1">
            {c.term.text}
            {c.text && <small className="quiet block">{c.text}</small>}
          </span>
          {c.text && (
            <button type="button" className="link whitespace-nowrap" onClick={() => put(c.text as string)}>
              Use this order{c.gain === null || c.gain < 0.05 ? '' : ` (+${fixed(c.gain, 1)} grip)`}
            </button>
          )}
          <Num value={c.term.volume} unit="searches/mo" />
        </div>
      )}
    />
  )
}
