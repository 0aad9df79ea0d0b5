import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { api, ask, type Copy, type Field, type Fill, opened, type Value, type Weighing } from '../kit/api'
import type { Draft } from '../kit/drafts/draft'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { LeftOutPicks } from '../kit/leftout'
import { messages } from '../kit/messages'
import { counted, fixed, full } from '../kit/numbers'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { toast } from '../kit/toast'
import { Walked } from '../kit/walked'
import { useWeighing, weigh } from '../kit/weighing'
import { Effect, Offers, RoomUsed } from './filleffect'

const points = (n: number) => fixed(Math.round(n * 10) / 10, 1)
const change = (from: number, to: number) => {
  const by = Math.round((to - from) * 10) / 10
  return by === 0 ? 'no change' : `${by > 0 ? '+' : '−'}${fixed(Math.abs(by), 1)}`
}

const isTitle = (field: Field) => field.role === 'title' && field.shape === 'line'

/** A suggestion for a field, asked for again when the draft or the picks have changed; which of its pieces are chosen, and what that would do. */
function useFill(desk: Desk, field: Field, draft: Draft<Copy>) {
  const [fill, setFill] = useState<Fill | null>(null)
  const [problem, setProblem] = useState('')
  const [chosen, setChosen] = useState<boolean[]>([])
  const [at, setAt] = useState(0)
  const [withIt, setWithIt] = useState<Weighing | null>(null)
  const [round, setRound] = useState(0)
  const cache = useQueryClient()
  const picks = usePicks(desk).data?.picks
  const before = useWeighing(desk)
  // The text that it was made for: anything typed since would be lost.
  const made = useRef('')
  const now = () => JSON.stringify(draft.snapshot().value[field.key] ?? '')
  const path = useMemo(() => ({ id: desk.listingId, field: field.key }), [desk.listingId, field.key])

  // biome-ignore lint/correctness/useExhaustiveDependencies: made of the draft as it is when it is asked for
  useEffect(() => {
    let gone = false
    made.current = now()
    const body = { marketId: desk.market.id, fields: draft.snapshot().value }
    ask(api.POST('/api/listings/{id}/fill/{field}', { params: { path }, body }))
      .then((f) => {
        if (gone) return
        setFill(f)
        setChosen(f.pieces.map(() => true))
        setAt(0)
      })
      .catch((e: Error) => !gone && setProblem(e.message))
    return () => {
      gone = true
    }
  }, [path, round])

  const all = chosen.every(Boolean)
  // The field with only some of the pieces is put together where the whole was.
  const [partly, setPartly] = useState<{ of: boolean[]; value: Value } | null>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the draft as it is when it is asked for
  useEffect(() => {
    if (!fill || all || isTitle(field) || field.shape === 'phrases') return
    let gone = false
    const body = { marketId: desk.market.id, fields: draft.snapshot().value, pieces: fill.pieces.filter((_, i) => chosen[i]) }
    ask(api.POST('/api/listings/{id}/fill/{field}/pieces', { params: { path }, body }))
      .then((v) => !gone && setPartly({ of: chosen, value: v.value as Value }))
      .catch((e: Error) => !gone && setProblem(e.message))
    return () => {
      gone = true
    }
  }, [path, fill, chosen, all])
  const value = useMemo(
    () =>
      !fill
        ? undefined
        : isTitle(field)
          ? fill.takes[at]?.text
          : all
            ? (fill.value as Value)
            : field.shape === 'phrases'
              ? without(
                  fill.value as string[],
                  fill.pieces.filter((_, i) => !chosen[i]),
                )
              : partly?.of === chosen
                ? partly.value
                : undefined,
    [fill, at, all, field, chosen, partly],
  )
  // The choice is weighed as it would be: what it gains and loses is read off that, and again when something else is written meanwhile.
  // biome-ignore lint/correctness/useExhaustiveDependencies: weighed again when what it is compared with changes
  useEffect(() => {
    if (value === undefined || !picks) return
    let gone = false
    weigh(cache, desk, { ...draft.snapshot().value, [field.key]: value })
      .then((w) => !gone && setWithIt(opened(w, picks)))
      .catch((e: Error) => !gone && setProblem(e.message))
    return () => {
      gone = true
    }
  }, [value, picks, field, desk, draft, cache, before])

  const toggle = (i: number) => setChosen(chosen.map((c, k) => (k === i ? !c : c)))
  return {
    fill,
    problem,
    chosen,
    all,
    at,
    setAt,
    toggle,
    value,
    before,
    withIt,
    again: () => setRound(round + 1),
    isCurrent: () => now() === made.current,
  }
}

/** A suggestion for a field: its new text, what that gains, how close to the best possible it is; used as a whole or in part. */
export function FillPanel({
  desk,
  field,
  draft,
  use,
  keepTake,
  close,
  used,
}: {
  desk: Desk
  field: Field
  draft: Draft<Copy>
  use: (value: Value, what: string) => void
  keepTake: (text: string) => void
  close: () => void
  /** After the suggestion was used. */
  used: () => void
}) {
  const made = useFill(desk, field, draft)
  const { fill, chosen, all, at, value, before, withIt } = made
  const title = isTitle(field)
  const accept = () => {
    if (value === undefined) return
    if (!title && !made.isCurrent()) {
      made.again()
      return toast(messages.fillUpdated(field.label))
    }
    close()
    if (!title && !chosen.some(Boolean)) return
    use(value, messages.filled(field.label))
    used()
  }
  useShortcuts({ close })
  const rows: string[] = !fill ? [] : title ? fill.takes.map((t) => t.text) : fill.pieces
  const save = () => title && fill?.takes[at] && keepTake(fill.takes[at].text)
  return (
    <Walked<string>
      name="Fill"
      testid="fill"
      rows={rows}
      id={(row, i) => `${i} ${row}`}
      at={at}
      onAt={made.setAt}
      on={{ Enter: accept, ...(title ? { k: save } : { ' ': (_, i) => made.toggle(i) }) }}
      always={{ Escape: close }}
      focus={fill !== null}
      listClass={title ? undefined : 'flex flex-wrap gap-1.5 mb-2'}
      rowClass={title ? undefined : 'contents'}
      before={
        <>
          <h3 className="!mt-0">
            {title ? 'Suggested titles' : `Suggested for ${field.label}`} <HelpLink to="fill" about="a fill" />
          </h3>
          {made.problem && <p className="text-accent">{made.problem}</p>}
          {!fill && !made.problem && <p className="quiet">Working…</p>}
          {fill && rows.length === 0 && (
            <>
              <p className="mb-3">
                {fill.note ??
                  (title && fill.leftOut.length === 0
                    ? 'No picks yet. Pick some terms first.'
                    : fill.leftOut.length > 0
                      ? 'No more picks fit; the reasons are below.'
                      : 'Nothing to add: no pick gains from the remaining space.')}
              </p>
              <button type="button" className="btn btn-sm" onClick={close}>
                Close <kbd>Esc</kbd>
              </button>
            </>
          )}
          {rows.length > 0 && withIt && before && (
            <p className="text-[14px] mb-2" data-testid="fill-effect">
              <b>Reach</b> {points(before.reach)} → {points(withIt.reach)}{' '}
              <span className="quiet">({change(before.reach, withIt.reach)})</span>, <b>grip</b> {points(before.grip)} →{' '}
              {points(withIt.grip)} <span className="quiet">({change(before.grip, withIt.grip)})</span>
            </p>
          )}
        </>
      }
      row={(row, i) =>
        title && fill ? (
          <>
            <div className="font-semibold leading-snug">{row}</div>
            <p className="quiet text-[13px]">
              <span className="num">{fill.limit === null ? fill.takes[i].used : `${fill.takes[i].used} of ${fill.limit}`}</span>; grip{' '}
              <span className="num">{points(fill.takes[i].grip)}</span>; {counted(fill.takes[i].whole.length, 'exact phrase')}
            </p>
          </>
        ) : (
          <button
            type="button"
            tabIndex={-1}
            aria-pressed={chosen[i]}
            className={`choice ${i === at ? 'at' : ''} ${chosen[i] ? '' : 'struck'}`}
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => made.toggle(i)}
          >
            {row}
          </button>
        )
      }
      after={
        <>
          {fill && rows.length > 0 && (
            <>
              <p className="flex flex-wrap gap-2 my-3">
                <button type="button" className="btn btn-sm btn-primary" onClick={accept}>
                  {title ? 'Use this title' : all ? 'Use all' : `Use ${chosen.filter(Boolean).length}`} <kbd>Enter</kbd>
                </button>
                {title && (
                  <button type="button" className="btn btn-sm" onClick={save}>
                    Save as take <Key of="saveTake" />
                  </button>
                )}
                <button type="button" className="btn btn-sm" onClick={close}>
                  Cancel <kbd>Esc</kbd>
                </button>
              </p>
              {withIt && !title && <RoomUsed field={field} room={withIt.rooms[field.key]} />}
              <Bound fill={fill} />
              {title && fill.takes[at] && (
                <>
                  <h3>Exact phrases in it</h3>
                  <p className="text-[14px]">{fill.takes[at].whole.join(', ') || 'none'}</p>
                </>
              )}
              {withIt && before && <Effect before={before} after={withIt} />}
              {fill.note && <p className="text-[13.5px] mt-3">{fill.note}</p>}
            </>
          )}
          {fill && <LeftOutPicks desk={desk} leftOut={fill.leftOut} changed={made.again} />}
          {fill?.offers && fill.offers.length > 0 && <Offers desk={desk} offers={fill.offers} more={fill.moreOffers} picked={made.again} />}
        </>
      }
    />
  )
}

/** The items but these, each left out once. */
function without(items: string[], left: string[]): string[] {
  const rest = [...left]
  return items.filter((item) => {
    const at = rest.indexOf(item)
    if (at >= 0) rest.splice(at, 1)
    return at < 0
  })
}

/** How close a fill of separate words is to the best possible. */
function Bound({ fill }: { fill: Fill }) {
  if (fill.gain === null || fill.bound === null) return null
  return (
    <p
      className="text-[13.5px] mb-2"
      title="Demand × fit of the picks gained, compared with an upper bound on any choice of words that fits"
    >
      {fill.bound > 0 ? (
        <>
          <b>{fill.gain >= fill.bound * 0.99999 ? '100' : fixed(Math.floor((fill.gain / fill.bound) * 1000) / 10, 1)}%</b> of the best
          possible ({full(Math.round(fill.gain))} of at most {full(Math.round(fill.bound))})
        </>
      ) : (
        'No pick that may stand here is missing.'
      )}
    </p>
  )
}
