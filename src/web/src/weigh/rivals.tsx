import { useState } from 'react'
import { useAddress } from '../kit/address'
import type { Rival, Rivals } from '../kit/api'
import { wholePercent } from '../kit/demand'
import { openDoor } from '../kit/door/open'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { Num } from '../kit/num'
import { counted, dateOf, fixed, money } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import { type Column, Table } from '../kit/table'
import { Bar, ViewFrame } from '../kit/viewframe'
import type { ViewProps } from './frame'
import { HeldTerms } from './heldterms'
import { nameOf } from './names'
import { PasteRival } from './pasterival'
import { RivalChoice } from './rivalchoice'
import { RivalDetail } from './rivaldetail'
import { type ReadRival, RivalTextView } from './rivaltext'
import { useRivals } from './userivals'

/** The listing among its rivals: their order by grip, who holds what, and what passes the next above. */
export function RivalsView(p: ViewProps) {
  const [params, set] = useAddress()
  const { desk, listing } = p
  const rivals = useRivals(desk, listing)
  const [pasting, setPasting] = useState<Rival | true | null>(null)
  const data = rivals.query.data
  const choosing = params.get('choose') !== null || data?.rivals.length === 0
  const rows = data ? rowsOf(data, listing.platformName) : []
  const chosen = rows.findIndex((r) => String(r.id) === params.get('at'))
  const at = chosen >= 0 ? chosen : rows.findIndex((r) => r.id === (data?.nextAbove ?? data?.rivals[0]?.id))
  const rival = rows[at]?.rival
  const held = params.get('held') !== null
  const reading = readIn(params, choosing)
  useShortcuts({
    chooseRivals: () => set({ choose: choosing ? null : '1', at: null }),
    pasteRival: () => setPasting(true),
    refreshRivals: rivals.lookUp,
    removeRival: !choosing && !reading && rival && (() => rivals.remove(rival.id)),
    close: reading !== null && (() => set({ read: null })),
  })
  if (!data)
    return (
      <ViewFrame {...p} name="rivals" top={rivals.query.isError ? <p role="alert">{rivals.query.error.message}</p> : null} side={null}>
        <p className="quiet">{rivals.query.isError ? '' : 'Weighing…'}</p>
      </ViewFrame>
    )
  const above = data.rivals.find((r) => r.id === data.nextAbove)
  const top = (
    <>
      {data.rivals.length > 0 && (
        <p className="head text-[19px] font-bold leading-tight" data-testid="place">
          {above ? (
            <>
              Place {data.rank} of {data.rivals.length + 1} by grip, {fixed(data.gap, 1)} points behind {nameOf(above)}
            </>
          ) : (
            <>Your listing has the firmest grip of {data.rivals.length + 1}</>
          )}{' '}
          <HelpLink to="rivals" about="the order of rivals" />
        </p>
      )}
      <div className="flex flex-wrap gap-2 items-center mt-1">
        {reading && (
          <button type="button" className="pill" onClick={() => set({ read: null })}>
            Back to the list <kbd>Esc</kbd>
          </button>
        )}
        <button type="button" className="pill" onClick={() => set({ choose: choosing ? null : '1', at: null })}>
          {choosing && data.rivals.length > 0 ? 'Back to the ranking' : 'Choose from results'} <Key of="chooseRivals" />
        </button>
        <button type="button" className="pill" onClick={() => setPasting(true)}>
          Paste <Key of="pasteRival" />
        </button>
        <button type="button" className="pill" onClick={() => openDoor()} title="Saved pages of rivals, or a table of them">
          Import <Key of="door" />
        </button>
        {data.rivals.length > 0 && (
          <>
            <button type="button" className="pill" onClick={rivals.lookUp}>
              Refresh <Key of="refreshRivals" />
            </button>
            <a className="pill" href={`/api/listings/${desk.listingId}/rivals/export.csv?marketId=${desk.market.id}`}>
              Export
            </a>
            {!choosing && (
              <span className="ml-auto flex gap-1" role="group" aria-label="Show">
                <button type="button" className="choice" aria-pressed={!held} onClick={() => set({ held: null })}>
                  Ranking
                </button>
                <button type="button" className="choice" aria-pressed={held} onClick={() => set({ held: '1' })}>
                  Who holds what
                </button>
              </span>
            )}
          </>
        )}
      </div>
    </>
  )
  return (
    <>
      <ViewFrame
        {...p}
        name="rivals"
        top={top}
        side={
          choosing && reading ? (
            <p className="quiet text-[14px]">
              Every term of its text that this market knows. The keys are those of every table of terms: P picks, + adds to a field of
              yours, X avoids. Esc goes back to the results, where Enter saves it as a rival.
            </p>
          ) : choosing ? (
            <p className="quiet text-[14px]">
              Rivals are other sellers’ listings that you compare yours with. They are weighed for your picks, by the fields that the market
              shows. Choose three to eight that shoppers see beside yours.
            </p>
          ) : (
            rival && (
              <RivalDetail
                key={rival.id}
                {...p}
                rival={rival}
                read={() => set({ read: String(rival.id) })}
                remove={() => rivals.remove(rival.id)}
                update={() => setPasting(rival)}
              />
            )
          )
        }
      >
        {reading ? (
          <RivalTextView desk={desk} of={reading} />
        ) : choosing ? (
          <RivalChoice desk={desk} add={rivals.add} />
        ) : held ? (
          <HeldTerms desk={desk} data={data} weighing={p.weighing} leadKey={listing.leadKey} />
        ) : (
          <Table
            name="Rivals by grip"
            rows={rows}
            columns={columnsFor(desk.market.currency)}
            id={(r) => String(r.id)}
            at={at}
            rowHeight={48}
            onAt={(_, r) => set({ at: r ? String(r.id) : null, side: 'detail' })}
            onEnter={(r) => r.rival && set({ read: String(r.id) })}
            empty="No rivals yet."
          />
        )}
      </ViewFrame>
      {pasting && (
        <PasteRival
          desk={desk}
          listing={listing}
          rival={pasting === true ? undefined : pasting}
          attempt={rivals.attempt}
          stale={rivals.stale}
          close={() => setPasting(null)}
        />
      )}
    </>
  )
}

/** What the address says is read: among results by its rank, otherwise a saved rival by its number. */
function readIn(params: URLSearchParams, choosing: boolean): ReadRival | null {
  const number = Number(params.get('read'))
  if (!number) return null
  return choosing ? { term: params.get('readterm') ?? '', rank: number } : { rival: number }
}

type Row = { id: number; place: number; name: string; title: string; grip: number; reach: number; rival?: Rival }

function rowsOf(data: Rivals, platform: string): Row[] {
  const rows: Omit<Row, 'place'>[] = data.rivals.map((r) => ({
    id: r.id,
    name: nameOf(r),
    title: r.title,
    grip: r.grip,
    reach: r.reach,
    rival: r,
  }))
  rows.splice(data.rank - 1, 0, { id: 0, name: 'Your listing', title: `on ${platform}`, grip: data.grip, reach: data.reach })
  return rows.map((r, i) => ({ ...r, place: i + 1 }))
}

const columnsFor = (currency: string): Column<Row>[] => [
  { key: 'place', head: '', width: '26px', right: true, cell: (r) => <span className="num quiet">{r.place}</span> },
  {
    key: 'name',
    head: 'Listing',
    width: 'minmax(180px,1fr)',
    cell: (r) => (
      <span className="block leading-tight overflow-hidden">
        <b className={r.rival ? 'font-semibold' : 'font-bold text-primary'}>{r.name}</b>
        {r.rival && r.rival.changes.length > 0 && <span className="mark ml-2">{counted(r.rival.changes.length, 'change')}</span>}
        <span className="block quiet text-[13px] truncate" title={r.title}>
          {r.title}
        </span>
      </span>
    ),
  },
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly it holds your picks, 0–100',
    width: '150px',
    cell: (r) => <Bar value={r.grip} shown={fixed(r.grip, 0)} mine={!r.rival} />,
  },
  { key: 'reach', head: 'Reach', width: '52px', right: true, cell: (r) => <span className="num">{wholePercent(r.reach)}%</span> },
  {
    key: 'price',
    head: 'Price',
    title: 'Without shipping',
    width: '72px',
    right: true,
    cell: (r) => (r.rival ? <span className="num">{money(r.rival.state.price ?? null, currency)}</span> : ''),
  },
  {
    key: 'ratings',
    head: 'Ratings',
    width: '64px',
    right: true,
    cell: (r) => (r.rival ? <Num value={r.rival.state.ratings} unit="ratings" /> : ''),
  },
  {
    key: 'seen',
    head: 'Last seen',
    width: '96px',
    right: true,
    cell: (r) => (r.rival ? <span className="quiet text-[13px]">{dateOf(r.rival.seenAt)}</span> : ''),
  },
]
