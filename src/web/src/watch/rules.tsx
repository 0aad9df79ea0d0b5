import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type OfferedChange, type Rules } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { messages } from '../kit/messages'
import { counted, fixed, full } from '../kit/numbers'
import { queryKey, refreshAll } from '../kit/queries'
import { type Desk, useConnected } from '../kit/shop'
import { toast } from '../kit/toast'
import { ViewFrame } from '../kit/viewframe'
import { listed } from '../kit/words'
import type { ViewProps } from './frame'

/** What the checks say about the platform's profile, and whether grip predicts rank. */
export function RulesView({ desk, head }: ViewProps) {
  const path = { id: desk.listingId }
  const query = useQuery({
    queryKey: queryKey('rules', desk.listingId, desk.market.id),
    queryFn: () => ask(api.GET('/api/listings/{id}/rules', { params: { path, query: { marketId: desk.market.id } } })),
  })
  const data = query.data
  const connected = useConnected()
  const name = desk.market.platformName
  const surprises = data?.surprises ?? []
  const top = data && (
    <>
      <h1 className="text-[24px] font-bold leading-tight" data-testid="rules-of">
        {data.checked === 0
          ? 'Nothing to compare yet'
          : surprises.length === 0
            ? `The profile of ${name} explains all ${counted(data.checked, 'term')}`
            : `The profile of ${name} is wrong for ${full(surprises.length)} of ${counted(data.checked, 'term')}`}
      </h1>
      <p className="quiet text-[13.5px]">
        The profile predicts which terms find your listing; a check shows which do. Where they differ, one change of the profile may explain
        it. <HelpLink to="what-would-explain-a-check" about="the offered change" />
      </p>
      {data.change && (
        <div className="note-box mt-2" data-testid="offered">
          <p className="text-[15px]">
            <b className="font-semibold">{data.change.says}.</b> With this changed, {counted(data.change.remaining, 'term')} would still
            disagree{data.change.new > 0 && `, ${full(data.change.new)} of them newly`}.
          </p>
          <Apply desk={desk} change={data.change} />
        </div>
      )}
      {surprises.length > 0 && !data.change && (
        <p className="text-[14px] mt-2">No single change explains enough of them: it must remove at least three and at least half.</p>
      )}
    </>
  )
  return (
    <ViewFrame
      name="rules"
      head={head}
      top={query.isError ? <p role="alert">{query.error.message}</p> : top}
      side={
        <>
          <h3 className="!mt-0">Unexpected</h3>
          {surprises.length === 0 ? (
            <p className="quiet text-[14px]">No term was found or missed against the profile.</p>
          ) : (
            <ul className="text-[14px]">
              {surprises.map((s) => (
                <li key={s.text} className="mb-1">
                  <b className="font-semibold">{s.text}</b>{' '}
                  {s.found
                    ? `found, although ${s.missing.length > 0 ? `${listed(s.missing)} ${s.missing.length === 1 ? 'is' : 'are'} missing` : 'the words are apart'}`
                    : 'not found, although every word is there'}
                </li>
              ))}
            </ul>
          )}
        </>
      }
    >
      <div className="overflow-auto min-h-0">
        {data && <GripAndRank rules={data} />}
        {connected && <FieldWeights desk={desk} />}
      </div>
    </ViewFrame>
  )
}

/** Saves an offered profile over the one there is; Undo puts the one before back. */
function Apply({ desk, change }: { desk: Desk; change: OfferedChange }) {
  const cache = useQueryClient()
  const id = desk.market.platformId
  const save = async (profile: OfferedChange['profile'], revision: number) => {
    const saved = await api.PUT('/api/platforms/{id}', { params: { path: { id } }, body: { profile, revision, like: null } })
    if (saved.response.status === 409) throw new Error(messages.profileElsewhere)
    return (await ask(Promise.resolve(saved))) as { revision?: number | null }
  }
  const apply = async () => {
    try {
      const before = (await ask(api.GET('/api/platforms'))).platforms.find((p) => p.id === id)
      const { revision } = await save(change.profile, change.revision)
      toast(messages.profileChanged(desk.market.platformName), async () => {
        if (before && revision != null) await save(before.profile, revision).catch((e: Error) => toast(messages.notUndone(e.message)))
        await refreshAll(cache)
      })
    } catch (e) {
      toast((e as Error).message)
    }
    await refreshAll(cache)
  }
  return (
    <button type="button" className="btn btn-sm btn-primary mt-2" onClick={apply}>
      Change the profile
    </button>
  )
}

const [Width, Height, Left, Bottom] = [620, 220, 44, 34]

/** The grip of each term against its rank, and how well one predicts the other. */
function GripAndRank({ rules }: { rules: Rules }) {
  const { ranked, rho, low, high } = rules
  const most = Math.max(10, ...ranked.map((r) => r.rank))
  const x = (grip: number) => Left + (grip / 100) * (Width - Left - 10)
  const y = (rank: number) => 8 + (Math.log10(rank) / Math.log10(most)) * (Height - Bottom - 8)
  return (
    <section className="mb-4" data-testid="grip-and-rank">
      <h2 className="text-[18px] font-bold">
        Does grip predict rank? <HelpLink to="does-grip-predict-rank" about="the rank correlation" />
      </h2>
      <p className="text-[15px]">
        {rho === null || low === null || high === null
          ? `Too few to say: ${full(rules.count)} of at least ${full(rules.least)} found terms with a rank.`
          : `${sentence(low, high)} Rank correlation ${fixed(rho, 2)}, between ${fixed(low, 2)} and ${fixed(high, 2)}, of ${counted(rules.count, 'term')}.`}
      </p>
      {ranked.length > 0 && (
        <svg
          viewBox={`0 0 ${Width} ${Height}`}
          className="max-w-[640px] w-full"
          role="img"
          aria-label="Grip against rank; the table below has the numbers"
        >
          <line x1={Left} x2={Width} y1={Height - Bottom} y2={Height - Bottom} stroke="var(--tin-2)" />
          <line x1={Left} x2={Left} y1={0} y2={Height - Bottom} stroke="var(--tin-2)" />
          {[0, 25, 50, 75, 100].map((g) => (
            <text key={g} x={x(g)} y={Height - Bottom + 15} textAnchor="middle" fontSize="12" fill="currentColor">
              {g}
            </text>
          ))}
          {[1, 10, 100, 1000]
            .filter((r) => r <= most)
            .map((r) => (
              <text key={r} x={Left - 6} y={y(r) + 4} textAnchor="end" fontSize="12" fill="currentColor">
                {r}
              </text>
            ))}
          <text x={Width / 2} y={Height - 4} textAnchor="middle" fontSize="12.5" fill="currentColor">
            Grip of the term (firmer to the right)
          </text>
          <text x={Left + 6} y={12} fontSize="12.5" fill="currentColor">
            Rank (best at the top)
          </text>
          {ranked.map((r) => (
            <circle key={r.text} cx={x(r.grip)} cy={y(r.rank)} r="5" fill="var(--color-primary)" fillOpacity="0.65">
              <title>{`${r.text}: grip ${fixed(r.grip, 0)}, rank ${full(r.rank)}`}</title>
            </circle>
          ))}
        </svg>
      )}
      {ranked.length > 0 && (
        <details className="text-[14px]">
          <summary className="link">As a table</summary>
          <table className="plain text-[13.5px]">
            <thead>
              <tr>
                <th>Term</th>
                <th className="text-right">Grip</th>
                <th className="text-right">Rank</th>
              </tr>
            </thead>
            <tbody>
              {ranked.map((r) => (
                <tr key={r.text}>
                  <td>{r.text}</td>
                  <td className="num text-right">{fixed(r.grip, 0)}</td>
                  <td className="num text-right">{full(r.rank)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </section>
  )
}

const sentence = (low: number, high: number) =>
  low > 0 ? 'Yes: terms with more grip rank better.' : high < 0 ? 'No: terms with more grip rank worse here.' : 'It can’t be told.'

/** Weights of the fields that order the market's results better than the profile's. */
function FieldWeights({ desk }: { desk: Desk }) {
  const [isOn, setOn] = useState(false)
  const query = useQuery({
    queryKey: queryKey('rules', 'weights', desk.listingId, desk.market.id),
    queryFn: ({ signal }) =>
      ask(
        api.GET('/api/listings/{id}/rules/weights', {
          params: { path: { id: desk.listingId }, query: { marketId: desk.market.id } },
          signal,
        }),
      ),
    enabled: isOn,
    staleTime: Number.POSITIVE_INFINITY,
  })
  const data = query.data
  return (
    <section data-testid="weights">
      <h2 className="text-[18px] font-bold">Which field counts how much?</h2>
      {!isOn && (
        <>
          <p className="quiet text-[14px]">
            The market’s own results show how it orders listings. From those of your terms, weights are fitted that order them more alike.
            Nothing is changed by itself.
          </p>
          <button type="button" className="pill mt-1" onClick={() => setOn(true)}>
            Fit weights to the results
          </button>
        </>
      )}
      {isOn && query.isPending && (
        <p role="status" className="text-[14px]">
          Reading the results of your terms…{' '}
          <button type="button" className="link" onClick={() => setOn(false)}>
            Stop
          </button>
        </p>
      )}
      {query.isError && isOn && <p role="alert">{query.error.message}</p>}
      {data && isOn && (
        <>
          <p className="text-[15px]">
            {data.improvement === null || data.low === null || data.high === null
              ? `Too few to say: ${full(data.searches)} of at least ${counted(data.least, 'search', 'searches')} with enough results.`
              : data.change
                ? `These weights order the results better: Kendall’s τ rises by ${fixed(data.improvement, 2)} (between ${fixed(data.low, 2)} and ${fixed(data.high, 2)}) from ${fixed(data.tauNow, 2)}, on searches they were not fitted to.`
                : `No other weights are better for sure: ${fixed(data.improvement, 2)} (between ${fixed(data.low, 2)} and ${fixed(data.high, 2)}) on ${counted(data.searches, 'search', 'searches')}.`}
          </p>
          {data.weights.length > 0 && (
            <table className="plain text-[14px]">
              <thead>
                <tr>
                  <th>Field</th>
                  <th className="text-right">Weight now</th>
                  <th className="text-right">Offered</th>
                </tr>
              </thead>
              <tbody>
                {data.weights.map((w) => (
                  <tr key={w.field}>
                    <td>{w.label}</td>
                    <td className="num text-right">{fixed(w.now, 2)}</td>
                    <td className="num text-right">{fixed(w.offered, 2)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data.change && <Apply desk={desk} change={data.change} />}
        </>
      )}
    </section>
  )
}
