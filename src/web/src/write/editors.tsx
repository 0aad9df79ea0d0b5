import { useRef } from 'react'
import type { Field, Value } from '../kit/api'
import { keysOf, pressed } from '../kit/shortcuts'
import { Tape } from '../kit/tape'
import { type Piece, piecesByName } from './segments'
import { asList, asNamed, asText, cutOf, measure, withoutSeconds } from './texts'
import { Threaded, Under } from './threaded'

export type EditorProps = {
  field: Field
  value: Value | undefined
  weighedValue: Value | undefined
  change: (value: Value) => void
  pieces: Piece[][]
  pointed: string | undefined
  /** Ids of what describes the boxes, and whether something there is required to be fixed. */
  describedBy?: string
  invalid?: boolean
  /** For a category and attributes, which depend on each other. */
  fields?: Field[]
  category?: Value
}

const none: never[] = []

/** The editor for a field's shape. */
export function Editor(p: EditorProps) {
  switch (p.field.shape) {
    case 'phrases':
      return <Phrases {...p} />
    case 'lines':
      return <Lines {...p} />
    case 'choices':
      return <Choices {...p} />
    case 'path':
      return <Path {...p} />
    default:
      return <OneText {...p} />
  }
}

function OneText({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const text = asText(value)
  const single = field.shape === 'words' ? text.trim().replace(/\s+/g, ' ') : text
  const size =
    field.role === 'title'
      ? 'text-[21px] leading-[1.75]'
      : field.shape === 'words'
        ? 'text-[15px] leading-[1.9]'
        : 'text-[15px] leading-[1.9]'
  return (
    <>
      <div className="field-box">
        <Threaded
          label={field.label}
          value={text}
          change={field.shape === 'words' ? (t) => change(t.endsWith(' ') ? withoutSeconds(t) : t) : change}
          pieces={pieces[0] ?? none}
          weighed={asText(weighedValue)}
          pointed={pointed}
          className={size}
          line={field.shape === 'line' || field.shape === 'words'}
          describedBy={`${field.key}-tape ${describedBy ?? ''}`.trim()}
          invalid={invalid}
          placeholder={
            field.role === 'title'
              ? 'Start with what it is'
              : field.shape === 'words'
                ? 'Words that no other field has, separated by spaces'
                : `Write the ${field.label.toLowerCase()}`
          }
        />
      </div>
      {field.max !== null && (
        <Tape
          id={`${field.key}-tape`}
          used={measure(single, field.unit)}
          max={field.max}
          unit={field.unit}
          shows={field.shows}
          searched={field.indexedFirst}
        />
      )}
    </>
  )
}

/** Tags: one slot each, with a thin tape under each. Enter goes to the next; a pasted comma list is split over the slots. */
function Phrases({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const box = useRef<HTMLDivElement>(null)
  const tags = asList(value)
  // A slot keeps the handlers that it was drawn with: they read the latest list.
  const live = useRef(tags)
  live.current = tags
  const dragged = useRef<number | null>(null)
  const weighed = asList(weighedValue)
  // Tags are worth filling, so that every slot shows; other lists show a little more than they hold.
  const most = field.maxItems ?? Number.POSITIVE_INFINITY
  const slots = Math.max(tags.length, Math.min(most, field.role === 'tags' ? Math.min(most, 40) : Math.ceil((tags.length + 1) / 4) * 4))
  const put = (i: number, texts: string[]) => {
    const next = [...live.current]
    while (next.length < i) next.push('')
    next.splice(i, 1, ...texts)
    while (next.length > 0 && next[next.length - 1] === '') next.pop()
    change(next)
  }
  const focus = (i: number) => setTimeout(() => box.current?.querySelectorAll('textarea')[i]?.focus())
  return (
    <div ref={box} className="grid gap-2 mt-1.5 grid-cols-[repeat(auto-fill,minmax(178px,1fr))]">
      {Array.from({ length: slots }, (_, i) => {
        const text = tags[i] ?? ''
        const used = measure(text, field.unit)
        const over = field.max !== null && used > field.max
        const extra = field.maxItems !== null && i >= field.maxItems
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: a key does what dropping does
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: a slot is its place
            key={i}
            className={`slot ${text ? '' : 'empty'} ${over || extra ? 'over' : ''}`}
            onDragOver={(e) => dragged.current !== null && e.preventDefault()}
            onDrop={(e) => {
              if (dragged.current === null) return
              e.preventDefault()
              const next = [...live.current]
              next.splice(i, 0, ...next.splice(dragged.current, 1))
              dragged.current = null
              change(next)
            }}
          >
            {text && (
              // biome-ignore lint/a11y/noStaticElementInteractions: a key does what dragging does
              <span
                className="grip"
                draggable
                title={`Drag to move, or press ${keysOf('moveTagBack')[0]} and ${keysOf('moveTagOn')[0]}`}
                onDragStart={() => {
                  dragged.current = i
                }}
              >
                ⠿
              </span>
            )}
            <Threaded
              label={`${field.label} ${i + 1}`}
              value={text}
              change={(t) => put(i, [t.replace(/,+$/, '')])}
              pieces={pieces[i] ?? none}
              weighed={weighed[i] ?? ''}
              pointed={pointed}
              line
              placeholder="empty"
              describedBy={`${field.key}-tape-${i} ${describedBy ?? ''}`.trim()}
              invalid={over || extra || invalid}
              onKeyDown={(e) => {
                if (pressed(e, 'nextTag')) {
                  e.preventDefault()
                  focus(i + 1)
                } else if (e.key === 'Backspace' && e.currentTarget.value === '' && i > 0) {
                  e.preventDefault()
                  if (i < live.current.length) put(i, [])
                  focus(i - 1)
                } else if (pressed(e, 'splitTag') && field.max !== null) {
                  e.preventDefault()
                  const now = live.current[i] ?? ''
                  if (measure(now, field.unit) > field.max) put(i, cutOf(now, field.max, field.unit) ?? [now])
                } else if ((pressed(e, 'moveTagBack') || pressed(e, 'moveTagOn')) && live.current[i]) {
                  e.preventDefault()
                  const to = i + (pressed(e, 'moveTagBack') ? -1 : 1)
                  if (to < 0 || to >= live.current.length) return
                  const next = [...live.current]
                  next.splice(to, 0, ...next.splice(i, 1))
                  change(next)
                  focus(to)
                }
              }}
              onPaste={(e) => {
                const parts = e.clipboardData
                  .getData('text/plain')
                  .split(/[,;\n\t]+/)
                  .map((t) => t.trim())
                  .filter(Boolean)
                if (parts.length < 2) return
                e.preventDefault()
                put(i, parts)
                focus(i + parts.length)
              }}
            />
            {text && (field.max !== null || extra) && (
              <div
                className="flex items-center gap-2 mt-1.5"
                title={field.max === null ? undefined : `${used} of ${field.max} ${field.unit}`}
              >
                <span id={`${field.key}-tape-${i}`} className="sr-only">
                  {field.max === null ? '' : `${used} of ${field.max} ${field.unit}`}
                </span>
                {field.max !== null && (
                  <svg className="flex-1" height="3" aria-hidden="true">
                    <rect width="100%" height="2" y="1" fill="var(--line)" opacity="0.55" />
                    <rect
                      width={`${Math.min(100, (used / field.max) * 100)}%`}
                      height="2"
                      y="1"
                      fill={over ? 'var(--color-accent)' : 'var(--tape-fill)'}
                    />
                  </svg>
                )}
                {(over || extra) && (
                  <span className="num text-[12px] text-accent">{extra ? 'over the limit' : `${used - (field.max ?? 0)} too long`}</span>
                )}
                {over && field.max !== null && cutOf(text, field.max, field.unit) && (
                  <button
                    type="button"
                    className="link text-[12px]"
                    title={`Split into “${cutOf(text, field.max, field.unit)?.join('” and “')}” (${keysOf('splitTag')[0]})`}
                    onClick={() => put(i, cutOf(text, field.max as number, field.unit) ?? [text])}
                  >
                    Split
                  </button>
                )}
              </div>
            )}
          </div>
        )
      })}
    </div>
  )
}

/** Bullet points: one text each, each with its tape. */
function Lines({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const box = useRef<HTMLDivElement>(null)
  const lines = asList(value)
  const live = useRef(lines)
  live.current = lines
  const weighed = asList(weighedValue)
  const slots = Math.max(field.maxItems ?? 0, lines.length + (field.maxItems ? 0 : 1))
  const put = (i: number, text: string) => {
    const next = [...live.current]
    while (next.length <= i) next.push('')
    next[i] = text
    while (next.length > 0 && next[next.length - 1] === '') next.pop()
    change(next)
  }
  return (
    <div ref={box}>
      {Array.from({ length: slots }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a bullet point is its place
        <div key={i} className="grid grid-cols-[18px_minmax(0,1fr)] items-baseline">
          <span className="quiet num text-[12px]">{i + 1}</span>
          <div className="pb-1.5">
            <div className="field-box">
              <Threaded
                label={`${field.label} ${i + 1}`}
                value={lines[i] ?? ''}
                change={(t) => put(i, t)}
                pieces={pieces[i] ?? none}
                weighed={weighed[i] ?? ''}
                pointed={pointed}
                className="text-[15px] leading-[1.8]"
                line
                placeholder="empty"
                describedBy={`${field.key}-tape-${i} ${describedBy ?? ''}`.trim()}
                invalid={invalid}
                onKeyDown={(e) =>
                  e.key === 'Enter' && !e.altKey && !e.ctrlKey && !e.metaKey && box.current?.querySelectorAll('textarea')[i + 1]?.focus()
                }
              />
            </div>
            {lines[i] && field.max !== null && (
              <Tape id={`${field.key}-tape-${i}`} used={measure(lines[i], field.unit)} max={field.max} unit={field.unit} />
            )}
          </div>
        </div>
      ))}
    </div>
  )
}

/** The category path, broadest first, with the attributes that deeper categories add. */
function Path({ field, value, weighedValue, change, pieces, pointed, fields }: EditorProps) {
  const levels = asList(value)
  const weighed = asList(weighedValue)
  const known = field.tree.length > 0
  const under = (path: string[]) =>
    field.tree.filter((c) => c.path.length === path.length + 1 && path.every((p, i) => c.path[i].toLowerCase() === p.trim().toLowerCase()))
  const deeper = under(levels)
  const opens = (name: string) =>
    (fields ?? [])
      .flatMap((f) => f.attributes)
      .filter((a) => a.category === name)
      .map((a) => a.name)
  const opened = levels.flatMap(opens)
  return (
    <div className="flex flex-wrap items-baseline gap-x-1 gap-y-1 text-[15px]">
      {[...levels, ...(known && deeper.length === 0 && levels.length > 0 ? [] : [''])].map((level, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a level is its place
        <span key={i} className="inline-flex items-baseline gap-1">
          {i > 0 && <span className="quiet">›</span>}
          <Boxed text={level} pieces={pieces[i] ?? none} weighed={weighed[i] ?? ''} pointed={pointed}>
            {known ? (
              <select
                className={`inline-input ${level ? '' : 'quiet'}`}
                aria-label={`${field.label}, level ${i + 1}`}
                value={level}
                onChange={(e) => change(e.target.value ? [...levels.slice(0, i), e.target.value] : levels.slice(0, i))}
              >
                <option value="">{i === 0 ? 'Choose…' : 'More specific…'}</option>
                {!under(levels.slice(0, i)).some((c) => c.path[i] === level) && level && (
                  <option value={level}>{level} (not in the list)</option>
                )}
                {under(levels.slice(0, i)).map((c) => (
                  <option key={c.path[i]} value={c.path[i]}>
                    {c.path[i]}
                    {c.path[i] !== level && opens(c.path[i]).length > 0 ? `: adds ${opens(c.path[i]).join(', ')}` : ''}
                  </option>
                ))}
              </select>
            ) : (
              <input
                className="inline-input field-sizing-content min-w-20"
                aria-label={`${field.label}, level ${i + 1}`}
                placeholder={i === 0 ? 'Broadest' : 'More specific…'}
                value={level}
                onChange={(e) => {
                  const next = [...levels]
                  next[i] = e.target.value
                  change(e.target.value === '' ? next.slice(0, i).concat(next.slice(i + 1)) : next)
                }}
              />
            )}
          </Boxed>
        </span>
      ))}
      {opened.length > 0 && <span className="quiet text-[13px] ml-2">adds {opened.join(', ')}</span>}
    </div>
  )
}

/** A small box with the threads of its text under it. */
function Boxed(p: { text: string; pieces: Piece[]; weighed: string; pointed: string | undefined; children: React.ReactNode }) {
  return (
    <span className="boxed">
      <Under text={p.text} pieces={p.pieces} weighed={p.weighed} pointed={p.pointed} />
      {p.children}
    </span>
  )
}

/** Attributes: those that the category has, each with its values to choose from, and any others. */
function Choices({ field, value, weighedValue, change, pieces, pointed, category }: EditorProps) {
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
    change(Object.fromEntries(rows.filter(([k]) => k).map(([k, v]) => [k, v === textOf(k) && k in kept ? kept[k] : v])))
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
