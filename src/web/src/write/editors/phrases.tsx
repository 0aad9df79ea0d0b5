import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { arrayMove, rectSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable'
import { type ReactNode, useRef } from 'react'
import type { Field } from '../../kit/api'
import { keysOf, pressed } from '../../kit/shortcuts'
import { asList, cutOf, measure } from '../texts'
import { Threaded } from '../threaded'
import { type EditorProps, none } from './props'

/** Tags: one slot each, with a thin tape under each. Enter goes to the next; a pasted comma list is split over the slots. */
export function Phrases({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const box = useRef<HTMLDivElement>(null)
  const tags = asList(value)
  // A slot keeps the handlers that it was drawn with: they read the latest list.
  const live = useRef(tags)
  live.current = tags
  const sensors = useSensors(useSensor(PointerSensor))
  const weighed = asList(weighedValue)
  // Tags are worth filling, so that every slot shows; other lists show a little more than they hold.
  const most = field.maxItems ?? Number.POSITIVE_INFINITY
  const slots = Math.max(tags.length, Math.min(most, field.role === 'tags' ? Math.min(most, 40) : Math.ceil((tags.length + 1) / 4) * 4))
  const replace = (i: number, texts: string[]) => {
    const next = [...live.current]
    while (next.length < i) next.push('')
    next.splice(i, 1, ...texts)
    while (next.length > 0 && next[next.length - 1] === '') next.pop()
    change(next)
  }
  const move = (from: number, to: number) => {
    if (to >= 0 && to < live.current.length) change(arrayMove(live.current, from, to))
  }
  const focus = (i: number) => setTimeout(() => box.current?.querySelectorAll('textarea')[i]?.focus())
  const keys = (e: React.KeyboardEvent<HTMLTextAreaElement>, i: number) => {
    const now = live.current[i] ?? ''
    if (pressed(e, 'nextTag')) focus(i + 1)
    else if (e.key === 'Backspace' && e.currentTarget.value === '' && i > 0) {
      if (i < live.current.length) replace(i, [])
      focus(i - 1)
    } else if (pressed(e, 'splitTag') && field.max !== null) {
      if (measure(now, field.unit) > field.max) replace(i, cutOf(now, field.max, field.unit) ?? [now])
    } else if ((pressed(e, 'moveTagBack') || pressed(e, 'moveTagOn')) && now) {
      const to = i + (pressed(e, 'moveTagBack') ? -1 : 1)
      move(i, to)
      if (to >= 0 && to < live.current.length) focus(to)
    } else return
    e.preventDefault()
  }
  const paste = (e: React.ClipboardEvent, i: number) => {
    const parts = e.clipboardData
      .getData('text/plain')
      .split(/[,;\n\t]+/)
      .map((t) => t.trim())
      .filter(Boolean)
    if (parts.length < 2) return
    e.preventDefault()
    replace(i, parts)
    focus(i + parts.length)
  }
  const ids = Array.from({ length: slots }, (_, i) => String(i))
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => over && move(Number(active.id), Math.min(Number(over.id), tags.length - 1))}
    >
      <SortableContext items={ids} strategy={rectSortingStrategy}>
        <div ref={box} className="grid gap-2 mt-1.5 grid-cols-[repeat(auto-fill,minmax(178px,1fr))]">
          {ids.map((id, i) => {
            const text = tags[i] ?? ''
            const used = measure(text, field.unit)
            const over = field.max !== null && used > field.max
            const extra = field.maxItems !== null && i >= field.maxItems
            return (
              <Slot key={id} id={id} empty={!text} over={over || extra}>
                <Threaded
                  label={`${field.label} ${i + 1}`}
                  value={text}
                  change={(t) => replace(i, [t.replace(/,+$/, '')])}
                  pieces={pieces[i] ?? none}
                  weighed={weighed[i] ?? ''}
                  pointed={pointed}
                  line
                  placeholder="empty"
                  describedBy={`${field.key}-tape-${i} ${describedBy ?? ''}`.trim()}
                  invalid={over || extra || invalid}
                  onKeyDown={(e) => keys(e, i)}
                  onPaste={(e) => paste(e, i)}
                />
                {text && (field.max !== null || extra) && (
                  <SlotTape
                    field={field}
                    number={i}
                    text={text}
                    used={used}
                    extra={extra}
                    split={(parts) => {
                      replace(i, parts)
                      focus(i)
                    }}
                  />
                )}
              </Slot>
            )
          })}
        </div>
      </SortableContext>
    </DndContext>
  )
}

/** One tag's slot, which can be dragged by its grip. */
function Slot({ id, empty, over, children }: { id: string; empty: boolean; over: boolean; children: ReactNode }) {
  const drag = useSortable({ id, disabled: { draggable: empty } })
  const by = drag.transform
  return (
    <div
      ref={drag.setNodeRef}
      className={`slot ${empty ? 'empty' : ''} ${over ? 'over' : ''}`}
      style={by ? { transform: `translate(${by.x}px, ${by.y}px)`, transition: drag.transition } : undefined}
    >
      {!empty && (
        <span
          ref={drag.setActivatorNodeRef}
          className="grip"
          title={`Drag to move, or press ${keysOf('moveTagBack')[0]} and ${keysOf('moveTagOn')[0]}`}
          {...drag.listeners}
        >
          ⠿
        </span>
      )}
      {children}
    </div>
  )
}

/** How much of its room a tag uses; one that is too long can be split. */
function SlotTape(p: { field: Field; number: number; text: string; used: number; extra: boolean; split: (parts: string[]) => void }) {
  const { max, unit, key } = p.field
  const over = max !== null && p.used > max
  const parts = over ? cutOf(p.text, max, unit) : null
  return (
    <div className="flex items-center gap-2 mt-1.5" title={max === null ? undefined : `${p.used} of ${max} ${unit}`}>
      <span id={`${key}-tape-${p.number}`} className="sr-only">
        {max === null ? '' : `${p.used} of ${max} ${unit}`}
      </span>
      {max !== null && (
        <svg className="flex-1" height="3" aria-hidden="true">
          <rect width="100%" height="2" y="1" fill="var(--line)" opacity="0.55" />
          <rect
            width={`${Math.min(100, (p.used / max) * 100)}%`}
            height="2"
            y="1"
            fill={over ? 'var(--color-accent)' : 'var(--tape-fill)'}
          />
        </svg>
      )}
      {(over || p.extra) && (
        <span className="num text-[12px] text-accent">{p.extra ? 'over the limit' : `${p.used - (max ?? 0)} too long`}</span>
      )}
      {parts && (
        <button
          type="button"
          className="link text-[12px]"
          title={`Split into “${parts.join('” and “')}” (${keysOf('splitTag')[0]})`}
          onClick={() => p.split(parts)}
        >
          Split
        </button>
      )}
    </div>
  )
}
