import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import type { Place } from '../kit/shop'

type Bad = { line: number; text: string; reason: string }

/** A pasted column of terms joins the shelf. What cannot be taken stays in the box, each line with its reason. */
export function Paste({
  place,
  close,
  done,
  asFile,
}: {
  place: Place
  close: () => void
  done: () => void
  asFile: (text: string) => void
}) {
  const [text, setText] = useState('')
  const [source, setSource] = useState('')
  const [bad, setBad] = useState<Bad[]>([])
  const [said, setSaid] = useState('')
  const cache = useQueryClient()
  const add = async () => {
    try {
      const result = await ask(
        api.POST('/api/markets/{marketId}/paste', {
          params: { path: { marketId: place.market.id } },
          body: { text, source: source || null },
        }),
      )
      await Promise.all(['shelf', 'dig', 'term', 'picks', 'weigh'].map((key) => cache.invalidateQueries({ queryKey: [key] })))
      setBad(result.bad)
      setText(result.bad.map((b) => b.text).join('\n'))
      setSaid(
        `${result.taken} ${result.taken === 1 ? 'term is' : 'terms are'} on the shelf, ${result.new} of them new.${result.bad.length ? ` ${result.bad.length} could not be taken and ${result.bad.length === 1 ? 'is' : 'are'} kept above.` : ''}`,
      )
      if (result.taken > 0) done()
    } catch (e) {
      setSaid(`${(e as Error).message} Nothing was taken; your text is as it was.`)
    }
  }
  return (
    <div>
      <h3>Paste terms</h3>
      <p className="quiet text-[13.5px] mb-2">
        One term a line, from a spreadsheet or a list. Behind it, where you have them: searches a month, then competing listings.
      </p>
      <textarea
        autoFocus
        className="textarea w-full h-48 num text-[13px]"
        aria-label="Terms to paste"
        placeholder={'bat roost box\t320\t45\nlarch bat box; 1,300; 210\nbat box kit, 12.1k'}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) add()
          if (e.key === 'Escape') close()
        }}
      />
      {bad.length > 0 && (
        <ul className="text-[13px] my-2" data-testid="bad-lines">
          {bad.map((b) => (
            <li key={b.line}>
              <b>Line {b.line}</b>: {b.reason}
            </li>
          ))}
        </ul>
      )}
      <label className="block text-[13.5px] my-2">
        Where they are from{' '}
        <input className="inline-input w-36 ml-1" placeholder="pasted" value={source} onChange={(e) => setSource(e.target.value)} />
      </label>
      <p className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm btn-primary" disabled={!text.trim()} onClick={add}>
          Put on the shelf <kbd className="!text-inherit !bg-transparent">Ctrl Enter</kbd>
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={!text.trim()}
          title="More columns, months, other number styles: say what each column is"
          onClick={() => asFile(text)}
        >
          As a table…
        </button>
        <button type="button" className="btn btn-sm" onClick={close}>
          Close <kbd>Esc</kbd>
        </button>
      </p>
      {said && (
        <p className="mt-2 text-[13.5px]" role="status">
          {said}
        </p>
      )}
    </div>
  )
}
