import { piecesByName } from '../segments'
import { asList, asNamed, valuesIn } from '../texts'
import { Boxed } from './boxed'
import { type EditorProps, none } from './props'

/** Attributes: those that the category has, each with its values to choose from, and any others. */
export function Choices({ field, value, weighedValue, change, pieces, pointed, category }: EditorProps) {
  const named = asNamed(value)
  const weighed = new Map(asNamed(weighedValue))
  const lines = piecesByName(weighedValue, pieces)
  const boxed = (name: string, box: React.ReactNode) => (
    <Boxed text={textOf(name)} pieces={lines.get(name) ?? none} weighed={weighed.get(name) ?? ''} pointed={pointed}>
      {box}
    </Boxed>
  )
  // A value that is a list stays one while it is not written in.
  const kept = value && typeof value === 'object' && !Array.isArray(value) ? value : {}
  const put = (rows: [string, string][]) =>
    change(Object.fromEntries(rows.filter(([k]) => k).map(([k, v]) => [k, v === textOf(k) && k in kept ? kept[k] : valuesIn(v)])))
  const path = asList(category).map((p) => p.trim().toLowerCase())
  const known = field.attributes.filter((a) => a.category === null || path.includes(a.category.toLowerCase()))
  const others = named.filter(([name]) => !known.some((a) => a.name === name))
  const textOf = (name: string) => named.find(([n]) => n === name)?.[1] ?? ''
  const set = (name: string, text: string) =>
    put(
      text === ''
        ? named.filter(([n]) => n !== name)
        : named.some(([n]) => n === name)
          ? named.map((n) => (n[0] === name ? [name, text] : n))
          : [...named, [name, text]],
    )
  return (
    <div className="flex flex-wrap gap-x-5 gap-y-1 text-[15px]">
      {known.map((a) => (
        // biome-ignore lint/a11y/noLabelWithoutControl: the box is in it
        <label key={a.name} className="inline-flex items-baseline gap-1">
          <span className="quiet text-[13.5px]">{a.name}</span>
          {boxed(
            a.name,
            <input
              className={`inline-input field-sizing-content ${textOf(a.name) ? '' : 'min-w-14'}`}
              aria-label={`${field.label}: ${a.name}`}
              title="Several values: put a semicolon between them"
              list={a.options.length > 0 ? `options ${field.key} ${a.name}` : undefined}
              placeholder="empty"
              value={textOf(a.name)}
              onChange={(e) => set(a.name, e.target.value)}
            />,
          )}
          <datalist id={`options ${field.key} ${a.name}`}>
            {a.options.map((o) => (
              <option key={o} value={o} />
            ))}
          </datalist>
        </label>
      ))}
      {others.map(([name, text]) => (
        <span key={name} className="inline-flex items-baseline gap-1">
          <span className="quiet text-[13.5px]">{name}</span>
          {boxed(
            name,
            <input
              className="inline-input field-sizing-content min-w-16"
              aria-label={`${field.label}: ${name}`}
              title="Several values: put a semicolon between them"
              value={text}
              onChange={(e) => put(named.map((n) => (n[0] === name ? [name, e.target.value] : n)))}
            />,
          )}
          <button
            type="button"
            className="quiet cursor-pointer px-1"
            aria-label={`Delete ${name}`}
            onClick={() => put(named.filter((n) => n[0] !== name))}
          >
            ×
          </button>
        </span>
      ))}
      <input
        className="inline-input w-36"
        placeholder="Add, then Enter"
        aria-label={`${field.label}: name of a new one`}
        onKeyDown={(e) => {
          const name = e.currentTarget.value.trim()
          if (e.key !== 'Enter' || !name) return
          e.preventDefault()
          put([...named, [name, '']])
          e.currentTarget.value = ''
        }}
      />
    </div>
  )
}
