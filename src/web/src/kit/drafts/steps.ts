import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import type { Copy, Value, VersionReason } from '../api'
import { type Place, turnHere } from '../changes'
import { messages } from '../messages'
import { toast } from '../toast'
import type { Draft } from './draft'

const MostSteps = 50

/** Some fields of a text; undefined where the text had none. */
type Fields = { [key: string]: Value | undefined }

/** A change that was not typed: the fields that it changed, before and after. */
type Step = { what: string; before: Fields; after: Fields; at: string }

/** The steps of a text, kept for as long as the window is open: they can be undone on another screen, too. */
type Steps = { done: Step[]; undone: Step[] }

const stepsOf = new WeakMap<Draft<Copy>, Steps>()

const parts = (from: Copy, to: Copy): Fields =>
  Object.fromEntries(
    Object.keys({ ...from, ...to })
      .filter((k) => JSON.stringify(from[k]) !== JSON.stringify(to[k]))
      .map((k) => [k, from[k]]),
  )

const withFields = (copy: Copy, fields: Fields): Copy =>
  Object.fromEntries(Object.entries({ ...copy, ...fields }).filter((e): e is [string, Value] => e[1] !== undefined))

/** Changes that were not typed, such as fills and fixes: the state before each is kept as a version, and each can be undone and made again, step by step. */
export function useSteps(draft: Draft<Copy>, place: Place) {
  const cache = useQueryClient()
  const put = useCallback((fields: Fields) => draft.change(withFields(draft.snapshot().value, fields), 'undo'), [draft])
  const steps = stepsOf.get(draft) ?? { done: [], undone: [] }
  stepsOf.set(draft, steps)
  const take = useCallback(
    (step: Step) => {
      steps.done = steps.done.filter((s) => s !== step)
      steps.undone = [...steps.undone, { ...step, at: new Date().toISOString() }]
      put(step.before)
    },
    [steps, put],
  )
  /** Replaces the whole text; `why` is the reason of the version that keeps the one before. */
  const replace = useCallback(
    (next: Copy, what: string, why: VersionReason) => {
      const before = draft.snapshot().value
      draft.change(next, why)
      const step = { what, before: parts(before, next), after: parts(next, before), at: new Date().toISOString() }
      steps.done = [...steps.done, step].slice(-MostSteps)
      steps.undone = []
      toast(what, () => take(step))
    },
    [draft, steps, take],
  )
  const replaceField = useCallback(
    (key: string, value: Value, what: string, why: VersionReason) => replace({ ...draft.snapshot().value, [key]: value }, what, why),
    [draft, replace],
  )
  /** Undoes the last change of the listing: the last step, or what was changed after it. */
  const undo = async () => {
    const last = steps.done.at(-1)
    if (await turnHere(cache, 'undo', place, last?.at)) return
    if (last) take(last)
    toast(last ? messages.undone(last.what) : messages.nothingToUndoHere)
  }
  /** Makes again what was undone last. */
  const redo = async () => {
    const last = steps.undone.at(-1)
    if (await turnHere(cache, 'redo', place, last?.at)) return
    if (last) {
      steps.undone = steps.undone.filter((s) => s !== last)
      steps.done = [...steps.done, { ...last, at: new Date().toISOString() }]
      put(last.after)
    }
    toast(last ? messages.redone(last.what) : messages.nothingToRedoHere)
  }
  /** Ctrl Z in a box: takes the last step back while nothing was typed into the field since. Typing is undone by the browser itself. */
  const undoInBox = (e: React.KeyboardEvent, field: string | undefined) => {
    const last = steps.done.at(-1)
    if (!last || !field || !(field in last.after) || e.key.toLowerCase() !== 'z' || !(e.ctrlKey || e.metaKey) || e.shiftKey) return
    if (JSON.stringify(draft.snapshot().value[field]) !== JSON.stringify(last.after[field])) return
    e.preventDefault()
    undo()
  }
  return { replace, replaceField, undo, redo, undoInBox }
}

export type ListingSteps = ReturnType<typeof useSteps>
