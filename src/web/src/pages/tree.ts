import type { Page } from '../kit/api'

/** Where a page is to be: inside which page, and at which place there. */
export type Place = { parentId: number | null; order: number }

const siblings = (pages: readonly Page[], parentId: number | null, without: number) =>
  pages.filter((p) => p.parentId === parentId && p.id !== without)

/** The pages inside a page, at any depth, with itself. */
export function branch(pages: readonly Page[], id: number): Set<number> {
  const found = new Set([id])
  for (let grown = true; grown; ) {
    grown = false
    for (const p of pages)
      if (p.parentId !== null && found.has(p.parentId) && !found.has(p.id)) {
        found.add(p.id)
        grown = true
      }
  }
  return found
}

/** Where a key moves a page: up or down among its siblings, into the page above it, or out of the one it is in. */
export function placeByKey(pages: readonly Page[], page: Page, to: 'up' | 'down' | 'in' | 'out'): Place | null {
  const around = siblings(pages, page.parentId, -1)
  const at = around.findIndex((p) => p.id === page.id)
  if (to === 'up' || to === 'down') {
    const order = at + (to === 'up' ? -1 : 1)
    return order < 0 || order >= around.length ? null : { parentId: page.parentId, order }
  }
  if (to === 'in') return at > 0 ? { parentId: around[at - 1].id, order: siblings(pages, around[at - 1].id, -1).length } : null
  const parent = pages.find((p) => p.id === page.parentId)
  return parent ? { parentId: parent.parentId, order: siblings(pages, parent.parentId, -1).findIndex((p) => p.id === parent.id) + 1 } : null
}

/** Where a page is dropped: below the row above the gap, as deep as it was drawn to the right, and never inside itself. */
export function placeByDrag(pages: readonly Page[], id: number, overId: number, level: number): Place | null {
  const own = branch(pages, id)
  if (own.has(overId) && overId !== id) return null
  const others = pages.filter((p) => !own.has(p.id))
  const from = pages.findIndex((p) => p.id === id)
  const over = pages.findIndex((p) => p.id === overId)
  // Dragged down it comes after the row under it, dragged up before it.
  const before = overId === id ? pages.slice(0, from) : over > from ? pages.slice(0, over + 1) : pages.slice(0, over)
  const above = before.filter((p) => !own.has(p.id)).at(-1)
  if (!above) return { parentId: null, order: 0 }
  let parent: Page | undefined = above
  let after: Page | undefined
  while (parent && parent.level >= level) {
    after = parent
    parent = others.find((p) => p.id === parent?.parentId)
  }
  const parentId = parent?.id ?? null
  const inside = others.filter((p) => p.parentId === parentId)
  return { parentId, order: after ? inside.findIndex((p) => p.id === after?.id) + 1 : 0 }
}
