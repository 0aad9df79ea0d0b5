import { useState } from 'react'
import type { Pick } from './api'
import type { FactSaved, usePickActions } from './shop'

export type NoteSaved = FactSaved & { revision?: number }

/** A pick's note as it is being written: saved when the box is left, and never over what another window wrote meanwhile. */
export function useNote(pick: Pick, save: ReturnType<typeof usePickActions>['note']) {
  const [text, setText] = useState(pick.note)
  const [saved, setSaved] = useState<NoteSaved>({})
  const send = async () => setSaved(await save(pick.text, text, saved.revision ?? pick.noteRevision))
  const leave = () => {
    if (text !== pick.note) send()
  }
  const state =
    saved.problem !== undefined ? (
      <p className="text-accent text-[13px]" role="alert">
        Not saved: {saved.problem}{' '}
        <button type="button" className="link" onClick={send}>
          Try again
        </button>
      </p>
    ) : saved.theirs !== undefined ? (
      <p className="text-accent text-[13px]" role="alert" data-testid="note-conflict">
        Another window changed this note to “{saved.theirs}”.{' '}
        <button type="button" className="link" onClick={send}>
          Keep what is here
        </button>{' '}
        <button
          type="button"
          className="link"
          onClick={() => {
            setText(String(saved.theirs))
            setSaved({})
          }}
        >
          Use that
        </button>
      </p>
    ) : null
  return { text, setText, leave, state }
}
