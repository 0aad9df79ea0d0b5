import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type BuyerPhrase } from '../kit/api'
import { useChanges } from '../kit/changes'
import { openDoor } from '../kit/door/open'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { Menu } from '../kit/menu'
import { messages } from '../kit/messages'
import { counted, fixed, full } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import { useConnected } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { toast } from '../kit/toast'
import { ViewFrame } from '../kit/viewframe'
import { Walked } from '../kit/walked'
import type { ViewProps } from './frame'

/** Phrases that tell the buyers of this listing from those of its rivals, to be picked by one key. */
export function Buyers(p: ViewProps) {
  const { desk } = p
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const { run } = useChanges()
  const path = { id: desk.listingId }
  const marketId = desk.market.id
  const query = useQuery({
    queryKey: queryKey('buyers', desk.listingId, marketId),
    queryFn: ({ signal }) => ask(api.GET('/api/listings/{id}/reviews/phrases', { params: { path, query: { marketId } }, signal })),
    placeholderData: (before) => before,
  })
  const data = query.data
  const stale = () => refresh(cache, 'reviews')
  const connected = useConnected()
  const fetchReviews = () =>
    run(
      async () => {
        const done = await ask(api.POST('/api/listings/{id}/reviews/fetch', { params: { path }, body: { marketId } }))
        if (!done.what) toast(done.mine + done.theirs > 0 ? messages.reviewsThere(done.mine, done.theirs) : messages.reviewsNone)
        return done
      },
      undefined,
      stale,
    )
  const remove = (rivals: boolean) =>
    run(() => ask(api.DELETE('/api/listings/{id}/reviews', { params: { path, query: { ofRivals: rivals } } })), undefined, stale)
  const pick = (phrase: BuyerPhrase) => {
    if (phrase.pick) return toast(messages.pickedBefore(phrase.text))
    run(
      async () => {
        const done = await ask(
          api.POST('/api/products/{id}/picks', {
            params: { path: { id: desk.product.id } },
            body: {
              texts: [phrase.text],
              source: 'What buyers say',
              fit: null,
              home: null,
              note: null,
              saidBy: [`${counted(phrase.ofRivals ? phrase.theirs : phrase.mine, 'review')} of ${phrase.ofRivals ? 'rivals' : 'yours'}`],
              language: null,
              noteRevision: null,
            },
          }),
        )
        return { ...done, what: messages.pickedPhrase(phrase.text, phrase.volume) }
      },
      undefined,
      (c) => refresh(c, 'picks'),
    )
  }
  const groups = groupsOf(data?.phrases ?? [])
  const rows = groups.flatMap((g) => g.phrases)
  const at = Math.max(
    0,
    rows.findIndex((r) => r.text === params.get('at')),
  )
  const phrase: BuyerPhrase | undefined = rows[at]
  useShortcuts({ fetchReviews: connected && fetchReviews, pickPhrase: phrase && (() => pick(phrase)) })
  const top = (
    <>
      <p className="head text-[19px] font-bold leading-tight">
        What buyers say about yours, and about theirs <HelpLink to="what-buyers-say" about="these phrases" />
      </p>
      {data && (
        <p className="quiet text-[13.5px] mt-1" data-testid="review-counts">
          {counted(data.mine, 'review')} of yours, {full(data.theirs)} of your rivals’.
          {data.phrases.length > 0 &&
            (data.mine === 0 || data.theirs === 0) &&
            ' What most of them say, the most frequent first; with reviews of both sides it is told what marks each.'}
          {data.market > 0 && ` How usual a phrase is comes from ${full(data.market)} reviews in the market.`}
        </p>
      )}
      <div className="flex flex-wrap gap-2 items-center mt-1">
        {connected && (
          <button type="button" className="pill" onClick={fetchReviews}>
            Get reviews from the market <Key of="fetchReviews" />
          </button>
        )}
        <Menu
          label="Files: import, export or remove reviews"
          button={
            <>
              Files <span aria-hidden="true">▾</span>
            </>
          }
          items={[
            { label: 'Import reviews…', run: () => openDoor() },
            { label: 'Export all reviews', run: () => window.location.assign(`/api/listings/${desk.listingId}/reviews/export.csv`) },
            { label: 'Remove the reviews of this listing', run: () => remove(false), disabled: !data?.mine },
            { label: 'Remove the reviews of rivals', run: () => remove(true), disabled: !data?.theirs },
          ]}
        />
        <span className="quiet text-[13px]">
          <Key of="pickPhrase" /> picks
        </span>
      </div>
    </>
  )
  return (
    <ViewFrame
      {...p}
      name="buyers"
      top={top}
      side={phrase && <PhraseDetail phrase={phrase} also={alsoOf(data?.phrases ?? [], phrase)} pick={() => pick(phrase)} />}
    >
      {rows.length === 0 ? (
        <div className="quiet text-[14px] max-w-[64ch]">
          {query.isPending && <p>Reading reviews…</p>}
          {query.isError && <p role="alert">{query.error.message}</p>}
          {data && data.theirs === 0 && (
            <p className="mb-2">
              No reviews of rivals yet. Save rivals under{' '}
              <Link className="link" to={`${desk.base}/weigh?view=rivals`}>
                Rivals
              </Link>
              , then {connected && 'get their reviews from the market, or '}paste or drop a table of reviews, or pages of their listings
              (V).
            </p>
          )}
          {data && data.mine === 0 && (
            <p>
              No reviews of this listing yet. {connected && 'Send it to the market and get them from there, or '}
              {connected ? 'paste' : 'Paste'} or drop a table of reviews, or the page of your listing (V).
            </p>
          )}
          {data && data.mine > 0 && data.theirs > 0 && (
            <p>No phrase is clearly more usual for one side. More reviews make smaller differences visible.</p>
          )}
        </div>
      ) : (
        <Walked
          name="Phrases of buyers"
          testid="phrases"
          rows={rows}
          id={(r) => `${r.text} ${r.ofRivals}`}
          at={at}
          onAt={(i) => set({ at: rows[i]?.text ?? null, side: 'detail' })}
          on={{ Enter: (r) => pick(r) }}
          focus
          row={(r, i) => (
            <>
              {groups.find((g) => g.phrases[0] === r) && <p className="sub !mt-0">{groups.find((g) => g.phrases[0] === r)?.name}</p>}
              <div
                className="grid items-baseline gap-3 text-[14px]"
                style={{ gridTemplateColumns: 'minmax(0,1fr) 150px 150px 130px 110px' }}
                data-testid="phrase"
                data-at={i === at}
              >
                <b className="font-semibold truncate" title={r.text}>
                  {r.text}
                </b>
                <span className="num text-[13px]">
                  {full(r.mine)} <span className="quiet font-sans">yours,</span> {full(r.theirs)}{' '}
                  <span className="quiet font-sans">theirs</span>
                </span>
                <span className="num text-[13px]">
                  {r.volume === null ? (
                    <span className="quiet font-sans">No data</span>
                  ) : (
                    <>
                      {full(r.volume)} <span className="quiet font-sans">searches/mo</span>
                    </>
                  )}
                </span>
                <span className="quiet">{r.stars === null ? 'no stars' : `${fixed(r.stars, 1)} stars on average`}</span>
                <span className="mark">{r.pick ? 'picked' : r.holds !== 'missing' ? 'in your listing' : ''}</span>
              </div>
            </>
          )}
        />
      )}
    </ViewFrame>
  )
}

/** The phrases in groups, in the order that a seller works through them. */
function groupsOf(phrases: readonly BuyerPhrase[]): { name: string; phrases: BuyerPhrase[] }[] {
  const shown = phrases.filter((r) => r.within === null)
  const theirs = shown.filter((r) => r.ofRivals)
  const mine = shown.filter((r) => !r.ofRivals)
  const isComplaint = (r: BuyerPhrase) => r.tone === 'complaint'
  return [
    { name: 'Said about theirs, and true of yours by its facts', phrases: theirs.filter((r) => r.isTrueOfMine) },
    { name: 'Praise for theirs', phrases: theirs.filter((r) => !r.isTrueOfMine && !isComplaint(r)) },
    { name: 'Complaints about theirs', phrases: theirs.filter((r) => !r.isTrueOfMine && isComplaint(r)) },
    { name: 'Praise for yours', phrases: mine.filter((r) => !isComplaint(r)) },
    { name: 'Complaints about yours', phrases: mine.filter(isComplaint) },
  ].filter((g) => g.phrases.length > 0)
}

const alsoOf = (phrases: readonly BuyerPhrase[], phrase: BuyerPhrase) =>
  phrases.filter((r) => r.within === phrase.text && r.ofRivals === phrase.ofRivals).map((r) => r.text)

function PhraseDetail({ phrase, also, pick }: { phrase: BuyerPhrase; also: string[]; pick: () => void }) {
  const side = phrase.ofRivals ? 'theirs' : 'yours'
  return (
    <>
      <h3 className="!mt-0">{phrase.text}</h3>
      <p className="text-[14px]">
        In {counted(phrase.mine, 'review')} of yours and {full(phrase.theirs)} of theirs.{' '}
        {phrase.stars === null ? 'Without stars' : `${fixed(phrase.stars, 1)} stars on average`}.
      </p>
      {phrase.z !== 0 && (
        <p className="quiet text-[13px]">
          z {fixed(Math.abs(phrase.z), 1)}: how far beyond chance it marks {side}; 1.96 is where the list begins.{' '}
          <HelpLink to="what-buyers-say" about="z" />
        </p>
      )}
      {phrase.notInFacts.length > 0 && (
        <p className="text-[14px] mt-2">
          {phrase.notInFacts.map((c) => `“${c.word}”`).join(', ')} {phrase.notInFacts.length === 1 ? 'isn’t' : 'aren’t'} in this product’s
          facts. Pick it only if it is true.
        </p>
      )}
      <p className="my-2">
        <button type="button" className="btn btn-sm btn-primary" disabled={phrase.pick !== null} onClick={pick}>
          {phrase.pick ? 'Picked' : 'Pick'} <Key of="pickPhrase" plain />
        </button>
      </p>
      <h3>What they wrote</h3>
      {phrase.sentences.map((s) => (
        <blockquote key={s} className="border-l-[3px] border-(--tin-2) pl-3 my-2 text-[14px]">
          {s}
        </blockquote>
      ))}
      {also.length > 0 && (
        <>
          <h3>In the same sentences</h3>
          <p className="quiet text-[14px]">{also.join(', ')}</p>
        </>
      )}
    </>
  )
}
