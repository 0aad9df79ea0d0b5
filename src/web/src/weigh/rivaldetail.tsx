import { useEffect, useRef, useState } from 'react'
import type { Passing, Rival } from '../kit/api'
import { api, ask, type Copy } from '../kit/api'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted, dateOf, fixed, full, money } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import type { ViewProps } from './frame'
import { nameOf } from './names'

const shownPicks = 8

/** A rival beside the listing: what only one of them holds, what changed, and the moves that pass it. */
export function RivalDetail(p: ViewProps & { rival: Rival; read: () => void; remove: () => void; update: () => void }) {
  const { desk, listing, rival, weighing } = p
  const [pass, setPass] = useState<{ copy: unknown; found: Passing | 'working' | { problem: string } } | null>(null)
  // Whoever looks at another rival stops the search for this one.
  const stop = useRef<AbortController>(null)
  useEffect(() => () => stop.current?.abort(), [])
  const look = async () => {
    setPass({ copy: listing.copy, found: 'working' })
    const control = new AbortController()
    stop.current = control
    try {
      const found = await ask(
        api.POST('/api/listings/{id}/rivals/{rivalId}/pass', {
          params: { path: { id: desk.listingId, rivalId: rival.id } },
          body: { marketId: desk.market.id, fields: listing.copy },
          signal: control.signal,
        }),
      )
      setPass({ copy: listing.copy, found })
    } catch (e) {
      if (control.signal.aborted) return
      setPass({ copy: listing.copy, found: { problem: (e as Error).message } })
    }
  }
  // Moves that were found for another text are not shown for this one.
  const found = pass?.copy === listing.copy ? pass?.found : undefined
  const isAhead = rival.grip >= weighing.grip
  const apply = () => {
    if (!found || found === 'working' || 'problem' in found || found.moves.length === 0) return
    p.steps.replace(found.fields as Copy, messages.passed(found.moves.length, nameOf(rival)), 'moves')
  }
  useShortcuts({ passRival: isAhead && (found && found !== 'working' ? apply : look) })
  const text = (key: string) => weighing.terms.find((t) => t.key === key)
  const picks = (keys: string[], none: string) =>
    keys.length === 0 ? (
      <p className="quiet text-[14px]">{none}</p>
    ) : (
      <ul className="text-[14px]">
        {keys.slice(0, shownPicks).map((key) => (
          <li key={key} className="flex justify-between gap-3">
            <span>{text(key)?.text ?? key}</span>
            <span className="num quiet">{full(text(key)?.volume)}</span>
          </li>
        ))}
        {keys.length > shownPicks && <li className="quiet">and {full(keys.length - shownPicks)} more</li>}
      </ul>
    )
  return (
    <>
      <h3 className="!mt-0">{nameOf(rival)}</h3>
      <p className="text-[14px] leading-snug">{rival.title}</p>
      <p className="quiet text-[13px] mt-1">
        {rival.source}, saved {dateOf(rival.savedAt)}, last seen {dateOf(rival.seenAt)}. Known:{' '}
        {rival.seen.join(', ').toLowerCase() || 'nothing'}; what it has in other fields would add to its grip.
      </p>
      <p className="text-[14px] mt-1">
        {money(rival.state.price ?? null, desk.market.currency)}
        {rival.state.rating != null && `, ${fixed(rival.state.rating, 1)} stars`}
        {rival.state.ratings != null && `, ${counted(rival.state.ratings, 'rating')}`}
        {rival.state.sales != null && `, ${counted(rival.state.sales, 'sale')}/mo`}
        {rival.state.occupancy != null && `, ${fixed(rival.state.occupancy * 100, 0)}% of nights taken`}
      </p>

      {isAhead && (
        <>
          <h3>To pass it</h3>
          {found === undefined && (
            <p>
              <button type="button" className="btn btn-sm btn-primary" onClick={look}>
                Find the moves <Key of="passRival" plain />
              </button>
            </p>
          )}
          {found === 'working' && <p className="quiet text-[14px]">Weighing moves…</p>}
          {found && found !== 'working' && 'problem' in found && <p role="alert">{found.problem}</p>}
          {found && found !== 'working' && 'moves' in found && (
            <div data-testid="pass">
              <p className="text-[14px]">
                {found.passes
                  ? `${counted(found.moves.length, 'move')}: grip ${fixed(weighing.grip, 0)} → ${fixed(found.grip, 0)}, past its ${fixed(found.rivalGrip, 0)}.`
                  : found.moves.length === 0
                    ? 'No single edit raises the grip, so no move passes it.'
                    : `Not enough: ${counted(found.moves.length, 'move')} would bring grip to ${fixed(found.grip, 0)}, and it has ${fixed(found.rivalGrip, 0)}.`}
              </p>
              <ol className="text-[14px] list-decimal pl-5 my-1">
                {found.moves.map((m) => (
                  <li key={`${m.kind} ${m.field} ${m.text} ${m.after}`}>
                    {m.sentence} <span className="num quiet">+{fixed(m.gain, 1)}</span>
                    {m.loses.length > 0 && <span className="text-accent"> loses “{m.loses.join('”, “')}”</span>}
                  </li>
                ))}
              </ol>
              {found.moves.length > 0 && (
                <p>
                  <button type="button" className="btn btn-sm btn-primary" onClick={apply}>
                    Apply {found.moves.length === 1 ? 'it' : `all ${found.moves.length}`} <Key of="passRival" plain />
                  </button>
                </p>
              )}
              <p className="quiet text-[12.5px] mt-1">Each is the best at its time; another order might need fewer.</p>
            </div>
          )}
        </>
      )}

      <p className="mt-2">
        <button type="button" className="pill" onClick={p.read}>
          Its text and terms <kbd>Enter</kbd>
        </button>
      </p>
      <h3>It holds, and yours doesn’t</h3>
      {picks(rival.onlyTheirs, 'Nothing: yours holds every pick that it holds.')}
      <h3>Only yours holds</h3>
      {picks(rival.onlyMine, 'Nothing.')}
      <h3>Changed since you saved it</h3>
      {rival.changes.length === 0 ? (
        <p className="quiet text-[14px]">Nothing so far.</p>
      ) : (
        <table className="plain">
          <tbody>
            {rival.changes.map((c) => (
              <tr key={c.what}>
                <td className="quiet whitespace-nowrap pr-2">{c.what}</td>
                <td>
                  {c.before && <del>{c.before}</del>} <ins>{c.after}</ins>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="flex gap-2 mt-3">
        {!rival.isFromMarket && (
          <button type="button" className="btn btn-sm" onClick={p.update}>
            Paste its newer text…
          </button>
        )}
        <button type="button" className="btn btn-sm" onClick={p.remove}>
          Remove rival <Key of="removeRival" />
        </button>
      </p>
    </>
  )
}
