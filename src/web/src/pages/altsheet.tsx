export function AltSheet(_: { marketId: string | null }) {
  return null
}
