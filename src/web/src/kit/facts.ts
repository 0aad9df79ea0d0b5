import { useEffect, useMemo } from 'react'
import type { Facts, Product } from './api'
import { factsDraft, useDraftView } from './drafts/drafts'

/** The facts that are lists of words. */
export type FactLine = Exclude<keyof Facts, 'what' | 'brand'>

/** A product's facts as they are being written; `add` saves a word in one of their lines at once, and gives the problem, or null. */
export function useFacts(product: Product) {
  const facts = product.facts as Facts
  // biome-ignore lint/correctness/useExhaustiveDependencies: newer facts are opened below, in the same draft
  const draft = useMemo(() => factsDraft(product.id, facts, product.revision), [product.id])
  useEffect(() => draft.open(facts, product.revision), [draft, facts, product.revision])
  const view = useDraftView(draft)
  const add = async (line: FactLine, word: string): Promise<string | null> => {
    const now = draft.snapshot().value
    draft.change({ ...now, [line]: [...now[line], word] })
    await draft.flush()
    const { state, message } = draft.snapshot()
    return state === 'saved' ? null : message
  }
  return { draft, view, add }
}
