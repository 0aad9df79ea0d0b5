import { useCallback, useMemo, useRef } from 'react'
import { api, ask, type Copy, type Finding, type Value } from '../kit/api'
import { useChanges } from '../kit/changes'
import type { Draft } from '../kit/drafts/draft'
import type { ListingSteps } from '../kit/drafts/steps'
import { useFacts } from '../kit/facts'
import { messages } from '../kit/messages'
import { factLines } from '../kit/names'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'
import { type FindingActions, PicturesKey } from './findings'
import type { useCheck } from './usecheck'

/** The boxes of a field, in their order. */
export const boxesOf = (field: string) => [
  ...document.querySelectorAll<HTMLTextAreaElement | HTMLInputElement | HTMLSelectElement>(
    `[data-field="${field}"] :is(textarea, input, select)`,
  ),
]

/** The key of the field that has the focus. */
export const focusedField = () => document.activeElement?.closest('[data-field]')?.getAttribute('data-field') ?? undefined

/** What can be done about findings, by a click and by key. */
export function useFindings(
  desk: Desk,
  draft: Draft<Copy>,
  pictures: Draft<string[]>,
  checked: ReturnType<typeof useCheck>,
  replaceField: ListingSteps['replaceField'],
) {
  const { open, about, check } = checked
  const { add } = useFacts(desk.product)
  const fix = useCallback(
    async (finding: Finding, label?: string) => {
      const fixOf = (f: Finding | undefined) => [f?.fix, ...(f?.otherFixes ?? [])].find((x) => x && (!label || x.label === label))
      const wanted = fixOf(finding)
      if (!wanted) return
      const { field } = wanted
      const still =
        field === PicturesKey
          ? about.current?.pictures === pictures.snapshot().value
          : about.current?.copy[field] === draft.snapshot().value[field]
      const now = fixOf(still ? finding : (await check()).find((f) => f.key === finding.key))
      if (!now) return toast(messages.fixedAlready)
      const said = messages.fixDone(now.label)
      if (field === PicturesKey) {
        const before = pictures.snapshot().value
        pictures.change(now.value as string[])
        toast(said, () => pictures.change(before))
      } else replaceField(field, now.value as Value, said, 'fix')
    },
    [draft, pictures, about, check, replaceField],
  )
  const dismiss = useCallback(
    async (f: Finding) => {
      const put = async (aside: boolean) => {
        await ask(api.PUT('/api/listings/{id}/asides', { params: { path: { id: desk.listingId } }, body: { key: f.key, aside } }))
        check()
      }
      try {
        await put(!f.aside)
        toast(f.aside ? messages.restored : f.claim ? messages.dismissedWord(f.claim.word) : messages.dismissed, () => put(f.aside))
      } catch (e) {
        toast((e as Error).message)
      }
    },
    [desk, check],
  )
  const go = useCallback((f: Finding) => {
    const boxes = boxesOf(f.field)
    const box = boxes[Math.min(f.item, boxes.length - 1)]
    box?.focus()
    if (box instanceof HTMLTextAreaElement && f.length > 0) box.setSelectionRange(f.start, f.start + f.length)
  }, [])
  const addToFacts = useCallback(
    async (f: Finding) => {
      const line = f.claim && factLines[f.claim.facet]
      if (!f.claim || !line) return
      const problem = await add(line, f.claim.word.toLowerCase())
      if (problem) return toast(messages.notAdded(problem))
      check()
    },
    [add, check],
  )
  const { run } = useChanges()
  const noClaim = useCallback(
    async (f: Finding) => {
      const word = f.claim?.word
      if (word) await run(() => ask(api.POST('/api/shop/words', { body: { word, facet: null, forget: false } })), check)
    },
    [run, check],
  )
  const actions: FindingActions = useMemo(() => ({ fix, dismiss, addToFacts, noClaim, go }), [fix, dismiss, addToFacts, noClaim, go])

  const walked = useRef(-1)
  // The finding that a key is about: the one just visited, else one of the tag or line with the focus, else one of the field.
  const ofFocused = (fixable: boolean) => {
    const key = focusedField()
    const here = open.filter((f) => f.field === key && (!fixable || f.fix || f.claim))
    const item = boxesOf(key ?? '').findIndex((box) => box.matches(':focus'))
    return here.find((f) => f === open[walked.current]) ?? here.find((f) => f.item === item) ?? here[0]
  }
  const visit = (by: number, show: () => void) => {
    if (open.length === 0) return toast(messages.noFindings)
    walked.current = (walked.current + by + open.length) % open.length
    show()
    go(open[walked.current])
  }
  /** What the shortcuts do; `show` opens the list of findings. */
  const keys = (show: () => void) => ({
    nextFinding: () => visit(1, show),
    previousFinding: () => visit(walked.current < 0 ? 0 : -1, show),
    applyFix: () => {
      const f = ofFocused(true)
      if (!f) return toast(messages.noFix)
      f.claim ? addToFacts(f) : fix(f)
    },
    addToFacts: () => {
      const f = open.find((x) => x.claim && x.field === focusedField())
      f ? addToFacts(f) : toast(messages.noClaim)
    },
    dismiss: () => {
      const f = ofFocused(false)
      if (f) dismiss(f)
    },
  })
  return { actions, keys }
}
