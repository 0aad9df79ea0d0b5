import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Listing } from './api'
import { listingQuery } from './listingqueries'
import type { Desk } from './shop'

/** Opens the desk's listing anew for a screen that edits it, after what an earlier visit left unsaved is back. */
export function OpenListing({ desk, children }: { desk: Desk; children: (listing: Listing) => ReactNode }) {
  const listing = useQuery({ ...listingQuery(desk.listingId), refetchOnMount: 'always' })
  if (listing.isError && !listing.data)
    return (
      <main className="p-10" role="alert">
        <p className="mb-3">Couldn’t open the listing: {listing.error.message} Your text is kept.</p>
        <button type="button" className="btn btn-sm" onClick={() => listing.refetch()}>
          Try again
        </button>
      </main>
    )
  // While the server can't be reached, one continues with what was opened before.
  if (!listing.data || !(listing.isFetchedAfterMount || listing.isError)) return <main />
  return children(listing.data)
}
