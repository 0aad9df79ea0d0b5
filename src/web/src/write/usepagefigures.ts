import { useEffect, useState } from 'react'
import { api, ask, type Copy, type PageFigures } from '../kit/api'
import type { Desk } from '../kit/shop'

const Pause = 300

/** Figures of a page's draft, asked for when nothing has been typed for a moment; undefined for a listing that is no page. */
export function usePageFigures(desk: Desk, isPage: boolean, copy: Copy, seen: unknown): PageFigures | undefined {
  const [figures, setFigures] = useState<PageFigures>()
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the text, the picks or the page's state change
  useEffect(() => {
    if (!isPage) return
    let gone = false
    const timer = setTimeout(
      () =>
        ask(
          api.POST('/api/listings/{id}/page', {
            params: { path: { id: desk.listingId } },
            body: { marketId: desk.market.id, fields: copy },
          }),
        )
          .then((f) => !gone && setFigures(f))
          .catch(() => undefined),
      figures ? Pause : 0,
    )
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [desk, isPage, copy, seen])
  return figures
}
