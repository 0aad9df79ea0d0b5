import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { type Copy, opened, type Weighed } from '../kit/api'
import type { Draft } from '../kit/drafts/draft'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { weigh, weighKey } from '../kit/weighing'
import { type Pieces, piecesOf } from './segments'

/** What the draft holds of the picks, asked again at each change: one question at a time, and what was typed meanwhile is asked next. */
export function useDraftWeighing(desk: Desk, draft: Draft<Copy>, picturesRevision: number) {
  const cache = useQueryClient()
  const picks = usePicks(desk)
  const [weighed, setWeighed] = useState<{ copy: Copy; answer: Weighed } | null>(null)
  const [began, setBegan] = useState<Weighed | null>(null)
  const [problem, setProblem] = useState('')
  const asking = useRef(false)
  const asked = useRef<Copy>(undefined)
  const keyAt = useRef(0)

  const ask = useCallback(async () => {
    if (asking.current) return
    asking.current = true
    let copy: Copy
    do {
      copy = draft.snapshot().value
      asked.current = copy
      try {
        const answer = await weigh(cache, desk, copy)
        cache.setQueryData(weighKey(desk), answer)
        setWeighed({ copy, answer })
        setBegan((b) => b ?? answer)
        setProblem('')
      } catch (e) {
        setProblem((e as Error).message)
      }
    } while (copy !== draft.snapshot().value)
    asking.current = false
  }, [cache, desk, draft])

  const picksSeen = picks.dataUpdatedAt
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the picks or the alt texts change
  useEffect(() => {
    ask()
  }, [picksSeen, picturesRevision, ask])
  useEffect(
    () =>
      draft.subscribe(() => {
        if (draft.snapshot().value === asked.current) return
        keyAt.current ||= performance.now()
        ask()
      }),
    [draft, ask],
  )

  // From key to repainted lines: measured here, reported by the bench. The message comes round after the frame is painted.
  useLayoutEffect(() => {
    if (!keyAt.current || weighed?.copy !== draft.snapshot().value) return
    const start = keyAt.current
    keyAt.current = 0
    requestAnimationFrame(() => {
      const painted = new MessageChannel()
      painted.port1.onmessage = () => performance.measure('key to lines', { start })
      painted.port2.postMessage(null)
    })
  }, [weighed, draft])

  const weighing = useMemo(() => (weighed && picks.data ? opened(weighed.answer, picks.data.picks) : undefined), [weighed, picks.data])
  const drawn = useRef<Pieces>(new Map())
  const pieces = useMemo(() => {
    drawn.current = piecesOf(weighing, drawn.current)
    return drawn.current
  }, [weighing])
  return { weighing, began, problem, pieces, weighedCopy: weighed?.copy, picksSeen }
}
