import { useQueryClient } from '@tanstack/react-query'
import { memo, useEffect, useRef, useState } from 'react'
import type { Finding } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import type { Draft } from '../kit/drafts/draft'
import { picturesDraft, useDraftView } from '../kit/drafts/drafts'
import { changeKnownProduct, type Desk, knownProduct } from '../kit/shop'
import { FieldFindings, type FindingActions, PicturesKey } from './findings'

/** The draft of a product's alt texts. What is saved is told to the other listings of the product. */
export function usePictures(desk: Desk) {
  const cache = useQueryClient()
  const { id, pictures, picturesRevision } = desk.product
  const [draft] = useState(() => picturesDraft(id, pictures, picturesRevision))
  useEffect(() => draft.open(pictures, picturesRevision), [draft, pictures, picturesRevision])
  const view = useDraftView(draft)
  const { revision } = view
  useEffect(() => {
    const known = knownProduct(cache, id)
    if (known && revision > known.picturesRevision)
      changeKnownProduct(cache, id, { pictures: draft.snapshot().value, picturesRevision: revision })
  }, [cache, draft, id, revision])
  return { draft, view }
}

/** Alt texts that could not be saved, or were changed in another window. */
export function PicturesState({ pictures }: { pictures: ReturnType<typeof usePictures> }) {
  const { draft, view } = pictures
  const { value, theirs, state, message } = view
  if (theirs)
    return (
      <ConflictBox
        what="The alt text"
        savedAt={theirs.savedAt}
        rows={Array.from({ length: Math.max(value.length, theirs.value.length) }, (_, i) => ({
          label: `Picture ${i + 1}`,
          mine: value[i] ?? '',
          theirs: theirs.value[i] ?? '',
        }))}
        keepMine={() => draft.keepMine()}
        takeTheirs={() => draft.takeTheirs()}
      />
    )
  return state === 'failed' || state === 'refused' ? (
    <p className="text-accent text-[13.5px] mb-2" role="alert">
      Alt text not saved. {message} It is kept in this browser.{' '}
      <button type="button" className="link" onClick={() => draft.flush()}>
        Try again
      </button>
    </p>
  ) : null
}

/** The alt text of each picture of the product, shared by all platforms. Typing in another field does not redraw it. */
export const Pictures = memo(function Pictures(p: {
  draft: Draft<string[]>
  texts: string[]
  /** The places of those that are locked. */
  locked: number[]
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
              readOnly={p.locked.includes(i)}
              title={p.locked.includes(i) ? 'Locked under Web shop, Alt text: something else depends on it' : undefined}
              spellCheck
              aria-label={`Alt text ${i + 1}`}
              placeholder={i === 0 ? 'Describe the first picture' : 'Add a picture'}
              value={text}
              onChange={(e) => p.draft.change([...p.texts.slice(0, i), e.target.value.replace(/[\r\n]+/g, ' '), ...p.texts.slice(i + 1)])}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && !e.altKey && !e.ctrlKey && !e.metaKey) {
                  e.preventDefault()
                  focus(i + 1)
                } else if (e.key === 'Backspace' && text === '' && i < p.texts.length && !p.locked.some((l) => l >= i)) {
                  e.preventDefault()
                  p.draft.change(p.texts.filter((_, k) => k !== i))
                  focus(Math.max(0, i - 1))
                }
              }}
            />
          </div>
          <span className="quiet num text-[12px] min-w-8 text-right">{p.locked.includes(i) ? 'locked' : text ? [...text].length : ''}</span>
        </div>
      ))}
      <FieldFindings findings={p.findings} actions={p.actions} />
    </div>
  )
})
