import { useState } from 'react'
import { usePages } from '../kit/pages'

/** Chooses what a link leads to: a page of the shop by its name, so that the link stays right when the page moves, or any address. */
export function LinkBox({
  now,
  done,
  close,
}: {
  now: string | undefined
  done: (href: string | null, name: string) => void
  close: () => void
}) {
  const pages = usePages().data?.pages ?? []
  const [text, setText] = useState('')
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const found = pages.filter((p) => p.isPublished && words.every((w) => p.name.toLowerCase().includes(w))).slice(0, 6)
  const isAddress = /^(https?:\/\/|mailto:|tel:)/.test(text.trim())
  const target = pages.find((p) => `page:${p.id}` === now)
  return (
    <span className="basis-full block border border-(--tin-2) rounded p-2 bg-(--paper)" data-testid="link-box">
      <input
        autoFocus
        className="inline-input w-full"
        aria-label="Link to"
        placeholder="Name of a page, or https://…"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') close()
          else if (e.key === 'Enter' && isAddress) done(text.trim(), text.trim())
          else if (e.key === 'Enter' && found[0]) done(`page:${found[0].id}`, found[0].name)
          else return
          e.preventDefault()
          e.stopPropagation()
        }}
      />
      {now && (
        <p className="quiet mt-1">
          Leads to {target ? `“${target.name}”` : now.startsWith('page:') ? 'a page that was deleted' : now}.{' '}
          <button type="button" className="link" onClick={() => done(null, '')}>
            Remove the link
          </button>
        </p>
      )}
      {!isAddress && (
        <span className="flex flex-wrap gap-1 mt-1">
          {found.map((p) => (
            <button key={p.id} type="button" className="choice" onClick={() => done(`page:${p.id}`, p.name)}>
              {p.name}
            </button>
          ))}
          {found.length === 0 && <span className="quiet">No published page has such a name.</span>}
        </span>
      )}
    </span>
  )
}
