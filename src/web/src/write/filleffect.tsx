import type { Field, Fill, PickWeight, Room, Weighing } from '../kit/api'
import { dearest } from '../kit/demand'
import { Num } from '../kit/num'
import { counted } from '../kit/numbers'
import { usePickActions } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { TermTable } from './termtable'

/** Terms of the shelf that would use the space that is left: picked one by one, and the fill is made again. */
export function Offers(p: { desk: Desk; offers: NonNullable<Fill['offers']>; more: number; picked: () => void }) {
  const actions = usePickActions(p.desk)
  const pick = async (texts: string[]) => {
    await actions.change(texts, { source: 'shelf', saidBy: texts.map(() => 'Offered by a fill') })
    p.picked()
  }
  return (
    <div data-testid="offers">
      <h3>On your shelf, and not against the facts</h3>
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

/** How much of the field's room a fill would use. */
export function RoomUsed({ field, room }: { field: Field; room: Room | undefined }) {
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
export function Effect({ before, after }: { before: Weighing; after: Weighing }) {
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

function Terms({ name, terms }: { name: string; terms: PickWeight[] }) {
  if (terms.length === 0) return null
  return (
    <>
      <h3>{name}</h3>
      <TermTable terms={dearest(terms)} />
    </>
  )
}
