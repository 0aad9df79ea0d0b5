import type { Market } from './api'
import { openDoor } from './door/open'
import { Key } from './key'
import { searchAt } from './marketlink'
import { dayName } from './numbers'
import { useConnected } from './shop'

/** When the seller saw something, and where it came from. */
export type SeenAt = { day: string; source: string }

/** “Seen on November 30 (page.html)”; nothing where the source answered just now. */
export const seenOn = (seen: SeenAt | null | undefined) => (seen ? `Seen on ${dayName(seen.day)} (${seen.source})` : null)

/** What is not known of a term in a market without a connection, and how it is brought in. */
export function ToBring({ market, term, what, plain = false }: { market: Market; term: string; what: string; plain?: boolean }) {
  const address = searchAt(market, term)
  const connected = useConnected()
  if (connected) return <p className="quiet text-[13.5px]">{what}</p>
  return (
    <div className="text-[13.5px]" data-testid="to-bring">
      <p className="quiet">
        {what} {address ? 'Open the search,' : `Search for it at ${market.platformName},`} copy or save the page, and bring it here.
      </p>
      {!plain && (
        <p className="flex flex-wrap gap-2 mt-1.5">
          {address && (
            <a className="pill" href={address} target="_blank" rel="noopener noreferrer">
              Open <Key of="openAtMarket" />
            </a>
          )}
          <button type="button" className="pill" onClick={() => openDoor({ term })}>
            Paste or drop <Key of="door" />
          </button>
        </p>
      )}
    </div>
  )
}
