import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Copy, type Listing } from '../kit/api'
import { Dialog } from '../kit/dialog'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { asText } from './texts'

const widths = [
  ['wide', 'Wide', 860],
  ['phone', 'Phone', 380],
] as const

const encoded = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/** A page as it is written now, roughly as a visitor sees it: the shop's own design is not known here. */
export function PagePreview(p: { desk: Desk; listing: Listing; copy: Copy; alts: string[]; crumbs: string[]; close: () => void }) {
  const [width, setWidth] = useState<(typeof widths)[number]>(widths[0])
  const files = useQuery({ queryKey: queryKey('pictures'), queryFn: () => ask(api.GET('/api/pictures')) }).data?.pictures
  const text = (role: string) => asText(p.copy[p.listing.fields.find((f) => f.role === role)?.key ?? ''])
  const pictures = p.alts.map((alt, i) => {
    const file = files?.find((f) => f.productId === p.desk.product.id && f.number === i)?.file
    return file
      ? `<figure><img src="/api/pictures/files/${file}" alt="${encoded(alt)}"></figure>`
      : `<figure class="none">${encoded(alt) || 'A picture without alt text'}</figure>`
  })
  const html = `<!doctype html><meta charset="utf-8"><link rel="stylesheet" href="/page-preview.css">
    <nav>${encoded(p.listing.page?.brand || 'Your shop')}</nav>
    <p class="crumbs">${p.crumbs.map(encoded).join(' › ')}</p>
    ${pictures.slice(0, 1).join('')}
    <h1>${encoded(text('heading'))}</h1>
    ${text('short') ? `<p class="short">${encoded(text('short'))}</p>` : ''}
    ${text('body') || '<p>No text yet.</p>'}
    ${pictures.slice(1).join('')}`
  return (
    <Dialog name="The page as a visitor sees it" close={p.close} width={940}>
      <div className="flex gap-2 items-center mb-2">
        <h2 className="text-[18px] font-bold">The page as a visitor sees it</h2>
        <span className="ml-auto flex gap-1" role="group" aria-label="Width">
          {widths.map((w, i) => (
            <button
              key={w[0]}
              type="button"
              className="choice"
              data-first-focus={i === 0 || undefined}
              aria-pressed={width[0] === w[0]}
              onClick={() => setWidth(w)}
            >
              {w[1]}
            </button>
          ))}
        </span>
      </div>
      <iframe
        title="The page"
        sandbox="allow-same-origin"
        srcDoc={html}
        className="block mx-auto bg-white border border-base-300 rounded"
        style={{ width: Math.min(width[2], 880), maxWidth: '100%', height: '62vh' }}
      />
      <p className="quiet text-[13px] mt-2">The order and the texts are those of the page; colours and fonts are your shop’s own.</p>
    </Dialog>
  )
}
