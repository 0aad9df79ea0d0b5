import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type Brought, type Copy, type PlacedTerm, type ProductPlatforms } from '../kit/api'
import { wholePercent } from '../kit/demand'
import { Difference } from '../kit/difference'
import { messages } from '../kit/messages'
import { compact, counted, fixed, full } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { gradeWords, Legend, Thread } from '../kit/thread'
import { ViewFrame } from '../kit/viewframe'
import type { ViewProps } from './frame'

/** The product's picks in every place where it is listed: what each lacks, and its better text brought over. */
export function Places(p: ViewProps) {
  const { desk, listing } = p
  const [params, set] = useAddress()
  const query = useQuery({
    queryKey: queryKey('placed', desk.product.id, desk.market.country, listing.copy),
    queryFn: () =>
      ask(
        api.POST('/api/products/{id}/platforms', {
          params: { path: { id: desk.product.id } },
          body: { country: desk.market.country, listingId: desk.listingId, fields: listing.copy },
        }),
      ),
    placeholderData: (before) => before,
  })
  const data = query.data
  const columns = data ? columnsOf(data, desk.listingId) : []
  const sort = sortIn(params, { key: 'lacks', down: true })
  const rows = sortRows([...(data?.terms ?? [])], [...columns, lacks], sort)
  const at = Math.max(
    0,
    rows.findIndex((r) => r.key === params.get('at')),
  )
  const others = data?.platforms.filter((o) => o.listingId !== desk.listingId) ?? []
  const top = (
    <>
      <p className="head text-[19px] font-bold leading-tight">
        {desk.product.name} in {counted(data?.platforms.length ?? 0, 'place')}, {desk.market.countryName}
      </p>
      <div className="mt-1">
        <Legend />
      </div>
    </>
  )
  return (
    <ViewFrame {...p} name="places" top={top} side={data && <BringOver {...p} others={others} />}>
      <Table
        name="Picks by platform"
        rows={rows}
        columns={columns}
        id={(r) => r.key}
        at={rows.length > 0 ? at : -1}
        rowHeight={34}
        onAt={(_, r) => set({ at: r?.key ?? null })}
        sort={sort}
        onSort={(s) => set(sortChanges(s))}
        empty={<span className="quiet">{query.isPending ? 'Weighing…' : query.isError ? query.error.message : 'No picks yet.'}</span>}
      />
    </ViewFrame>
  )
}

const lost = (t: PlacedTerm) => t.places.reduce((sum, place) => sum + (place.grade === 'missing' ? (place.volume ?? 0) : 0), 0)

/** The order of a first look: the picks whose searches are lost in some place. */
const lacks: Column<PlacedTerm> = { key: 'lacks', head: '', width: '', value: lost, cell: () => null }

function columnsOf(data: ProductPlatforms, mine: number): Column<PlacedTerm>[] {
  return [
    { key: 'text', head: 'Pick', width: 'minmax(160px,1fr)', words: true, value: (t) => t.text, cell: (t) => t.text },
    ...data.platforms.map(
      (place, i): Column<PlacedTerm> => ({
        key: `p${place.listingId}`,
        head: (
          <span className="inline-flex gap-1.5 items-baseline">
            <b className={place.listingId === mine ? 'text-primary' : ''}>{place.name}</b>
            <span className="num">{place.grip === null ? 'no picks' : `grip ${fixed(place.grip, 0)}`}</span>
          </span>
        ),
        title:
          place.reach === null
            ? 'No picks'
            : `Reach ${wholePercent(place.reach)}%, grip ${fixed(place.grip, 0)}, ${place.lost === null ? counted(place.lostPicks, 'pick') : `${full(place.lost)} searches/mo`} lost`,
        width: 'minmax(150px,0.8fr)',
        value: (t) => t.places[i].grip,
        cell: (t) => {
          const held = t.places[i]
          return (
            <span className="inline-flex gap-2 items-center">
              <Thread grade={held.grade} title={held.missing.length > 0 ? `Missing: ${held.missing.join(', ')}` : gradeWords[held.grade]} />
              <span className="num quiet text-[12.5px]" title={`${full(held.volume)} searches/mo there`}>
                {compact(held.volume)}
              </span>
            </span>
          )
        },
      }),
    ),
    {
      key: 'lost',
      head: 'Lost in all',
      title: 'Searches/mo in places where the listing can’t be found for it',
      width: '84px',
      right: true,
      value: lost,
      cell: (t) => <span className="num">{compact(lost(t))}</span>,
    },
  ]
}

/** The texts of another place, fitted to this platform's limits, field by field. */
function BringOver(p: ViewProps & { others: ProductPlatforms['platforms'] }) {
  const { desk, listing } = p
  const [chosen, setChosen] = useState<number | null>(null)
  const best = [...p.others].sort((a, b) => (b.grip ?? -1) - (a.grip ?? -1))[0]
  const from = chosen ?? best?.listingId
  const query = useQuery({
    queryKey: queryKey('placed', 'bring', desk.listingId, desk.market.id, from, listing.copy),
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/bring', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: listing.copy, from: from as number },
        }),
      ),
    enabled: from !== undefined,
  })
  if (p.others.length === 0)
    return (
      <p className="quiet text-[14px]">
        This product is listed in one place only. Add it to another platform from the menu beside its name.
      </p>
    )
  return (
    <>
      <h3 className="!mt-0">Bring text over to {listing.platformName}</h3>
      <label className="block text-[14px] my-2">
        From{' '}
        <select className="inline-input" value={from} onChange={(e) => setChosen(Number(e.target.value))}>
          {p.others.map((o) => (
            <option key={o.listingId} value={o.listingId}>
              {o.name}
              {o.grip !== null && `, grip ${fixed(o.grip, 0)} there`}
            </option>
          ))}
        </select>
      </label>
      {query.isPending && <p className="quiet text-[14px]">Fitting the texts…</p>}
      {query.isError && <p role="alert">{query.error.message}</p>}
      {query.data && (
        <BroughtFields
          key={`${from} ${JSON.stringify(listing.copy)}`}
          {...p}
          found={query.data}
          name={p.others.find((o) => o.listingId === from)?.name ?? ''}
        />
      )}
    </>
  )
}

function BroughtFields({ found, name, listing, steps, weighing }: ViewProps & { found: Brought; name: string }) {
  const [kept, setKept] = useState<ReadonlySet<string>>(
    () => new Set(found.fields.filter((f) => f.gain > 0 || (f.before === '' && f.gain >= 0)).map((f) => f.field)),
  )
  const toggle = (field: string) => {
    const next = new Set(kept)
    if (!next.delete(field)) next.add(field)
    setKept(next)
  }
  const apply = () => {
    const values = Object.fromEntries(found.fields.filter((f) => kept.has(f.field)).map((f) => [f.field, f.value]))
    steps.replace({ ...listing.copy, ...values } as Copy, messages.broughtOver(kept.size, name), 'broughtOver')
  }
  if (found.fields.length === 0) return <p className="quiet text-[14px]">{name} has no other text that fits here.</p>
  return (
    <div data-testid="bring">
      <p className="quiet text-[13px]">
        Fitted to {listing.platformName}’s limits. Grip is {fixed(weighing.grip, 0)} now and {fixed(found.all, 0)} with all of it.
      </p>
      {found.fields.map((f) => (
        <div key={f.field} className="border-b border-base-300 py-2 text-[14px]">
          <label className="flex gap-2 items-baseline cursor-pointer">
            <input
              type="checkbox"
              className="checkbox checkbox-xs checkbox-primary self-center"
              checked={kept.has(f.field)}
              onChange={() => toggle(f.field)}
            />
            <b className="font-semibold">{f.label}</b>
            <span className="num quiet ml-auto">
              {f.gain >= 0 ? '+' : '−'}
              {fixed(Math.abs(f.gain), 1)}
            </span>
          </label>
          {f.cut && <p className="quiet text-[12.5px]">Shortened to fit</p>}
          <p className="text-[13.5px] leading-snug whitespace-pre-wrap">
            <Difference before={f.before} after={f.after} />
          </p>
        </div>
      ))}
      <p className="mt-3">
        <button type="button" className="btn btn-sm btn-primary" disabled={kept.size === 0} onClick={apply}>
          {kept.size === 0 ? 'Bring over' : `Bring ${counted(kept.size, 'field')} over`}
        </button>
      </p>
    </div>
  )
}
