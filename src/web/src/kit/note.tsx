import { useState } from 'react'
import type { Pick } from './api'
import { NotSaved, type SavedText } from './notsaved'
import type { usePickActions } from './picks'

/** A pick's note as it is being written: saved when the box is left, and never over what another window wrote meanwhile. */
export function useNote(pick: Pick, save: ReturnType<typeof usePickActions>['note']) {
  const [text, setText] = useState(pick.note)
  const [saved, setSaved] = useState<SavedText>({})
  const send = async () => setSaved(await save(pick.text, text, saved.revision ?? pick.noteRevision))
  const leave = () => {
    if (text !== pick.note) send()
  }
  const use = (theirs: string) => {
    setText(theirs)
    setSaved({})
  }
  return { text, setText, leave, state: <NotSaved saved={saved} what="this note" again={send} use={use} /> }
}
