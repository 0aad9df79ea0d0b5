import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ask, type Listing, type Schemas, type Value } from './api'
import { useChanges } from './changes'
import { listingDraft, useDraftView } from './drafts/drafts'
import { useSteps } from './drafts/steps'
import { Key } from './key'
import { useLead } from './lead'
import { listingQuery } from './listingqueries'
import { messages } from './messages'
import { dateTimeOf, fixed } from './numbers'
import { queryKey, refresh } from './queries'
import type { Desk } from './shop'
import { useShortcuts } from './shortcuts'
import { toast } from './toast'
import { useSettled } from './words'

type Step = Schemas['NextStep']

/** Where a step is done that is not done at once. */
const places: Partial<Record<Step['kind'], string>> = {
  pickTerms: 'pick',
  fixRequired: 'write?side=findings',
  fillFacts: 'pick?side=facts',
  pickMore: 'dig',
  pickUsual: 'weigh?view=top&words=title',
  publish: 'write?side=send',
  wait: 'watch',
  check: 'watch',
  notFound: 'watch?show=missing',
  rankFell: 'watch?sort=change&dir=up',
}

// What is typed is not asked about letter by letter.
const Pause = 1200

/** One quiet line, in the same place on every screen of a listing: the next useful thing, which one key does. */
export function NextLine({ desk }: { desk: Desk }) {
  const listing = useQuery(listingQuery(desk.listingId)).data
  if (desk.product.isIdea)
    return (
      <div className="next-line">
        <b className="font-semibold">Idea</b>
        <span>Dig and pick as long as you like. As a product it has a text to write, and is among your listings.</span>
      </div>
    )
  return listing ? <Line key={`${listing.id} ${desk.market.id}`} desk={desk} listing={listing} /> : <div className="next-line">&nbsp;</div>
}

function Line({ desk, listing }: { desk: Desk; listing: Listing }) {
  const [draft] = useState(() => listingDraft(listing.id, listing.copy, listing.revision))
  const copy = useDraftView(draft).value
  const steps = useSteps(draft, { screen: 'write', product: desk.product.id, listing: listing.id, page: listing.page?.id })
  const settled = useSettled(copy, Pause)
  const setLead = useLead(desk)
  const navigate = useNavigate()
  const { run } = useChanges()
  const path = { id: listing.id }
  const next = useQuery({
    queryKey: queryKey('next', listing.id, desk.market.id, settled),
    queryFn: ({ signal }) =>
      ask(api.POST('/api/listings/{id}/next', { params: { path }, body: { marketId: desk.market.id, fields: settled }, signal })),
    placeholderData: (before) => before,
    retry: false,
  })
  const step = next.data?.steps[0]
  const text = step?.at ? messages.checkLater(dateTimeOf(step.at)) : (step?.text ?? '')
  const act = () => {
    if (!step) return
    const place = places[step.kind]
    if (place) return navigate(`${desk.base}/${place}`)
    if (step.lead) return setLead(step.lead, listing.leadKey, messages.leadSet(step.lead))
    if (!step.move) return
    // A text that is newer than what the move was found for is not overwritten.
    if (next.isPlaceholderData || draft.snapshot().value !== settled) return toast(messages.nextIsOld)
    steps.replaceField(step.move.field, step.move.value as Value, messages.moved(text), 'move')
  }
  const putOff = () =>
    step &&
    run(
      () => ask(api.POST('/api/listings/{id}/next/putoff', { params: { path }, body: { kind: step.kind } })),
      undefined,
      (c) => refresh(c, 'versions'),
    )
  useShortcuts({ next: act })
  return (
    <div className="next-line" data-testid="next" role="status" aria-live="off">
      <b className="font-semibold">Next</b>
      {step ? (
        <>
          <span>
            {text}
            {step.move && <span className="num"> (+{fixed(step.move.gain, 1)} grip)</span>}
          </span>
          <button type="button" className="link shrink-0" onClick={act}>
            {places[step.kind] ? 'Go there' : 'Do it'} <Key of="next" />
          </button>
          <button type="button" className="link quiet shrink-0" title="It comes back in a week" onClick={putOff}>
            Not now
          </button>
          <span className="why" title={step.why}>
            {step.why}
          </span>
        </>
      ) : next.isError ? (
        <span className="quiet">Not known: {next.error.message}</span>
      ) : next.data ? (
        <span className="quiet">
          Nothing for now.{next.data.putOff > 0 && ` Put off: ${next.data.putOff}.`} Ranks and sales by day are in Watch.
        </span>
      ) : (
        <span className="quiet">…</span>
      )}
    </div>
  )
}
