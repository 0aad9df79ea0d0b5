import { useQuery } from '@tanstack/react-query'
import { api, ask, type Copy } from '../kit/api'
import { compact, full } from '../kit/numbers'
import type { Place } from '../kit/shop'
import { Walked } from '../kit/walked'
import { TermTable } from './termtable'

/** Every known term that the title holds, and those it would hold in another order: one click puts it so. */
export function Reading({ place, text, copy, put }: { place: Place; text: string; copy: () => Copy; put: (text: string) => void }) {
  const read = useQuery({
    queryKey: ['read', place.listingId, place.market.id, text],
    enabled: text.trim() !== '',
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/read', {
          params: { path: { id: place.listingId } },
          body: { marketId: place.market.id, text, fields: copy() as never },
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
          <p>The title is empty. What stands there will be read against every term that is known here.</p>
        ) : !read ? (
          <p className="quiet">Reading…</p>
        ) : (
          <>
            <h3 className="!mt-0">The title holds</h3>
            {read.holds.length === 0 && <p className="quiet">No term that is known here.</p>}
            <TermTable terms={measured.map((t) => ({ ...t, about: t.band ? `${t.band} competition` : '' }))} />
            {unmeasured.length > 0 && (
              <p className="quiet text-[13px] mt-1">Of unknown volume: {unmeasured.map((t) => t.text).join(', ')}.</p>
            )}
            <h3>In another order it would hold</h3>
            {read.could.length === 0 ? (
              <p className="quiet">None more: its words are in a good order.</p>
            ) : (
              <p className="quiet text-[13px] mb-1">
                <kbd>↑</kbd> <kbd>↓</kbd> walk, <kbd>Enter</kbd> puts the words so, <kbd>Esc</kbd> back to writing.
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
              Put it so{c.gain === null || Math.abs(c.gain) < 0.05 ? '' : ` (${c.gain > 0 ? '+' : '−'}${Math.abs(c.gain).toFixed(1)} grip)`}
            </button>
          )}
          <span className="num" title={full(c.term.volume)}>
            {compact(c.term.volume)}
          </span>
        </div>
      )}
    />
  )
}
