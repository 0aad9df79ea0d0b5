// As many rows as the server puts on one page.
const pageRows = 50

/** The page after this one: rows with a lower ID than its last; undefined after the last page. */
export const earlierThan = (page: { id: number }[]) => (page.length < pageRows ? undefined : page[page.length - 1]?.id)

/** Loads the next page of a list. */
export function Earlier({ pages }: { pages: { hasNextPage: boolean; isFetchingNextPage: boolean; fetchNextPage: () => void } }) {
  if (!pages.hasNextPage) return null
  return (
    <button type="button" className="link text-[14px] my-2" disabled={pages.isFetchingNextPage} onClick={() => pages.fetchNextPage()}>
      {pages.isFetchingNextPage ? 'Loading…' : 'Show earlier ones'}
    </button>
  )
}
