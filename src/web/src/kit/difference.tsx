/** What two texts begin and end with, and what differs between: whole words. */
export function difference(before: string, after: string): { start: string; gone: string; come: string; end: string } {
  const [old, next] = [before.split(/(?<= )/), after.split(/(?<= )/)]
  const most = Math.min(old.length, next.length)
  let start = 0
  while (start < most && old[start] === next[start]) start++
  let end = 0
  while (end < most - start && old[old.length - 1 - end] === next[next.length - 1 - end]) end++
  return {
    start: old.slice(0, start).join(''),
    gone: old.slice(start, old.length - end).join(''),
    come: next.slice(start, next.length - end).join(''),
    end: old.slice(old.length - end).join(''),
  }
}

/** A text before and after: what both begin and end with stands once. */
export function Difference({ before, after }: { before: string; after: string }) {
  const { start, gone, come, end } = difference(before, after)
  return (
    <>
      <span className="quiet">{start}</span>
      {gone && <del>{gone}</del>}
      {gone && come && ' '}
      {come && <ins>{come}</ins>}
      <span className="quiet">{end}</span>
    </>
  )
}
