import { useRef, useState } from 'react'
import type { Facet, Facts } from '../kit/api'
import { type FactLine, useFacts } from '../kit/facts'
import { factLines } from '../kit/names'
import { NotSaved } from '../kit/notsaved'
import { counted } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { capital } from '../kit/words'
import type { Row } from './rows'

const lines = Object.entries(factLines) as [Facet, FactLine][]

/** True statements about the product. Picks with a colour, material, size, audience or occasion that is missing here are marked. */
export function FactsPart({ desk, picks }: { desk: Desk; picks: Row[] }) {
  const { draft, view, add } = useFacts(desk.product)
  const facts = view.value
  const type = (change: Partial<Facts>) => draft.hold({ ...draft.snapshot().value, ...change })
  const leave = () => draft.release()
  const lacking = new Map<string, { facet: Facet; word: string; count: number }>()
  for (const p of picks)
    if (p.home !== 'avoid')
      for (const c of p.claims) {
        const key = `${c.facet} ${c.word.toLowerCase()}`
        const known = lacking.get(key)
        lacking.set(key, { facet: c.facet, word: c.word.toLowerCase(), count: (known?.count ?? 0) + 1 })
      }
  return (
    <div data-testid="facts" data-panel tabIndex={-1} className="outline-none">
      <h3>Facts</h3>
      <p className="quiet text-[13px] mb-2">
        True statements about {desk.product.name}. Separate words with commas. Each line is saved when you leave it.
      </p>
      <NotSaved draft={draft} view={view} differs={(theirs) => differing(facts, theirs)} />
      <Line name="What it is" value={facts.what} type={(what) => type({ what: what.trim() })} leave={leave} />
      <Line name="Your brand" value={facts.brand} type={(brand) => type({ brand: brand.trim() })} leave={leave} />
      {lines.map(([facet, key]) => (
        <div key={key}>
          <Line name={capital(facet)} value={facts[key].join(', ')} type={(text) => type({ [key]: split(text) })} leave={leave} />
          {[...lacking.values()]
            .filter((l) => l.facet === facet)
            .map((l) => (
              <p key={l.word} className="text-[13px] mb-1">
                <span className="doubt !ml-0">{l.word}</span> <span className="quiet">is used by {counted(l.count, 'pick')}.</span>{' '}
                <button type="button" className="link" onClick={() => add(key, l.word)}>
                  Add to facts
                </button>
              </p>
            ))}
        </div>
      ))}
    </div>
  )
}

const differing = (mine: Facts, theirs: Facts) =>
  ([['what it is', 'what'], ['your brand', 'brand'], ...lines] as [string, keyof Facts][])
    .filter(([, key]) => JSON.stringify(mine[key]) !== JSON.stringify(theirs[key]))
    .map(([what, key]) => ({ what, theirs: [theirs[key]].flat().join(', ') }))

const split = (text: string) =>
  text
    .split(',')
    .map((w) => w.trim())
    .filter(Boolean)

/** One line of the facts: what is typed is kept at once, and saved when the line is left. */
function Line({ name, value, type, leave }: { name: string; value: string; type: (text: string) => void; leave: () => void }) {
  // As it is typed, with the comma at its end; null while the line is not edited.
  const [text, setText] = useState<string | null>(null)
  const before = useRef(value)
  return (
    <div className="mb-1.5 text-[13.5px]">
      <label className="block">
        <span className="quiet block text-[12.5px]">{name}</span>
        <input
          className="inline-input w-full"
          aria-label={name}
          value={text ?? value}
          placeholder="empty"
          onFocus={() => {
            before.current = value
          }}
          onChange={(e) => {
            setText(e.target.value)
            type(e.target.value)
          }}
          onBlur={() => {
            setText(null)
            leave()
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur()
            if (e.key === 'Escape') {
              setText(null)
              type(before.current)
              requestAnimationFrame(() => (document.activeElement as HTMLElement)?.blur())
            }
          }}
        />
      </label>
    </div>
  )
}
