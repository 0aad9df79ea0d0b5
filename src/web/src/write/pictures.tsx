import { useQueryClient } from '@tanstack/react-query'
import { memo, useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { Finding, Shop } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { picturesDraft } from '../kit/drafts'
import type { Desk } from '../kit/shop'
import { FieldFindings, type FindingActions, PicturesKey } from './findings'

/** The alt texts of a product while they are edited: saved after a pause, then `saved` is called; `now` returns the latest. */
export function usePictures(desk: Desk, saved: () => void) {
  const cache = useQueryClient()
  const { id, pictures, picturesRevision } = desk.product
  const [draft] = useState(() => picturesDraft(id, pictures, picturesRevision))
  useEffect(() => draft.open(pictures, picturesRevision), [draft, pictures, picturesRevision])
  const view = useSyncExternalStore(draft.subscribe, draft.snapshot)
  const told = useRef(saved)
  told.current = saved
  const { revision } = view
  const first = useRef(revision)
  useEffect(() => {
    if (revision === first.current) return
    first.current = revision
    // Another listing of the product that is opened now has them too.
    cache.setQueryData<Shop>(
      ['shop'],
      (s) =>
        s && {
          ...s,
          products: s.products.map((p) => (p.id === id ? { ...p, pictures: draft.snapshot().value, picturesRevision: revision } : p)),
        },
    )
    told.current()
  }, [cache, draft, id, revision])
  useEffect(() => {
    draft.flush()
    return () => {
      draft.flush()
    }
  }, [draft])
  const put = useCallback((next: string[]) => draft.change(next), [draft])
  const flush = useCallback(() => draft.flush(), [draft])
  const now = useCallback(() => draft.snapshot().value, [draft])
  return {
    draft,
    texts: view.value,
    theirs: view.theirs,
    problem: view.state === 'failed' || view.state === 'refused' ? view.message : '',
    put,
    flush,
    now,
  }
}

/** Alt texts that could not be saved, or were changed in another window. */
export function PicturesState({ pictures }: { pictures: ReturnType<typeof usePictures> }) {
  const { draft, texts, theirs, problem } = pictures
  if (theirs)
    return (
      <ConflictBox
        what="The alt text"
        savedAt={theirs.savedAt}
        rows={Array.from({ length: Math.max(texts.length, theirs.value.length) }, (_, i) => ({
          label: `Picture ${i + 1}`,
          mine: texts[i] ?? '',
          theirs: theirs.value[i] ?? '',
        }))}
        keepMine={() => draft.keepMine()}
        takeTheirs={() => draft.takeTheirs()}
      />
    )
  return problem ? (
    <p className="text-accent text-[13.5px] mb-2" role="alert">
      Alt text not saved. {problem} It is kept in this browser.{' '}
      <button type="button" className="link" onClick={() => draft.flush()}>
        Try again
      </button>
    </p>
  ) : null
}

/** The alt text of each picture of the product, shared by all platforms. Typing in another field does not redraw it. */
export const Pictures = memo(function Pictures(p: {
  texts: string[]
  put: (texts: string[]) => void
  findings: Finding[]
  actions: FindingActions
}) {
  const box = useRef<HTMLDivElement>(null)
  const focus = (i: number) => setTimeout(() => box.current?.querySelectorAll('textarea')[i]?.focus())
  return (
    <div className="mb-4" data-field={PicturesKey} ref={box}>
      <h2 className="text-[14px] font-semibold mb-1">
        Alt text <small className="quiet text-[13px] font-normal font-sans">describes each picture; shared by all platforms</small>
      </h2>
      {[...p.texts, ''].map((text, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a picture is its place
        <div key={i} className="grid grid-cols-[18px_minmax(0,1fr)_auto] items-baseline gap-x-1">
          <span className="quiet num text-[12px]">{i < p.texts.length ? i + 1 : '+'}</span>
          <div className="field-box">
            <textarea
              className="block w-full resize-none bg-transparent outline-none field-sizing-content text-[15px] leading-[1.5]"
              rows={1}
              spellCheck
              aria-label={`Alt text ${i + 1}`}
              placeholder={i === 0 ? 'Describe the first picture' : 'Add a picture'}
              value={text}
              onChange={(e) => p.put([...p.texts.slice(0, i), e.target.value.replace(/[\r\n]+/g, ' '), ...p.texts.slice(i + 1)])}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && !e.altKey && !e.ctrlKey && !e.metaKey) {
                  e.preventDefault()
                  focus(i + 1)
                } else if (e.key === 'Backspace' && text === '' && i < p.texts.length) {
                  e.preventDefault()
                  p.put(p.texts.filter((_, k) => k !== i))
                  focus(Math.max(0, i - 1))
                }
              }}
            />
          </div>
          <span className="quiet num text-[12px] w-8 text-right">{text ? [...text].length : ''}</span>
        </div>
      ))}
      <FieldFindings findings={p.findings} actions={p.actions} />
    </div>
  )
})
