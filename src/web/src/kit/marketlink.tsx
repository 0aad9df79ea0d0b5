import type { Market } from './api'
import { Key } from './key'
import { useShortcuts } from './shortcuts'

/** The marketplace’s own search for a term; undefined where its address is not known. */
export const searchAt = (market: Pick<Market, 'searchAddress'>, term: string) =>
  market.searchAddress?.replace('{term}', encodeURIComponent(term))

/** Opens the marketplace’s own search for a term beside this program, by link and by key. */
export function MarketLink({ market, term }: { market: Market; term: string }) {
  const address = searchAt(market, term)
  useShortcuts({ openAtMarket: address !== undefined && (() => window.open(address, '_blank', 'noopener,noreferrer')) })
  if (!address) return null
  return (
    <p className="text-[13.5px] mb-1">
      <a className="link" href={address} target="_blank" rel="noopener noreferrer">
        Open at {market.platformName} <Key of="openAtMarket" />
      </a>
    </p>
  )
}
