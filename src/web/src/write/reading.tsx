import { useQuery } from '@tanstack/react-query'
import { api, ask, type Copy, type Schemas } from '../kit/api'
import { Key } from '../kit/key'
import { Num } from '../kit/num'
import { counted, fixed } from '../kit/numbers'
import { usePickActions, usePicks } from '../kit/picks'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { Walked } from '../kit/walked'
import { mixText } from './mix'

type Row = Schemas['CouldHold'] & { isHeld: boolean; isFirst: boolean }

/** Every term of the market that the title contains, and those that it would contain in a better order; each can be picked. */
export function Reading({ desk, text, copy, put }: { desk: Desk; text: string; copy: () => Copy; put: (text: string) => void }) {
  const actions = usePickActions(desk)
  const picked = new Map(usePicks(desk).data?.picks.map((p) => [p.key, p]))
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
  const rows: Row[] = [
    ...(read?.holds ?? []).map((term, i) => ({ term, text: null, gain: null, isHeld: true, isFirst: i === 0 })),
    ...(read?.could ?? []).map((c, i) => ({ ...c, isHeld: false, isFirst: i === 0 })),
  ]
  const pick = (r: Row) => actions.toggle(r.term.text, picked.get(r.term.text), 'title', 'Read in the title')
  return (
    <Walked
      name="Reading"
      testid="reading"
      rows={rows}
      id={(r) => `${r.isHeld} ${r.term.text}`}
      on={{ Enter: (r) => r.text && put(r.text), p: pick }}
      focus
      before={
        empty ? (
          <p>The title is empty. Once you write one, every term of it that the market knows appears here.</p>
        ) : !read ? (
          <p className="quiet">Reading…</p>
        ) : (
          <>
            <p data-testid="mix">
              <b>{counted(read.holds.length, 'known term')} in the title.</b> Competition: {mixText(read.mix)}.
            </p>
            {rows.length > 0 && (
              <p className="quiet text-[13px] mb-1">
                <kbd>↑</kbd> <kbd>↓</kbd> move, <Key of="pick" /> picks, <kbd>Enter</kbd> uses a better order, <kbd>Esc</kbd> goes back to
                the text.
              </p>
            )}
          </>
        )
      }
      row={(r) => (
        <>
          {!r.isHeld && r.isFirst && <h3>Better orders</h3>}
          <div className="flex items-baseline gap-3 text-[14px]">
            <span className="min-w-0 flex-1">
              {r.term.text}
              {r.term.band && <small className="quiet"> {r.term.band} competition</small>}
              {r.text && <small className="quiet block">{r.text}</small>}
            </span>
            {r.text && (
              <button type="button" className="link whitespace-nowrap" onClick={() => put(r.text as string)}>
                Use this order{r.gain === null || r.gain < 0.05 ? '' : ` (+${fixed(r.gain, 1)} grip)`}
              </button>
            )}
            <button
              type="button"
              className="link"
              aria-label={`${picked.has(r.term.text) ? 'Picked' : 'Pick'} “${r.term.text}”`}
              onClick={() => pick(r)}
            >
              {picked.has(r.term.text) ? 'Picked' : 'Pick'}
            </button>
            <Num value={r.term.volume} unit="searches/mo" />
          </div>
        </>
      )}
      after={
        read &&
        !empty &&
        read.could.length === 0 && (
          <p className="quiet mt-2">
            {read.holds.length === 0 ? 'The market knows no term of this title.' : 'No order of these words gains more.'}
          </p>
        )
      }
    />
  )
}
