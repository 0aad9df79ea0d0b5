import { useCallback, useRef } from 'react'
import type { Copy, Value, VersionReason } from '../api'
import { messages } from '../messages'
import { toast } from '../toast'
import type { Draft } from './draft'

const MostSteps = 50

/** Changes that were not typed, such as fills and fixes: the state before each is kept as a version, and each can be undone. */
export function useSteps(draft: Draft<Copy>) {
  const steps = useRef<{ what: string; undo: () => void }[]>([])
  /** Replaces the whole text; `why` is the reason of the version that keeps the one before. */
  const replace = useCallback(
    (next: Copy, what: string, why: VersionReason) => {
      const before = draft.snapshot().value
      draft.change(next, why)
      const undo = () => {
        steps.current = steps.current.filter((s) => s.undo !== undo)
        draft.change(before, 'undo')
      }
      steps.current = [...steps.current, { what, undo }].slice(-MostSteps)
      toast(what, undo)
    },
    [draft],
  )
  const replaceField = useCallback(
    (key: string, value: Value, what: string, why: VersionReason) => replace({ ...draft.snapshot().value, [key]: value }, what, why),
    [draft, replace],
  )
  const undoLast = () => {
    const last = steps.current.at(-1)
    if (!last) return
    last.undo()
    toast(messages.undone(last.what))
  }
  return { replace, replaceField, undoLast: steps.current.length > 0 && undoLast }
}

export type Steps = ReturnType<typeof useSteps>
