import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, ask, type Copy, type Listing, type Move, type Value } from '../kit/api'
import { Difference } from '../kit/difference'
import type { DraftView } from '../kit/drafts/draft'
import type { ListingSteps } from '../kit/drafts/steps'
import { HelpLink } from '../kit/helplink'
import { LeftOutPicks } from '../kit/leftout'
import { messages } from '../kit/messages'
import { counted, fixed } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { Walked } from '../kit/walked'
import { NewFindings } from './newfindings'

const shownAtFirst = 12

type Row = Move & { others: number; under: boolean }

/** The single edits that raise the listing's grip, the greatest gain first: one key applies, and one takes it back. */
export function Moves(p: { desk: Desk; listing: Listing; saving: DraftView<Copy>; steps: ListingSteps }) {
  const { desk, listing } = p
  const [at, setAt] = useState(0)
  const [all, setAll] = useState(false)
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const found = useQuery({
    queryKey: queryKey('moves', desk.listingId, desk.market.id, listing.copy),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/listings/{id}/moves', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: listing.copy },
          signal,
        }),
      ),
    placeholderData: (before) => before,
  })
  // Moves that exclude each other are one row, the best of them; the others are under it where it is open.
  const moves = [...Map.groupBy(found.data?.moves ?? [], (m) => m.slot).values()].flatMap(([best, ...others]): Row[] => [
    { ...best, others: others.length, under: false },
    ...(open.has(best.slot) ? others.map((m) => ({ ...m, others: 0, under: true })) : []),
  ])
  const shown = all ? moves : moves.slice(0, shownAtFirst)
  const unfold = (m: Row) => {
    if (m.others === 0) return
    const next = new Set(open)
    if (!next.delete(m.slot)) next.add(m.slot)
    setOpen(next)
  }
  // A list that is being made again shows moves of the text before: none of them is applied to another text.
  const isOld = found.isPlaceholderData
  const apply = (move: Move) => isOld || p.steps.replaceField(move.field, move.value as Value, messages.moved(move.sentence), 'move')
  return (
    <Walked
      name="Moves"
      testid="moves"
      rows={shown}
      id={(m) => `${m.kind} ${m.field} ${m.pick} ${m.after} ${m.text}`}
      at={at}
      onAt={setAt}
      on={{ Enter: apply, ' ': unfold }}
      focus
      before={
        <>
          <p className="quiet text-[13px]">
            Single edits, each with its exact effect on grip. All keep the limits, your avoid list and the facts.{' '}
            <HelpLink to="moves" about="moves" />
          </p>
          {found.isPending && <p className="quiet mt-2">Working…</p>}
          {found.isError && (
            <p className="text-accent" role="alert">
              {found.error.message}
            </p>
          )}
          {found.data && moves.length === 0 && (
            <p className="mt-2">
              No single edit raises the grip.{' '}
              <Link className="link" to={`${desk.base}/dig`}>
                Search for more terms in Dig
              </Link>
              , or fill a field anew in Write.
            </p>
          )}
          {moves.length > 0 && (
            <p className="quiet text-[13px] mb-1">
              <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>Enter</kbd> applies, <kbd>Space</kbd> shows what else is possible in the same place,{' '}
              <kbd>U</kbd> undoes.
            </p>
          )}
          {p.saving.state !== 'saved' && p.saving.message && (
            <p className="text-accent text-[13px]" role="alert">
              {p.saving.message}
            </p>
          )}
        </>
      }
      row={(m, i) => (
        <div className={`${isOld ? 'opacity-60' : ''} ${m.under ? 'pl-6' : ''}`} data-testid="move">
          <p className="flex gap-3 items-baseline">
            <b className="num text-[16px] w-[52px] shrink-0 text-right" title="Gain in grip">
              +{fixed(m.gain, 1)}
            </b>
            <span className="leading-snug">{m.sentence}</span>
          </p>
          <p className="quiet text-[13px] pl-[64px]">
            {m.others > 0 && (
              <button type="button" className="link mr-2" aria-expanded={open.has(m.slot)} onClick={() => unfold(m)}>
                {open.has(m.slot) ? 'Hide' : `or ${counted(m.others, 'other')} in its place`}
              </button>
            )}
            {m.reach > 0.05 && <>reach +{fixed(m.reach, 1)}% </>}
            {m.loses.length > 0 && (
              <span className="text-accent">
                loses{' '}
                {m.loses
                  .slice(0, 3)
                  .map((l) => `“${l}”`)
                  .join(', ')}
                {m.loses.length > 3 && ` and ${m.loses.length - 3} more`}
              </span>
            )}
          </p>
          {i === at && (
            <div className="pl-[64px]">
              {m.kind !== 'attribute' && (
                <p className="text-[13.5px] leading-snug my-1">
                  <Difference before={m.before} after={m.after} />
                </p>
              )}
              {!isOld && <NewFindings desk={desk} copy={listing.copy as Copy} move={m} />}
              <button type="button" className="btn btn-sm my-1" disabled={isOld} onClick={() => apply(m)}>
                Apply <kbd>Enter</kbd>
              </button>
            </div>
          )}
        </div>
      )}
      after={
        <>
          {moves.length > shown.length && (
            <button type="button" className="link mt-2" onClick={() => setAll(true)}>
              Show {counted(moves.length - shown.length, 'more move')}
            </button>
          )}
          {found.data && <LeftOutPicks desk={desk} leftOut={found.data.leftOut} changed={() => found.refetch()} />}
        </>
      }
    />
  )
}
