import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import type { Place } from '../kit/shop'
import { toast } from '../kit/toast'

const when = (at: string) =>
  new Date(at).toLocaleString(undefined, { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

/** Where the listing goes: to the simulated market, or out as a file. */
export function SendOut({ place, settle, copyAll }: { place: Place; settle: () => Promise<void>; copyAll: () => void }) {
  const cache = useQueryClient()
  const path = { id: place.listingId }
  const key = ['sent', place.listingId]
  const sent = useQuery({ queryKey: key, queryFn: () => ask(api.GET('/api/listings/{id}/sent', { params: { path } })), staleTime: 0 }).data
  const send = async () => {
    try {
      await settle()
      const done = await ask(api.POST('/api/listings/{id}/send', { params: { path }, body: { marketId: place.market.id } }))
      toast(`Sent. Its index notices about ${when(done.noticedAt)}`)
    } catch (e) {
      toast((e as Error).message)
    }
    cache.invalidateQueries({ queryKey: key })
    cache.invalidateQueries({ queryKey: ['versions', place.listingId] })
  }
  const download = async (address: string) => {
    try {
      await settle()
      window.location.assign(address)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  return (
    <div className="side-part text-[14px]" data-testid="send">
      <h3 className="!mt-0">Send to {place.market.platformName}</h3>
      <p className="quiet mb-2">
        The market is simulated. Its search goes on finding what was there before until its index notices, hours later.
      </p>
      <p className="mb-3">
        <button type="button" className="btn btn-sm btn-primary" onClick={send}>
          Send this listing
        </button>
      </p>
      {sent && sent.length > 0 && (
        <table className="plain text-[13.5px] mb-3">
          <thead>
            <tr>
              <th>Sent</th>
              <th>Its index notices</th>
            </tr>
          </thead>
          <tbody>
            {sent.map((s, i) => (
              <tr key={s.at}>
                <td>
                  {when(s.at)}
                  {i === 0 && s.changed ? <span className="quiet">, changed since</span> : ''}
                </td>
                <td>
                  {new Date(s.noticedAt) <= new Date() ? <span className="quiet">noticed {when(s.noticedAt)}</span> : when(s.noticedAt)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h3>Out as a file</h3>
      <p className="flex flex-wrap gap-x-4 gap-y-1">
        <button type="button" className="link" onClick={copyAll}>
          Copy all <kbd>Alt C</kbd>
        </button>
        {(['csv', 'xlsx', 'json'] as const).map((kind) => (
          <button key={kind} type="button" className="link" onClick={() => download(`/api/listings/${place.listingId}/export.${kind}`)}>
            {kind.toUpperCase()}
          </button>
        ))}
      </p>
      <h3>All listings on {place.market.platformName}</h3>
      <p className="quiet mb-1">For upload: one row for each, fields as columns in the platform’s order.</p>
      <p className="flex gap-4">
        {(['csv', 'xlsx'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="link"
            onClick={() => download(`/api/platforms/${place.market.platformId}/listings.${kind}`)}
          >
            {kind.toUpperCase()}
          </button>
        ))}
      </p>
    </div>
  )
}
