import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, ask, type PictureView, type Product } from '../kit/api'
import { useChanges } from '../kit/changes'
import { picturesDraft, useDraftView } from '../kit/drafts/drafts'
import { refresh } from '../kit/queries'
import { changeKnownProduct } from '../kit/shop'

/** The alt text of one picture and what the picture shows, each to be edited; the same draft as in Write. */
export function AltBox({
  most,
  picture,
  product,
  box,
}: {
  /** How long an alt text may be, in characters. */
  most: number
  picture: PictureView
  product: Product
  box: React.RefObject<HTMLTextAreaElement | null>
}) {
  const cache = useQueryClient()
  const { run } = useChanges()
  const [draft] = useState(() => picturesDraft(product.id, product.pictures, product.picturesRevision))
  useEffect(() => draft.open(product.pictures, product.picturesRevision), [draft, product.pictures, product.picturesRevision])
  const view = useDraftView(draft)
  const { revision } = view
  useEffect(() => {
    if (revision <= product.picturesRevision) return
    changeKnownProduct(cache, product.id, { pictures: draft.snapshot().value, picturesRevision: revision })
    refresh(cache, 'pages')
  }, [cache, draft, product.id, product.picturesRevision, revision])
  const alt = view.value[picture.number] ?? ''
  const write = (text: string) => draft.change(view.value.map((a, i) => (i === picture.number ? text : a)))
  const saveShows = (shows: string) =>
    shows !== picture.shows &&
    run(() =>
      ask(
        api.PUT('/api/pictures/{productId}/{number}/shows', {
          params: { path: { productId: picture.productId, number: picture.number } },
          body: { shows },
        }),
      ),
    )
  return (
    <>
      <label className="block text-[14px] mb-2">
        <b className="font-semibold">Alt text</b>{' '}
        <span className="quiet num">
          {[...alt].length} of {most}
        </span>
        <textarea
          ref={box}
          className="inline-input w-full field-sizing-content text-[15px]"
          value={alt}
          readOnly={picture.isLocked}
          placeholder="Describe what one sees; start with what matters"
          onChange={(e) => write(e.target.value.replace(/[\r\n]+/g, ' '))}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' && e.key !== 'Escape') return
            e.preventDefault()
            e.currentTarget.blur()
          }}
        />
      </label>
      {view.state !== 'saved' && view.message && (
        <p className="text-accent text-[13px]" role="alert">
          {view.message}
        </p>
      )}
      {picture.offer && (
        <p className="text-[14px] mb-2">
          <span className="quiet">What it shows, with your lead:</span> {picture.offer}{' '}
          <button type="button" className="link" onClick={() => write(picture.offer ?? '')}>
            Use it
          </button>
        </p>
      )}
      <label className="block text-[14px] mb-2">
        <b className="font-semibold">What it shows</b> <span className="quiet">for patterns</span>
        <input
          className="inline-input w-full"
          defaultValue={picture.shows}
          placeholder="e.g. a wren at the door of the box"
          onBlur={(e) => saveShows(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </label>
    </>
  )
}
