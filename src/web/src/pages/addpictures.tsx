import { useRef, useState } from 'react'
import { useShop } from '../kit/shop'

/** Adds picture files to a product or a page, after the pictures that it has. */
export function AddPictures({ now, add }: { now: number | undefined; add: (productId: number, files: File[]) => void }) {
  const products = useShop().data?.products ?? []
  const [chosen, setChosen] = useState<number | null>(null)
  const input = useRef<HTMLInputElement>(null)
  const productId = chosen ?? now ?? products[0]?.id
  if (productId === undefined) return null
  return (
    <div className="mt-5">
      <div className="sub">Add picture files</div>
      <select
        className="inline-input w-full"
        aria-label="Whose pictures"
        value={productId}
        onChange={(e) => setChosen(Number(e.target.value))}
      >
        {products.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
            {p.isPage ? ' (page)' : ''}
          </option>
        ))}
      </select>
      <button type="button" className="pill mt-2" onClick={() => input.current?.click()}>
        Choose files
      </button>
      <input
        ref={input}
        type="file"
        multiple
        accept="image/png,image/jpeg,image/webp,image/avif"
        className="hidden"
        aria-label="Picture files to add"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          e.target.value = ''
          if (files.length > 0) add(productId, files)
        }}
      />
    </div>
  )
}
