import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import { Dialog } from '../kit/dialog'
import { queryKey } from '../kit/queries'

const widths = [
  ['wide', 'Wide', 860],
  ['phone', 'Phone', 380],
] as const

/** A page as it is written now, roughly as a visitor sees it: the shop's own design is not known here. */
export function PagePreview(p: { page: number; settle: () => Promise<unknown>; close: () => void }) {
  const [width, setWidth] = useState<(typeof widths)[number]>(widths[0])
  const html = useQuery({
    queryKey: queryKey('pagepreview', p.page),
    // What was typed last is saved first, so that it is seen too.
    queryFn: async () => {
      await p.settle()
      return ask(api.GET('/api/pages/{id}/preview', { params: { path: { id: p.page } }, parseAs: 'text' }))
    },
    staleTime: 0,
    gcTime: 0,
  })
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
      {html.isError && <p className="text-accent">{html.error.message}</p>}
      <iframe
        title="The page"
        sandbox="allow-same-origin"
        srcDoc={html.data ?? ''}
        className="block mx-auto bg-white border border-base-300 rounded"
        style={{ width: Math.min(width[2], 880), maxWidth: '100%', height: '62vh' }}
      />
      <p className="quiet text-[13px] mt-2">The texts are those of the page; order, colours and fonts are your shop’s own.</p>
    </Dialog>
  )
}
