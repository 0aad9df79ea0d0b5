import { useId, useRef } from 'react'
import { Key } from './key'
import type { ShortcutId } from './shortcuts'
import { walk } from './walk'

export type MenuItem = { label: string; run: () => void; key?: ShortcutId; disabled?: boolean } | { heading: string }

/** A button that opens a list of things to do. The browser closes it on Escape, and gives the focus back. */
export function Menu({ label, items, button = '⋯' }: { label: string; items: MenuItem[]; button?: React.ReactNode }) {
  const id = useId()
  const list = useRef<HTMLDivElement>(null)
  const move = (e: React.KeyboardEvent) => {
    const all = [...(list.current?.querySelectorAll<HTMLButtonElement>('button:not([disabled])') ?? [])]
    const to = walk(e.key, all.indexOf(document.activeElement as HTMLButtonElement), all.length, true)
    if (to === undefined) return
    e.preventDefault()
    e.stopPropagation()
    all[to]?.focus()
  }
  return (
    <>
      <button type="button" className="menu-button" popoverTarget={id} aria-haspopup="true" aria-label={label} title={label}>
        {button}
      </button>
      <div
        ref={list}
        id={id}
        popover="auto"
        className="menu-list"
        role="group"
        aria-label={label}
        onKeyDown={move}
        onToggle={(e) => {
          if ((e as unknown as ToggleEvent).newState === 'open')
            list.current?.querySelector<HTMLButtonElement>('button:not([disabled])')?.focus()
        }}
      >
        {items.map((item) =>
          'heading' in item ? (
            <div key={item.heading} className="menu-heading">
              {item.heading}
            </div>
          ) : (
            <button
              key={item.label}
              type="button"
              disabled={item.disabled}
              onClick={() => {
                list.current?.hidePopover()
                item.run()
              }}
            >
              {item.label}
              {item.key && <Key of={item.key} />}
            </button>
          ),
        )}
      </div>
    </>
  )
}
