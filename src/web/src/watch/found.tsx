import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import type { FoundTerm, Pick, PickWeight } from '../kit/api'
import { openDoor } from '../kit/door/open'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted, dateTimeOf, full } from '../kit/numbers'
import { usePicks } from '../kit/picks'
import { useSelection } from '../kit/selection'
import { useShortcuts } from '../kit/shortcuts'
import { sortChanges, sortIn } from '../kit/sort'
import { unknownNumbers } from '../kit/terms/line'
import { sortTerms, TermTable, useTermColumns } from '../kit/terms/termtable'
import { toast } from '../kit/toast'
import { ViewFrame } from '../kit/viewframe'
import { useWeighing } from '../kit/weighing'
import { CheckOther } from './checkother'
import { type FoundLine, last, own, usual } from './foundcolumns'
import { FoundDetail } from './founddetail'
import type { ViewProps } from './frame'
import { PasteFound } from './pastefound'
import { useFound } from './usewatch'

// An address holds so many characters.
const LongestList = 6000

const filters = [
  ['all', 'All', () => true],
  ['missing', 'Not found', (t: FoundTerm) => t.found === false],
  ['changed', 'Changed', (t: FoundTerm) => t.flip !== 'none'],
  ['unexpected', 'Unexpected', (t: FoundTerm) => t.isUnexpected],
] as const

function linesOf(terms: FoundTerm[], picks: Pick[] | undefined, weights: PickWeight[] | undefined, leadKey: string | null | undefined) {
  const byPick = new Map(picks?.map((p) => [p.key, p]))
  const byKey = new Map(weights?.map((w) => [w.key, w]))
  return terms.map((seen): FoundLine => {
    const pick = byPick.get(seen.key)
    return {
      key: seen.key,
      text: seen.text,
      numbers: pick?.numbers ?? { ...unknownNumbers, volume: seen.volume },
      pick,
      weight: byKey.get(seen.key),
      lead: seen.key === leadKey,
      seen,
    }
  })
}

/** Whether the market finds the listing for each term, and where; what changed since the check before, and why a term does not find it. */
export function FoundView(p: ViewProps & { save: (changed: { checksDaily?: boolean; pageSize?: number }) => void }) {
  const { desk, watch } = p
  const [params, set] = useAddress()
  const found = useFound(desk)
  const [opening, setOpening] = useState<'paste' | 'other' | null>(null)
  const data = found.query.data
  const filter = filters.find(([key]) => key === params.get('show')) ?? filters[0]
  const sort = sortIn(params, { key: 'volume', down: true })
  const terms = data?.terms ?? []
  const [marked, mark, clear] = useSelection()
  const weighing = useWeighing(desk)
  const picks = usePicks(desk).data?.picks
  const columns = useTermColumns<FoundLine>({ desk, table: 'found', own, usual, last, fields: weighing?.fields })
  const { leadKey } = columns
  const lines = useMemo(() => linesOf(data?.terms ?? [], picks, weighing?.terms, leadKey), [data, picks, weighing, leadKey])
  // Of terms that are alike, those that are searched most come first.
  const bySearches = sortTerms(
    lines.filter((t) => filter[2](t.seen)),
    columns,
    { key: 'volume', down: true },
  )
  const rows = sortTerms(bySearches, columns, sort)
  const at = rows.findIndex((t) => String(t.seen.id) === params.get('at'))
  const row = rows[Math.max(0, at)]?.seen
  const told = async (problem: Promise<string | null>) => {
    const text = await problem
    if (text) toast(text)
  }
  const canAsk = watch.isConnected && watch.sentAt !== null
  const nextFilter = () => {
    const next = filters[(filters.indexOf(filter) + 1) % filters.length][0]
    set({ show: next === 'all' ? null : next })
  }
  const navigate = useNavigate()
  // The selected terms, or all that the filter shows where none is selected.
  const writeListed = () => {
    const keys = marked.size > 0 ? rows.filter((r) => marked.has(r.key)) : rows.filter((r) => filter[0] !== 'all' || r.seen.found === false)
    let room = LongestList
    const listed = keys.filter((r) => {
      room -= encodeURIComponent(`${r.key}|`).length
      return room >= 0
    })
    if (listed.length < keys.length) toast(messages.listedSome(listed.length, keys.length))
    navigate(
      `${desk.base}/write?${new URLSearchParams({
        terms: listed.map((r) => r.key).join('|'),
      })}`,
    )
  }
  useShortcuts({
    checkNow: canAsk && !found.progress && (() => told(found.begin())),
    checkOther: canAsk && (() => setOpening('other')),
    pasteFound: () => setOpening('paste'),
    filterFound: nextFilter,
    writeListed: rows.length > 0 && writeListed,
    unfollow: row && (() => found.unfollow([row.id])),
    close: marked.size > 0 && clear,
  })
  const checked = terms.filter((t) => t.found !== null)
  const on = checked.filter((t) => t.found)
  const firstPage = on.filter((t) => t.page === 1)
  const appeared = terms.filter((t) => t.flip === 'appeared').length
  const gone = terms.filter((t) => t.flip === 'disappeared').length
  const newest = data?.checks[0]
  const unfinished = found.unfinished
  const top = (
    <>
      <h1 className="text-[24px] font-bold leading-tight" data-testid="found-of">
        {checked.length === 0 ? (
          canAsk ? (
            'Not checked yet'
          ) : watch.isConnected ? (
            'Not sent to this market yet'
          ) : (
            'Nothing recorded yet'
          )
        ) : (
          <>
            Found for {full(on.length)} of {counted(checked.length, 'term')}
            <span className="font-normal text-[17px]">
              {on.length > 0 && `, ${full(firstPage.length)} on the first page`} <HelpLink to="the-found-check" about="the found check" />
            </span>
          </>
        )}
      </h1>
      <p className="text-[14px]" data-testid="found-state">
        {watch.indexUpdatesAt && (
          <b className="font-semibold">Search results still show the text before. They update about {dateTimeOf(watch.indexUpdatesAt)}. </b>
        )}
        {newest && (
          <span className="quiet">
            Last check {dateTimeOf(newest.at)} ({newest.source}).{' '}
            {appeared + gone === 0
              ? data?.checks.length === 1
                ? 'The next one shows what has changed.'
                : 'Nothing flipped since the check before.'
              : `Since the check before: ${counted(appeared, 'term')} found again or newly, ${full(gone)} no longer found.`}
          </span>
        )}
        {!newest && !canAsk && (
          <span className="quiet">
            {watch.isConnected
              ? 'A market finds only what was sent to it. Send the listing from Write, or paste what you found yourself.'
              : 'This platform has no connection. Search there yourself and bring the results pages here: they say whether they show this listing, and at which rank.'}
          </span>
        )}
      </p>
      <div className="flex flex-wrap gap-2 items-center mt-2">
        {found.progress ? (
          <span className="text-[14px] flex items-center gap-2" role="status" data-testid="checking">
            Checking {full(found.progress.done)} of {full(found.progress.all)}
            <progress className="progress progress-primary w-28" value={found.progress.done} max={Math.max(1, found.progress.all)} />
            <button type="button" className="link" onClick={() => found.progress && found.stop(found.progress.id)}>
              Stop
            </button>
          </span>
        ) : (
          watch.isConnected && (
            <button type="button" className="btn btn-sm btn-primary" disabled={!canAsk} onClick={() => told(found.begin())}>
              Check now <Key of="checkNow" plain />
            </button>
          )
        )}
        {unfinished?.state === 'stopped' && (
          <span className="text-[14px]" role="status">
            {unfinished.problem ? <span className="text-accent">{unfinished.problem} </span> : 'Stopped '}at {full(unfinished.done)} of{' '}
            {full(unfinished.all)}.{' '}
            <button type="button" className="link" onClick={() => found.resume(unfinished.id)}>
              Resume
            </button>
          </span>
        )}
        {canAsk && (
          <button type="button" className="pill" onClick={() => setOpening('other')}>
            Check other terms… <Key of="checkOther" />
          </button>
        )}
        {!watch.isConnected && (
          <button type="button" className="btn btn-sm btn-primary" onClick={() => openDoor()}>
            Paste or drop results pages <Key of="door" plain />
          </button>
        )}
        <button type="button" className="pill" onClick={() => setOpening('paste')}>
          Type what you found… <Key of="pasteFound" />
        </button>
        {checked.length > 0 && (
          <a className="pill" href={`/api/listings/${desk.listingId}/checks/export.csv?marketId=${desk.market.id}`}>
            Export
          </a>
        )}
        {!watch.isConnected && (
          <a
            className="pill"
            title="Your picks as a table to type ranks into; drop it here once it is filled in"
            href={`/api/listings/${desk.listingId}/checks/sheet.csv?marketId=${desk.market.id}`}
          >
            Sheet to fill in
          </a>
        )}
        <span className="ml-auto flex gap-1" role="group" aria-label="Show">
          {filters.map(([key, name, passes]) => (
            <button
              key={key}
              type="button"
              className="choice"
              aria-pressed={filter[0] === key}
              onClick={() => set({ show: key === 'all' ? null : key })}
            >
              {name} ({full(terms.filter(passes).length)})
            </button>
          ))}
          <Key of="filterFound" />
        </span>
      </div>
    </>
  )
  return (
    <>
      <ViewFrame
        name="found"
        head={p.head}
        top={top}
        side={<FoundDetail desk={desk} watch={watch} term={row} checks={data?.checks ?? []} save={p.save} remove={found.remove} />}
      >
        <TermTable
          desk={desk}
          name="Terms that were checked"
          rows={rows}
          columns={columns}
          source="Found"
          marked={marked}
          onMark={mark}
          clear={clear}
          more={[{ label: 'Open Write with them listed', key: 'writeListed', run: writeListed }]}
          at={rows.length === 0 ? -1 : Math.max(0, at)}
          rowHeight={36}
          onAt={(_, t) => set({ at: t ? String(t.seen.id) : null })}
          sort={sort}
          onSort={(s) => set(sortChanges(s))}
          empty={
            found.query.isPending ? (
              <span className="quiet">Loading…</span>
            ) : terms.length > 0 ? (
              <span className="quiet">No term passes this filter.</span>
            ) : canAsk ? (
              <span>
                <b className="block">No term was checked yet</b>
                <span className="quiet">Check now asks the market for all your picks.</span>
              </span>
            ) : (
              <span className="quiet">Here will be each term, whether it finds your listing, and at which rank.</span>
            )
          }
        />
      </ViewFrame>
      {opening === 'paste' && <PasteFound listingId={desk.listingId} add={found.add} close={() => setOpening(null)} />}
      {opening === 'other' && <CheckOther desk={desk} begin={found.begin} close={() => setOpening(null)} />}
    </>
  )
}
