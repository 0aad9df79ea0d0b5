import { type ReactNode, useLayoutEffect, useRef, useState } from 'react'
import { walk } from './walk'

// The box that was written in last: where Escape leads when what had the focus before is gone, as a row of another panel.
let written: HTMLElement | null = null
document.addEventListener('focusin', (e) => {
  if (e.target instanceof HTMLElement && e.target.matches('textarea, [role=textbox]')) written = e.target
})

/**
 * A list that the arrow keys move in; `on` has what other keys do to the current row. With `focus` it takes the focus when it opens,
 * and Escape gives the focus back.
 */
export function Walked<T>(p: {
  name: string
  testid: string
  rows: readonly T[]
  id: (row: T, i: number) => string
  on: Record<string, (row: T, i: number) => void>
  row: (row: T, i: number) => ReactNode
  /** The current row, where the screen around it has to know. */
  at?: number
  onAt?: (at: number) => void
  /** Keys that need no row. */
  always?: Record<string, () => void>
  focus?: boolean
  /** Shown before the rows, and after them. */
  before?: ReactNode
  after?: ReactNode
  listClass?: string
  rowClass?: string
}) {
  const box = useRef<HTMLElement>(null)
  const came = useRef<Element | null>(null)
  const [own, setOwn] = useState(0)
  const here = Math.min(p.at ?? own, p.rows.length - 1)
  const { focus } = p
  useLayoutEffect(() => {
    if (!focus) return
    came.current = document.activeElement
    box.current?.focus({ preventScroll: true })
  }, [focus])
  const setAt = (at: number) => {
    setOwn(at)
    p.onAt?.(at)
  }
  const keys = (e: React.KeyboardEvent) => {
    const target = e.target as HTMLElement
    const row = p.rows[here]
    if (e.ctrlKey || e.altKey || e.metaKey) return
    const before = came.current instanceof HTMLElement && came.current !== document.body && came.current.isConnected
    const back = before ? (came.current as HTMLElement) : came.current && written?.isConnected ? written : null
    const to = walk(e.key, here, p.rows.length)
    if (e.key === 'Escape' && (p.always?.Escape || back) && !target.closest('input')) {
      p.always?.Escape?.()
      back?.focus()
    } else if (target !== e.currentTarget && target.closest('input:not([type=checkbox]), select, textarea, button, a, dialog')) return
    else if (e.key === ' ' && target.closest('input[type=checkbox]')) return
    else if (p.always?.[e.key]) p.always[e.key]()
    else if (to !== undefined) {
      setAt(to)
      box.current?.querySelectorAll('[data-walked]')[to]?.scrollIntoView({ block: 'nearest' })
    } else if (row !== undefined && p.on[e.key]) p.on[e.key](row, here)
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  const rows = p.rows.map((row, i) => (
    // biome-ignore lint/a11y/noStaticElementInteractions: the list around it takes the keys
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
    <div key={p.id(row, i)} data-walked className={p.rowClass ?? `take ${i === here ? 'cursor' : ''}`} onClick={() => setAt(i)}>
      {p.row(row, i)}
    </div>
  ))
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: the list is walked by keys
    <section ref={box} className="side-part" tabIndex={0} aria-label={p.name} data-testid={p.testid} onKeyDown={keys}>
      {p.before}
      {p.listClass ? <div className={p.listClass}>{rows}</div> : rows}
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
