/** Where a key leads in a list of so many rows, from this one; undefined for keys that do not move. With `around`, the ends are joined. */
export function walk(key: string, at: number, count: number, around = false): number | undefined {
  const by = key === 'ArrowDown' || key === 'ArrowRight' ? 1 : key === 'ArrowUp' || key === 'ArrowLeft' ? -1 : 0
  if (by === 0 || count === 0) return undefined
  return around ? (at + by + count) % count : Math.max(0, Math.min(count - 1, at + by))
}
