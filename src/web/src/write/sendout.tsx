import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, ask } from '../kit/api'
import { useChanges } from '../kit/changes'
import { messages } from '../kit/messages'
import { dateTimeOf, today } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import { SampleBadge } from '../kit/sample'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'

/** Publishing: to the simulated market, or by hand on a platform of the seller's own; and export as a file. */
export function SendOut({
  desk,
  isPage,
  settle,
  copyAll,
}: {
  desk: Desk
  /** Whether it is a page of the web shop, which the seller publishes. */
  isPage: boolean
  settle: () => Promise<void>
  copyAll: () => void
}) {
  const cache = useQueryClient()
  const { run } = useChanges()
  const path = { id: desk.listingId }
  const { platformName } = desk.market
  const own = desk.market.own || isPage
  const sent = useQuery({
    queryKey: queryKey('sent', desk.listingId),
    queryFn: () => ask(api.GET('/api/listings/{id}/sent', { params: { path } })),
    staleTime: 0,
  }).data
  const send = async () => {
    try {
      await settle()
      const done = await ask(api.POST('/api/listings/{id}/send', { params: { path }, body: { marketId: desk.market.id } }))
      toast(own ? messages.published : messages.sent(desk.market.platformName, done.noticedAt))
    } catch (e) {
      toast((e as Error).message)
    }
    refresh(cache, 'versions', 'pages', 'watch')
  }
  // What is live is what later changes are compared with.
  const markLive = (since: string) =>
    run(
      async () => {
        await settle()
        return ask(api.POST('/api/listings/{id}/live', { params: { path }, body: { marketId: desk.market.id, since } }))
      },
      undefined,
      (c) => refresh(c, 'versions', 'pages', 'watch'),
    )
  const download = async (address: string) => {
    try {
      await settle()
      window.location.assign(address)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  return (
    <div className="side-part text-[14px]" data-testid="send" tabIndex={-1}>
      <h3 className="!mt-0">
        Publish on {platformName} {!own && <SampleBadge market={desk.market} />}
      </h3>
      <p className="quiet mb-2">
        {own
          ? 'This platform has no connection. Copy or export the listing, publish it there, then mark it as published here.'
          : 'This market is simulated. Its search results update when it re-indexes, some hours after sending.'}
      </p>
      <p className="mb-3">
        <button type="button" className="btn btn-sm btn-primary" onClick={send}>
          {own ? 'Mark as published' : 'Send listing'}
        </button>
      </p>
      {sent?.length === 0 && (
        <form
          className="mb-3 flex flex-wrap gap-2 items-baseline"
          onSubmit={(e) => {
            e.preventDefault()
            const since = new FormData(e.currentTarget).get('since') as string
            if (since) markLive(since)
          }}
        >
          <label>
            These texts are live already, since <input className="inline-input num" type="date" name="since" max={today()} required />
          </label>
          <button type="submit" className="link">
            Mark as live
          </button>
        </form>
      )}
      {sent && sent.length > 0 && (
        <table className="plain text-[13.5px] mb-3">
          <thead>
            <tr>
              <th>{own ? 'Published' : 'Sent'}</th>
              <th>Search results update</th>
            </tr>
          </thead>
          <tbody>
            {sent.map((s, i) => (
              <tr key={s.at}>
                <td>
                  {dateTimeOf(s.at)}
                  {i === 0 && s.changed ? <span className="quiet">, edited since</span> : ''}
                </td>
                <td>{s.isNoticed ? <span className="quiet">updated {dateTimeOf(s.noticedAt)}</span> : dateTimeOf(s.noticedAt)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {sent && sent.length > 0 && (
        <p className="mb-3">
          <Link className="link" to={`${desk.base}/watch`}>
            Check whether it is found
          </Link>
        </p>
      )}
      <h3>Export this listing</h3>
      <p className="flex flex-wrap gap-x-4 gap-y-1">
        <button type="button" className="link" onClick={copyAll}>
          Copy all
        </button>
        {(['csv', 'xlsx', 'json'] as const).map((kind) => (
          <button key={kind} type="button" className="link" onClick={() => download(`/api/listings/${desk.listingId}/export.${kind}`)}>
            {kind.toUpperCase()}
          </button>
        ))}
      </p>
      <h3>Export all listings on {platformName}</h3>
      <p className="quiet mb-1">For upload: one row per listing, with the fields as columns in the platform’s order.</p>
      <p className="flex gap-4">
        {(['csv', 'xlsx'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="link"
            onClick={() => download(`/api/platforms/${desk.market.platformId}/listings.${kind}`)}
          >
            {kind.toUpperCase()}
          </button>
        ))}
      </p>
    </div>
  )
}
