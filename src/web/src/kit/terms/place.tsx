import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type Listing, type Schemas, type Value } from '../api'
import { Dialog } from '../dialog'
import { Difference } from '../difference'
import { listingDraft, useDraftView } from '../drafts/drafts'
import { useSteps } from '../drafts/steps'
import { Key } from '../key'
import { LeftOutPicks } from '../leftout'
import { messages } from '../messages'
import { counted, fixed } from '../numbers'
import { OpenListing } from '../openlisting'
import { queryKey, refresh } from '../queries'
import type { Desk } from '../shop'
import { toast } from '../toast'
import { weighKey } from '../weighing'

type Way = Schemas['PlacesWay']

/** Puts picks into the listing: each way with what it gains and the text that it makes. */
export function PlaceDialog(p: { desk: Desk; terms: string[]; done: () => void; close: () => void }) {
  return (
    <Dialog name="Add to a field" close={p.close} width={680}>
      <h2 className="text-[18px] font-bold mb-2">
        Add {p.terms.length === 1 ? `“${p.terms[0]}”` : counted(p.terms.length, 'term')} to the listing
      </h2>
      <OpenListing desk={p.desk}>{(listing) => <Ways {...p} listing={listing} />}</OpenListing>
    </Dialog>
  )
}

const most = 30

function Ways({
  desk,
  terms,
  done,
  close,
  listing,
}: {
  desk: Desk
  terms: string[]
  done: () => void
  close: () => void
  listing: Listing
}) {
  const cache = useQueryClient()
  const [draft] = useState(() => listingDraft(listing.id, listing.copy, listing.revision))
  const copy = useDraftView(draft).value
  const steps = useSteps(draft, { screen: 'write', product: desk.product.id, listing: desk.listingId, page: listing.page?.id })
  const [at, setAt] = useState(0)
  const texts = terms.slice(0, most)
  const query = useQuery({
    queryKey: queryKey('places', desk.listingId, desk.market.id, texts, copy),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/listings/{id}/places', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: copy, texts },
          signal,
        }),
      ),
    retry: false,
    staleTime: Infinity,
  })
  const ways = query.data?.ways ?? []
  const nameOf = (way: Way) => (way.field === null ? 'Each where it gains most' : (way.fields[0]?.label ?? way.field))
  const use = async (way: Way | undefined) => {
    if (!way) return
    const next = { ...draft.snapshot().value, ...Object.fromEntries(way.fields.map((f) => [f.key, f.value as Value])) }
    steps.replace(next, messages.placed(way.placed, nameOf(way)), 'move')
    done()
    close()
    await draft.flush()
    await cache.invalidateQueries({ queryKey: weighKey(desk) })
    await refresh(cache, 'listing')
    if (draft.unsaved) toast(messages.textNotSaved)
  }
  // The ways come a moment after the dialog, which gave the focus to what was there.
  const form = useRef<HTMLFormElement>(null)
  const isThere = query.data !== undefined
  useEffect(() => {
    if (isThere) form.current?.querySelector<HTMLElement>('input')?.focus()
  }, [isThere])
  if (query.isError) return <p role="alert">{query.error.message}</p>
  if (!query.data) return <p className="quiet">Trying each field…</p>
  const way = ways[at]
  return (
    <form
      ref={form}
      onSubmit={(e) => {
        e.preventDefault()
        use(way)
      }}
    >
      {terms.length > most && <p className="quiet text-[13.5px] mb-2">The first {most} of them; add the others after these.</p>}
      {ways.length === 0 && (
        <p className="mb-2">
          {query.data.held.length > 0
            ? 'No edit of a searched field gains anything for them: the listing holds them as firmly as there is room for.'
            : 'No field may have them as they are.'}
        </p>
      )}
      <div role="radiogroup" aria-label="Where" className="text-[14.5px] mb-2">
        {ways.map((w, i) => (
          <label key={w.field ?? ''} className="flex gap-2 items-baseline py-0.5 cursor-pointer">
            <input type="radio" name="way" checked={i === at} onChange={() => setAt(i)} className="radio radio-xs radio-primary" />
            <b className="font-semibold">{nameOf(w)}</b>
            <span className="num">+{fixed(w.gain, 1)} grip</span>
            <span className="quiet num text-[13.5px]">
              {[
                w.reach > 0.05 ? `+${fixed(w.reach, 1)} reach` : null,
                texts.length === 1 ? null : w.placed.length === texts.length ? 'all of them' : `${w.placed.length} of ${texts.length}`,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
          </label>
        ))}
      </div>
      {way && (
        <div className="text-[14px] border-t border-base-300 pt-2 max-h-[38vh] overflow-auto" data-testid="placed">
          {way.fields.map((f) => (
            <p key={f.key} className="mb-2">
              <b className="font-semibold">{f.label}</b>
              <span className="block leading-snug">
                <Difference before={f.before} after={f.after} />
              </span>
            </p>
          ))}
        </div>
      )}
      {query.data.held.length > 0 && ways.length > 0 && (
        <p className="quiet text-[13.5px]">Without a place that gains anything: {query.data.held.join(', ')}.</p>
      )}
      <LeftOutPicks desk={desk} leftOut={query.data.leftOut} changed={() => query.refetch()} />
      <p className="flex gap-3 items-center mt-3">
        <button type="submit" className="btn btn-sm btn-primary" disabled={!way}>
          Use this text <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
        <span className="quiet text-[13px]">
          Undo takes it back. <Key of="undo" />
        </span>
      </p>
    </form>
  )
}
