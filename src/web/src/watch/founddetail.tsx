import { Link } from 'react-router'
import type { Check, FoundTerm, Watch } from '../kit/api'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted, dateTimeOf, full } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'

/** Why a term finds the listing or not, what to do, and how the listing is watched. */
export function FoundDetail({
  desk,
  watch,
  term,
  checks,
  save,
  remove,
}: {
  desk: Desk
  watch: Watch
  term: FoundTerm | undefined
  checks: Check[]
  save: (changed: { checksDaily?: boolean; pageSize?: number }) => void
  remove: (check: number) => void
}) {
  return (
    <>
      {term && (
        <section data-testid="why">
          <h3 className="!mt-0">{term.text}</h3>
          <Why desk={desk} watch={watch} term={term} />
          {term.found !== null && (
            <p className="quiet text-[13.5px] mt-2">
              <Key of="unfollow" /> stops checking this term; what was found is kept.
            </p>
          )}
        </section>
      )}
      <h3>{watch.isConnected ? 'Daily check' : 'Results'}</h3>
      {watch.isConnected && (
        <p className="text-[14px]">
          <label className="flex gap-2 items-baseline">
            <input
              type="checkbox"
              className="checkbox checkbox-xs relative top-0.5"
              checked={watch.checksDaily}
              onChange={(e) => save({ checksDaily: e.target.checked })}
            />
            Check all picks and these terms once a day
          </label>
        </p>
      )}
      <p className="text-[14px] mt-1">
        <label>
          Results on one page{' '}
          <input
            key={watch.pageSize}
            className="inline-input num"
            size={4}
            inputMode="numeric"
            defaultValue={watch.pageSize}
            onBlur={(e) => {
              const size = Number(e.target.value)
              if (Number.isInteger(size) && size >= 1 && size <= 500) {
                if (size !== watch.pageSize) save({ pageSize: size })
              } else {
                e.target.value = String(watch.pageSize)
                toast(messages.pageSize(500))
              }
            }}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </label>
      </p>
      {checks.length > 0 && (
        <>
          <h3>Last checks</h3>
          <table className="plain text-[13.5px]">
            <tbody>
              {checks.slice(0, 8).map((c) => (
                <tr key={c.id}>
                  <td>{dateTimeOf(c.at)}</td>
                  <td className="quiet">{c.isDaily ? 'Daily' : c.source}</td>
                  <td className="num text-right">{c.state === 'finished' ? full(c.all) : `${full(c.done)} of ${full(c.all)}`}</td>
                  <td>
                    <button
                      type="button"
                      className="link"
                      onClick={() => remove(c.id)}
                      aria-label={`Delete the check of ${dateTimeOf(c.at)}`}
                    >
                      Delete
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  )
}

function Why({ desk, watch, term }: { desk: Desk; watch: Watch; term: FoundTerm }) {
  const write = (
    <Link className="link" to={`${desk.base}/write`}>
      Open in Write
    </Link>
  )
  if (term.found === null) return <p className="text-[14px]">Not checked yet.</p>
  if (term.found)
    return (
      <p className="text-[14px]">
        {term.rank ? `Rank ${full(term.rank)}, page ${full(term.page)}` : 'Found, the rank isn’t known'}
        {term.results !== null && `, of ${counted(term.results, 'result')}`}.
        {term.isUnexpected && (
          <>
            {' '}
            The profile of {desk.market.platformName} doesn’t predict this: a word is missing by its rules.{' '}
            <Link className="link" to={`${desk.base}/watch?view=rules`}>
              See what would explain it
            </Link>
          </>
        )}
      </p>
    )
  const sendNext = (
    <p className="text-[14px] mt-1">
      Your text now holds it. Send the listing, then check again.{' '}
      <Link className="link" to={`${desk.base}/write?side=send`}>
        Send…
      </Link>
    </p>
  )
  switch (term.why) {
    case 'indexDelay':
      return (
        <p className="text-[14px]">
          You sent it, but the index had not updated yet
          {watch.indexUpdatesAt ? `, until ${dateTimeOf(watch.indexUpdatesAt)}` : ''}. Check again after that.
        </p>
      )
    case 'notSent':
      return <p className="text-[14px]">The listing was never sent to this market. {write}</p>
    case 'rulesDiffer':
      return (
        <>
          <p className="text-[14px]">
            Every word is there, so the rules of {desk.market.platformName} may differ from its profile.{' '}
            <Link className="link" to={`${desk.base}/watch?view=rules`}>
              See what would explain it
            </Link>
          </p>
          {watch.hasChanged && term.isInDraft && <p className="quiet text-[13.5px] mt-1">You have edited the listing since.</p>}
        </>
      )
    default:
      return (
        <>
          <p className="text-[14px]">
            {term.because.length > 0 ? (
              <>
                Missing: <b className="font-semibold">{term.because.join(', ')}</b>.
              </>
            ) : (
              'Its words are in different fields, and this platform doesn’t combine them.'
            )}
            {term.near.map((n) => (
              <span key={n.needs} className="block">
                Has <i>{n.has}</i>, needs <i>{n.needs}</i>.
              </span>
            ))}
          </p>
          {term.isInDraft ? sendNext : <p className="text-[14px] mt-1">Add it to a searched field, then send. {write}</p>}
        </>
      )
  }
}
