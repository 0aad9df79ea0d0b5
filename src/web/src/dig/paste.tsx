import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import { turnChange } from '../kit/changes'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { refresh } from '../kit/queries'
import { useKept } from '../kit/saving'
import type { Desk } from '../kit/shop'
import { pressed } from '../kit/shortcuts'
import { toast } from '../kit/toast'

type Bad = { line: number; text: string; reason: string }

/** The term and the number of a line such as “good box 400”; nothing for a line with columns, or whose number is small. */
export function endingInNumber(line: string): { term: string; volume: string } | undefined {
  const found = /^(?<term>[^\t,;|]*\p{L}[^\t,;|]*?) +(?<volume>\d{1,3}(?:[.,]\d{3})+|\d{2,}) *$/u.exec(line)
  return found?.groups && { term: found.groups.term.trim(), volume: found.groups.volume }
}

/** Adds a pasted column of terms to the shelf. Lines that can't be read stay in the box, each with its reason. */
export function Paste({ desk, close, done, asFile }: { desk: Desk; close: () => void; done: () => void; asFile: (text: string) => void }) {
  const [text, setText, forgetText] = useKept(`terms ${desk.market.id}`, '')
  const [source, setSource, forgetSource] = useKept(`source ${desk.market.id}`, '')
  const [bad, setBad] = useState<Bad[]>([])
  const [said, setSaid] = useState('')
  const cache = useQueryClient()
  const [kept, setKept] = useState('')
  // “good box 400”: a number at the end of a line without a separator may be a volume or part of the term.
  const guessed = text === kept ? [] : text.split('\n').flatMap((line) => endingInNumber(line) ?? [])
  const splitNumbers = () =>
    setText(
      text
        .split('\n')
        .map((line) => {
          const found = endingInNumber(line)
          return found ? `${found.term}\t${found.volume}` : line
        })
        .join('\n'),
    )
  const add = async () => {
    if (guessed.length > 0) return setSaid(messages.chooseNumbers)
    try {
      const result = await ask(
        api.POST('/api/markets/{marketId}/paste', {
          params: { path: { marketId: desk.market.id } },
          body: { text, source: source || null },
        }),
      )
      await refresh(cache, 'numbers')
      setBad(result.bad)
      setText(result.bad.map((b) => b.text).join('\n'))
      if (result.bad.length === 0) {
        forgetText()
        forgetSource()
      }
      setSaid(messages.pasted(result.taken, result.new, result.bad.length))
      const { change } = result
      if (change) toast(messages.pasted(result.taken, result.new, result.bad.length), () => turnChange(cache, 'undo', change))
      if (result.taken > 0) done()
    } catch (e) {
      setSaid(messages.notPasted((e as Error).message))
    }
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: its boxes and buttons have the focus; these keys are theirs together
    <div
      onKeyDown={(e) => {
        if (e.key === 'Escape') {
          e.stopPropagation()
          close()
        } else if (pressed(e, 'runImport')) add()
      }}
    >
      <h3>Add terms</h3>
      <p className="quiet text-[13.5px] mb-2">
        One term per line. If you have numbers, add searches/mo and then competing listings after it, separated by tabs, commas or
        semicolons.
      </p>
      <textarea
        autoFocus
        className="textarea w-full h-48 num text-[13px]"
        aria-label="Terms to paste"
        placeholder={'bat roost box\t320\t45\nlarch bat box; 1,300; 210\nbat box kit, 12.1k'}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {guessed.length > 0 && (
        <div className="doubts" data-testid="guessed">
          Is the number at the end the searches/mo?{' '}
          {guessed
            .slice(0, 3)
            .map((g) => `“${g.term}” with ${g.volume}`)
            .join(', ')}
          {guessed.length > 3 ? ` and ${guessed.length - 3} more` : ''}.{' '}
          <button type="button" className="link" onClick={splitNumbers}>
            Yes, use as searches/mo
          </button>{' '}
          <button type="button" className="link" onClick={() => setKept(text)}>
            No, it’s part of the term
          </button>
        </div>
      )}
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
        Source name{' '}
        <input className="inline-input w-36 ml-1" placeholder="pasted" value={source} onChange={(e) => setSource(e.target.value)} />
      </label>
      <p className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm btn-primary" disabled={!text.trim()} onClick={add}>
          Add terms <Key of="runImport" plain />
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={!text.trim()}
          title="For more columns, months or other number formats: choose what each column is"
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
