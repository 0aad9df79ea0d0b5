import { useQueryClient } from '@tanstack/react-query'
import { memo, useCallback, useEffect, useRef, useState } from 'react'
import { api, ask, type Finding, type Product, type Shop } from '../kit/api'
import { inTurn, type Place } from '../kit/shop'
import { toast } from '../kit/toast'
import { FieldFindings, PicturesKey } from './findings'

const Pause = 300

/** The alt texts of a product as they are being written: saved after a pause, and `saved` is told; `now` has them as they stand. */
export function usePictures(place: Place, saved: () => void) {
  const cache = useQueryClient()
  const { id, name } = place.product
  const [texts, setTexts] = useState(place.product.pictures)
  const latest = useRef(texts)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const waiting = useRef(false)
  const told = useRef(saved)
  told.current = saved
  const flush = useCallback(async () => {
    clearTimeout(timer.current)
    if (!waiting.current) return
    waiting.current = false
    const know = (now: Partial<Product>) =>
      cache.setQueryData<Shop>(['shop'], (s) => s && { ...s, products: s.products.map((p) => (p.id === id ? { ...p, ...now } : p)) })
    // Another listing of the product that is opened now has them too.
    know({ pictures: latest.current })
    try {
      const product = await inTurn(() =>
        ask(
          api.PUT('/api/products/{id}', {
            params: { path: { id } },
            body: { name, facts: null, pictures: latest.current },
            keepalive: true,
          }),
        ),
      )
      know(product)
    } catch (e) {
      waiting.current = true
      toast(`The alt text was not saved: ${(e as Error).message} Trying again.`)
      timer.current = setTimeout(flush, 2000)
    }
  }, [cache, id, name])
  useEffect(() => {
    const leave = () => {
      flush()
    }
    window.addEventListener('pagehide', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      leave()
    }
  }, [flush])
  const put = useCallback(
    (next: string[]) => {
      latest.current = next
      setTexts(next)
      waiting.current = true
      clearTimeout(timer.current)
      timer.current = setTimeout(async () => {
        await flush()
        told.current()
      }, Pause)
    },
    [flush],
  )
  const now = useCallback(() => latest.current, [])
  return { texts, put, flush, now }
}

/** What is to be seen in each picture of the product, in words; the same on every platform. A key in another field draws it not anew. */
export const Pictures = memo(function Pictures(p: {
  texts: string[]
  put: (texts: string[]) => void
  findings: Finding[]
  fix: (f: Finding) => void
  aside: (f: Finding) => void
}) {
  const box = useRef<HTMLDivElement>(null)
  const focus = (i: number) => setTimeout(() => box.current?.querySelectorAll('textarea')[i]?.focus())
  return (
    <div className="mb-4" data-field={PicturesKey} ref={box}>
      <h2 className="text-[14px] font-semibold mb-1">
        Pictures{' '}
        <small className="quiet text-[13px] font-normal font-sans">
          alt text: what is to be seen in each; the product’s, on every platform
        </small>
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
              placeholder={i === 0 ? 'What is to be seen in the first picture' : 'another picture'}
              value={text}
              onChange={(e) => p.put([...p.texts.slice(0, i), e.target.value.replace(/[\r\n]+/g, ' '), ...p.texts.slice(i + 1)])}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && !e.altKey) {
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
      <FieldFindings findings={p.findings} fix={p.fix} aside={p.aside} />
    </div>
  )
})
