import { type ReactNode, useLayoutEffect, useRef, useState } from 'react'

/**
 * A list that the arrow keys move in; `on` has what other keys do to the current row. With `focus` it takes the focus when it opens,
 * and Escape gives the focus back.
 */
export function Walked<T>(p: {
  name: string
  testid: string
  rows: readonly T[]
  id: (row: T) => string
  on: Record<string, (row: T) => void>
  row: (row: T) => ReactNode
  /** Keys that need no row. */
  always?: Record<string, () => void>
  focus?: boolean
  /** Shown before the rows, and after them. */
  before?: ReactNode
  after?: ReactNode
}) {
  const box = useRef<HTMLElement>(null)
  const came = useRef<Element | null>(null)
  const [at, setAt] = useState(0)
  const here = Math.min(at, p.rows.length - 1)
  const { focus } = p
  useLayoutEffect(() => {
    if (!focus) return
    came.current = document.activeElement
    box.current?.focus({ preventScroll: true })
  }, [focus])
  const go = (to: number) => {
    const next = Math.max(0, Math.min(p.rows.length - 1, to))
    setAt(next)
    box.current?.querySelectorAll('[data-walked]')[next]?.scrollIntoView({ block: 'nearest' })
  }
  return (
    <section
      ref={box}
      className="side-part"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the list is walked by keys
      tabIndex={0}
      aria-label={p.name}
      data-testid={p.testid}
      onKeyDown={(e) => {
        const target = e.target as HTMLElement
        const row = p.rows[here]
        if (e.ctrlKey || e.altKey || e.metaKey) return
        if (e.key === 'Escape' && came.current instanceof HTMLElement && !target.closest('input')) came.current.focus()
        else if (target !== e.currentTarget && target.closest('input:not([type=checkbox]), select, textarea, button, a, dialog')) return
        else if (e.key === ' ' && target.closest('input[type=checkbox]')) return
        else if (p.always?.[e.key]) p.always[e.key]()
        else if (e.key === 'ArrowDown') go(here + 1)
        else if (e.key === 'ArrowUp') go(here - 1)
        else if (row !== undefined && p.on[e.key]) p.on[e.key](row)
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      {p.before}
      {p.rows.map((row, i) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the list around it takes the keys
        // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
        <div key={p.id(row)} data-walked className={`take ${i === here ? 'cursor' : ''}`} onClick={() => setAt(i)}>
          {p.row(row)}
        </div>
      ))}
      {p.after}
    </section>
  )
}

const selected = (box: HTMLInputElement | null) => {
  box?.focus()
  box?.select()
}

/** A box to edit a name in place: Enter saves it, Escape cancels. */
export function NameBox({ label, value, done }: { label: string; value: string; done: (name: string | null) => void }) {
  return (
    <input
      className="inline-input w-full"
      aria-label={label}
      placeholder={`${label}, then Enter`}
      defaultValue={value}
      maxLength={80}
      ref={selected}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== 'Escape') return
        e.preventDefault()
        e.stopPropagation()
        e.currentTarget.closest('section')?.focus()
        done(e.key === 'Enter' ? e.currentTarget.value.trim() : null)
      }}
      onBlur={() => done(null)}
    />
  )
}
