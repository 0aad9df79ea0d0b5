import { useRef, useState } from 'react'
import type { Facet, Facts } from '../kit/api'
import { factLines } from '../kit/names'
import { NotSaved, type SavedText } from '../kit/notsaved'
import { counted } from '../kit/numbers'
import type { usePickActions } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { capital } from '../kit/words'
import type { Row } from './rows'

const lines = Object.entries(factLines) as [Facet, Exclude<keyof Facts, 'what'>][]

/** True statements about the product. Picks with a colour, material, size, audience or occasion that is missing here are marked. */
export function FactsPart({ desk, picks, save }: { desk: Desk; picks: Row[]; save: ReturnType<typeof usePickActions>['fact'] }) {
  const facts = desk.product.facts as Facts
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
      <Line name="What it is" value={facts.what} tidy={(what) => what.trim()} save={(what) => save('what', what)} />
      {lines.map(([facet, key]) => (
        <div key={key}>
          <Line
            name={capital(facet)}
            value={facts[key].join(', ')}
            tidy={(text) => split(text).join(', ')}
            save={(text) => save(key, split(text))}
          />
          {[...lacking.values()]
            .filter((l) => l.facet === facet)
            .map((l) => (
              <p key={l.word} className="text-[13px] mb-1">
                <span className="doubt !ml-0">{l.word}</span> <span className="quiet">is used by {counted(l.count, 'pick')}.</span>{' '}
                <button type="button" className="link" onClick={() => save(key, [...facts[key], l.word])}>
                  Add to facts
                </button>
              </p>
            ))}
        </div>
      ))}
    </div>
  )
}

const split = (text: string) =>
  text
    .split(',')
    .map((w) => w.trim())
    .filter(Boolean)

/** One line of the facts. Where another window changes it while something else is typed here, both are shown. */
function Line({
  name,
  value,
  tidy,
  save,
}: {
  name: string
  value: string
  tidy: (text: string) => string
  save: (text: string) => Promise<SavedText>
}) {
  const [text, setText] = useState(value)
  const [was, setWas] = useState(value)
  const [saved, setSaved] = useState<SavedText>({})
  // What this window saved last: when it comes back, nobody else wrote it.
  const sent = useRef('')
  if (was !== value) {
    if (text === was || tidy(text) === value) setText(value)
    else if (value !== sent.current) setSaved({ theirs: value })
    setWas(value)
  }
  const send = async () => {
    sent.current = tidy(text)
    setSaved(await save(text))
  }
  return (
    <div className="mb-1.5 text-[13.5px]">
      <label className="block">
        <span className="quiet block text-[12.5px]">{name}</span>
        <input
          className="inline-input w-full"
          aria-label={name}
          value={text}
          placeholder="empty"
          onChange={(e) => setText(e.target.value)}
          onBlur={() => saved.theirs === undefined && text !== value && send()}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur()
            if (e.key === 'Escape') {
              setText(value)
              setSaved({})
              requestAnimationFrame(() => (document.activeElement as HTMLElement)?.blur())
            }
          }}
        />
      </label>
      <NotSaved
        saved={saved}
        what="this"
        again={send}
        use={(theirs) => {
          setText(theirs)
          setSaved({})
        }}
      />
    </div>
  )
}
