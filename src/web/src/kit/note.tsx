import { useEffect, useMemo } from 'react'
import type { Pick } from './api'
import { noteDraft, useDraftView } from './drafts/drafts'
import { NotSaved } from './notsaved'

/** A pick's note as it is being written: kept here at once, saved when the box is left, and never over what another window wrote meanwhile. */
export function useNote(productId: number, pick: Pick) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: a newer note is opened below, in the same draft
  const draft = useMemo(() => noteDraft(productId, pick.key, pick.note, pick.noteRevision), [productId, pick.key])
  useEffect(() => draft.open(pick.note, pick.noteRevision), [draft, pick.note, pick.noteRevision])
  const view = useDraftView(draft)
  const differs = (theirs: string) => [{ what: 'this note', theirs }]
  return {
    text: view.value,
    setText: (text: string) => draft.hold(text),
    leave: () => draft.release(),
    state: <NotSaved draft={draft} view={view} differs={differs} />,
  }
}
