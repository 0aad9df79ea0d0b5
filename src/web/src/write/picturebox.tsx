import { useState } from 'react'

/** Asks for a picture of a rich text: where its file is, and what one sees in it. */
export function PictureBox({ done, close }: { done: (src: string, alt: string) => void; close: () => void }) {
  const [src, setSrc] = useState('')
  const [alt, setAlt] = useState('')
  const ready = /^(https?:\/\/|\/)\S+$/.test(src.trim())
  const key = (e: React.KeyboardEvent) => {
    if (e.key === 'Escape') close()
    else if (e.key === 'Enter' && ready) done(src.trim(), alt.trim())
    else if (e.key !== 'Enter') return
    e.preventDefault()
    e.stopPropagation()
  }
  return (
    <span className="basis-full block border border-(--tin-2) rounded p-2 bg-(--paper)" data-testid="picture-box">
      <input
        autoFocus
        className="inline-input w-full"
        aria-label="Address of the picture"
        placeholder="https://… or /…"
        maxLength={2000}
        value={src}
        onChange={(e) => setSrc(e.target.value)}
        onKeyDown={key}
      />
      <input
        className="inline-input w-full mt-1"
        aria-label="Alt text of the picture"
        placeholder="Alt text: what one sees in it"
        maxLength={500}
        value={alt}
        onChange={(e) => setAlt(e.target.value)}
        onKeyDown={key}
      />
      <button type="button" className="choice mt-1" disabled={!ready} onClick={() => done(src.trim(), alt.trim())}>
        Insert picture
      </button>
    </span>
  )
}
