import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { api, ask, type Copy, type Field, type Fill, opened, type PickWeight, type Room, type Value, type Weighing } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { Num } from '../kit/num'
import { counted, fixed, full } from '../kit/numbers'
import { type Desk, usePickActions, usePicks, useWeighing, weigh } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { toast } from '../kit/toast'
import { TermTable } from './termtable'

const points = (n: number) => fixed(Math.round(n * 10) / 10, 1)
const change = (from: number, to: number) => {
  const by = Math.round((to - from) * 10) / 10
  return by === 0 ? 'no change' : `${by > 0 ? '+' : '−'}${fixed(Math.abs(by), 1)}`
}

/** The value with only these pieces of what would be added. */
export function withPieces(field: Field, fill: Fill, chosen: boolean[]): Value {
  const kept = fill.pieces.filter((_, i) => chosen[i])
  if (field.shape === 'phrases') {
    const left = [...fill.pieces].filter((_, i) => !chosen[i])
    return (fill.value as string[]).filter((v) => {
      const at = left.indexOf(v)
      if (at >= 0) left.splice(at, 1)
      return at < 0
    })
  }
  // Separate words are added at the end of one text: the field's, or that of one item.
  const between = field.shape === 'words' ? ' ' : field.shape === 'line' ? field.separator : ', '
  const added = fill.pieces.join(between)
  const shorten = (text: string) => {
    const before = text.slice(0, text.length - added.length)
    return kept.length > 0 ? before + kept.join(between) : before.replace(/[,\s]+$/, '')
  }
  return Array.isArray(fill.value)
    ? (fill.value as string[]).map((t) => (t.endsWith(added) ? shorten(t) : t)).filter(Boolean)
    : shorten(fill.value as string)
}

/** A suggestion for a field: its new text, what that gains, how close to the best possible it is; used as a whole or in part. */
export function FillPanel({
  desk,
  field,
  copy,
  take,
  keepTake,
  close,
}: {
  desk: Desk
  field: Field
  copy: () => Copy
  take: (value: Value, what: string) => void
  keepTake: (text: string) => void
  close: () => void
}) {
  const [fill, setFill] = useState<Fill | null>(null)
  const [problem, setProblem] = useState('')
  const [chosen, setChosen] = useState<boolean[]>([])
  const [at, setAt] = useState(0)
  const [withIt, setWithIt] = useState<Weighing | null>(null)
  const cache = useQueryClient()
  const picks = usePicks(desk).data?.picks
  const before = useWeighing(desk)
  const box = useRef<HTMLElement>(null)
  // The text that it was made for: anything typed since would be lost.
  const made = useRef('')
  const [round, setRound] = useState(0)
  const now = () => JSON.stringify(copy()[field.key] ?? '')
  const path = useMemo(() => ({ id: desk.listingId, field: field.key }), [desk.listingId, field.key])

  // biome-ignore lint/correctness/useExhaustiveDependencies: made of the draft as it is when it is asked for
  useEffect(() => {
    let gone = false
    made.current = now()
    ask(api.POST('/api/listings/{id}/fill/{field}', { params: { path }, body: { marketId: desk.market.id, fields: copy() } }))
      .then((f) => {
        if (gone) return
        setFill(f)
        setChosen(f.pieces.map(() => true))
        setAt(0)
        setTimeout(() => box.current?.focus())
      })
      .catch((e: Error) => !gone && setProblem(e.message))
    return () => {
      gone = true
    }
  }, [path, round])

  const all = chosen.every(Boolean)
  const title = field.role === 'title' && field.shape === 'line'
  // The choice is weighed as it would be: what it gains and loses is read off that, and again when something else is written meanwhile.
  const value = useMemo(
    () => (!fill ? undefined : title ? fill.takes[at]?.text : all ? (fill.value as Value) : withPieces(field, fill, chosen)),
    [fill, title, at, all, field, chosen],
  )
  // biome-ignore lint/correctness/useExhaustiveDependencies: weighed again when what it is compared with changes
  useEffect(() => {
    if (value === undefined || !picks) return
    let gone = false
    weigh(cache, desk, { ...copy(), [field.key]: value })
      .then((w) => !gone && setWithIt(opened(w, picks)))
      .catch((e: Error) => !gone && setProblem(e.message))
    return () => {
      gone = true
    }
  }, [value, picks, field, desk, copy, cache, before])

  const accept = () => {
    if (value === undefined) return
    if (!title && now() !== made.current) {
      setRound(round + 1)
      return toast(messages.fillUpdated(field.label))
    }
    if (title || chosen.some(Boolean)) take(value, messages.filled(field.label))
    close()
  }
  const count = title ? (fill?.takes.length ?? 0) : (fill?.pieces.length ?? 0)
  const keys = (e: React.KeyboardEvent) => {
    // A focused button does its own thing.
    if ((e.key === 'Enter' || e.key === ' ') && (e.target as Element).closest('.btn')) return
    if (e.key === 'ArrowDown' || e.key === 'ArrowRight') setAt(Math.min(count - 1, at + 1))
    else if (e.key === 'ArrowUp' || e.key === 'ArrowLeft') setAt(Math.max(0, at - 1))
    else if (e.key === ' ' && !title) setChosen(chosen.map((c, i) => (i === at ? !c : c)))
    else if (e.key === 'Enter') accept()
    else if (e.key === 'k' && title && fill?.takes[at]) keepTake(fill.takes[at].text)
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  useShortcuts({ close })

  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: the list is walked by keys
    <section ref={box} tabIndex={0} className="side-part" onKeyDown={keys} aria-label="Fill" data-testid="fill">
      <h3 className="!mt-0">
        {title ? 'Suggested titles' : `Suggested for ${field.label}`} <HelpLink to="fill" about="a fill" />
      </h3>
      {problem && <p className="text-accent">{problem}</p>}
      {!fill && !problem && <p className="quiet">Working…</p>}
      {fill && count === 0 && (
        <>
          <p className="mb-3">
            {fill.note ?? (title ? 'No picks fit here. Pick some terms first.' : 'Nothing to add: no pick gains from the remaining space.')}
          </p>
          <button type="button" className="btn btn-sm" onClick={close}>
            Close <kbd>Esc</kbd>
          </button>
        </>
      )}
      {fill && count > 0 && (
        <>
          {withIt && before && (
            <p className="text-[14px] mb-2" data-testid="fill-effect">
              <b>Reach</b> {points(before.reach)} → {points(withIt.reach)}{' '}
              <span className="quiet">({change(before.reach, withIt.reach)})</span>, <b>grip</b> {points(before.grip)} →{' '}
              {points(withIt.grip)} <span className="quiet">({change(before.grip, withIt.grip)})</span>
            </p>
          )}
          {title
            ? fill.takes.map((t, i) => (
                // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
                // biome-ignore lint/a11y/noStaticElementInteractions: the list around it takes the keys
                <div key={t.text} className={`take ${i === at ? 'cursor' : ''}`} onClick={() => setAt(i)}>
                  <div className="font-semibold leading-snug">{t.text}</div>
                  <p className="quiet text-[13px]">
                    <span className="num">{fill.limit === null ? t.used : `${t.used} of ${fill.limit}`}</span>; grip{' '}
                    <span className="num">{points(t.grip)}</span>; {counted(t.whole.length, 'exact phrase')}
                  </p>
                </div>
              ))
            : null}
          {!title && (
            <div className="flex flex-wrap gap-1.5 mb-2">
              {fill.pieces.map((p, i) => (
                <button
                  // biome-ignore lint/suspicious/noArrayIndexKey: a piece is its place
                  key={i}
                  type="button"
                  tabIndex={-1}
                  aria-pressed={chosen[i]}
                  className={`choice ${i === at ? 'at' : ''} ${chosen[i] ? '' : 'struck'}`}
                  onClick={() => {
                    setAt(i)
                    setChosen(chosen.map((c, k) => (k === i ? !c : c)))
                  }}
                >
                  {p}
                </button>
              ))}
            </div>
          )}
          <p className="flex flex-wrap gap-2 my-3">
            <button type="button" className="btn btn-sm btn-primary" onClick={accept}>
              {title ? 'Use this title' : all ? 'Use all' : `Use ${chosen.filter(Boolean).length}`} <kbd>Enter</kbd>
            </button>
            {title && (
              <button type="button" className="btn btn-sm" onClick={() => fill.takes[at] && keepTake(fill.takes[at].text)}>
                Save as take <Key of="saveTake" />
              </button>
            )}
            <button type="button" className="btn btn-sm" onClick={close}>
              Cancel <kbd>Esc</kbd>
            </button>
          </p>
          {withIt && !title && <RoomUsed field={field} room={withIt.rooms[field.key]} />}
          {fill.gain !== null && fill.bound !== null && (
            <p
              className="text-[13.5px] mb-2"
              title="Searches/mo × fit of the picks gained, compared with an upper bound on any choice of words that fits"
            >
              {fill.bound > 0 ? (
                <>
                  <b>{fill.gain >= fill.bound * 0.99999 ? '100' : fixed(Math.floor((fill.gain / fill.bound) * 1000) / 10, 1)}%</b> of the
                  best possible ({full(Math.round(fill.gain))} of at most {full(Math.round(fill.bound))} searches/mo × fit)
                </>
              ) : (
                'No pick with search data is missing.'
              )}
            </p>
          )}
          {title && fill.takes[at] && (
            <>
              <h3>Exact phrases in it</h3>
              <p className="text-[14px]">{fill.takes[at].whole.join(', ') || 'none'}</p>
            </>
          )}
          {withIt && before && <Effect before={before} after={withIt} />}
        </>
      )}
      {fill && count > 0 && fill.note && <p className="text-[13.5px] mt-3">{fill.note}</p>}
      {fill?.offers && fill.offers.length > 0 && (
        <Offers desk={desk} offers={fill.offers} more={fill.moreOffers} picked={() => setRound(round + 1)} />
      )}
    </section>
  )
}

/** Terms of the shelf that would use the space that is left: picked one by one, and the fill is made again. */
function Offers(p: { desk: Desk; offers: NonNullable<Fill['offers']>; more: number; picked: () => void }) {
  const actions = usePickActions(p.desk)
  const pick = async (texts: string[]) => {
    await actions.change(texts, { source: 'shelf', saidBy: texts.map(() => 'Offered by a fill') })
    p.picked()
  }
  return (
    <div data-testid="offers">
      <h3>On your shelf, and true by the facts</h3>
      <table className="plain text-[14px]">
        <tbody>
          {p.offers.map((o) => (
            <tr key={o.text}>
              <td>{o.text}</td>
              <td className="r">
                <Num value={o.volume} unit="searches/mo" />
              </td>
              <td className="r">
                <button type="button" className="link" onClick={() => pick([o.text])} aria-label={`Pick “${o.text}”`}>
                  Pick
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 flex gap-3 items-baseline">
        <button type="button" className="btn btn-sm" onClick={() => pick(p.offers.map((o) => o.text))}>
          Pick {p.offers.length === 1 ? 'it' : `all ${p.offers.length}`} and fill again
        </button>
        {p.more > 0 && <span className="quiet text-[13px]">and {counted(p.more, 'more', 'more')}</span>}
      </p>
    </div>
  )
}

function RoomUsed({ field, room }: { field: Field; room: Room | undefined }) {
  if (!room) return null
  return (
    <p className="text-[13.5px] mb-1">
      Space used:{' '}
      {field.maxItems !== null ? (
        <>
          <span className="num">{room.items}</span> of <span className="num">{field.maxItems}</span>
        </>
      ) : (
        <>
          <span className="num">{room.used[0] ?? 0}</span>
          {field.max !== null && (
            <>
              {' '}
              of <span className="num">{field.max}</span> {field.unit}
            </>
          )}
        </>
      )}
    </p>
  )
}

/** What a change gains, what it loses, and what stays missing. */
function Effect({ before, after }: { before: Weighing; after: Weighing }) {
  const held = new Map(before.terms.map((t) => [t.key, t.grade !== 'missing']))
  const opens = after.terms.filter((t) => t.grade !== 'missing' && held.get(t.key) === false)
  const loses = after.terms.filter((t) => t.grade === 'missing' && held.get(t.key) === true)
  const left = after.terms.filter((t) => t.grade === 'missing' && held.get(t.key) !== true)
  return (
    <>
      <Terms name="Gains" terms={opens} />
      <Terms name="Loses" terms={loses} />
      {left.length > 0 && (
        <>
          <h3>Still missing</h3>
          <p className="quiet text-[13.5px]">
            {dearest(left)
              .map((t) => t.text)
              .join(', ')}
          </p>
        </>
      )}
    </>
  )
}

const dearest = (terms: PickWeight[]) => [...terms].sort((a, b) => (b.volume ?? -1) - (a.volume ?? -1))

function Terms({ name, terms }: { name: string; terms: PickWeight[] }) {
  if (terms.length === 0) return null
  return (
    <>
      <h3>{name}</h3>
      <TermTable terms={dearest(terms)} />
    </>
  )
}

/** Saves a title as a take. */
export async function keepTakeOf(listingId: number, text: string) {
  try {
    await ask(api.POST('/api/listings/{id}/takes', { params: { path: { id: listingId } }, body: { text } }))
    toast(messages.takeSaved)
  } catch (e) {
    toast((e as Error).message)
  }
}
