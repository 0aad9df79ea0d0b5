import { type ReactNode, useEffect, useRef } from 'react'

/** A layer over the work until Escape. The browser keeps the focus inside it; it goes back when the layer closes. */
function Modal({
  name,
  close,
  children,
  style,
  onClick,
}: {
  name: string
  close: () => void
  children: ReactNode
  style: React.CSSProperties
  onClick?: (e: React.MouseEvent) => void
}) {
  const ref = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null
    ref.current?.showModal()
    // A list that scrolls would have the focus otherwise, where Enter does nothing.
    ref.current?.querySelector<HTMLElement>('[data-first-focus]')?.focus()
    return () => before?.focus?.()
  }, [])
  return (
    <dialog
      ref={ref}
      aria-label={name}
      className="m-auto rounded-lg border border-(--tin-2) bg-base-100 text-base-content p-0 backdrop:bg-black/25"
      style={style}
      onCancel={(e) => {
        e.preventDefault()
        close()
      }}
      onClick={onClick}
      onKeyDown={(e) => e.stopPropagation()}
    >
      {children}
    </dialog>
  )
}

/** A sheet over the work: Escape, its button or a click beside it closes it. */
export function Dialog({ name, close, children, width = 620 }: { name: string; close: () => void; children: ReactNode; width?: number }) {
  return (
    <Modal
      name={name}
      close={close}
      style={{ width: `min(${width}px, 94vw)`, marginTop: '9vh' }}
      onClick={(e) => e.target === e.currentTarget && close()}
    >
      <div className="p-5">
        {children}
        <p className="mt-4 text-right">
          <button type="button" className="btn btn-sm" onClick={close}>
            Close <kbd>Esc</kbd>
          </button>
        </p>
      </div>
    </Modal>
  )
}

/** Asks for a name: Enter or the button takes it, Escape cancels. */
export function NameDialog({
  title,
  label,
  value,
  action,
  done,
  close,
}: {
  title: string
  label: string
  value: string
  action: string
  done: (name: string) => void
  close: () => void
}) {
  const box = useRef<HTMLInputElement>(null)
  return (
    <Modal name={title} close={close} style={{ width: 'min(460px, 94vw)', marginTop: '14vh' }}>
      <form
        className="p-5"
        onSubmit={(e) => {
          e.preventDefault()
          const name = box.current?.value.trim() ?? ''
          if (!name) return box.current?.focus()
          close()
          done(name)
        }}
      >
        <h2 className="text-[18px] font-bold mb-2">{title}</h2>
        <label className="block text-[14px]">
          {label}
          <input
            ref={box}
            autoFocus
            className="input input-sm w-full mt-1"
            defaultValue={value}
            maxLength={200}
            required
            onFocus={(e) => e.target.select()}
          />
        </label>
        <p className="flex gap-2 mt-4 justify-end">
          <button type="button" className="btn btn-sm" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-sm btn-primary">
            {action}
          </button>
        </p>
      </form>
    </Modal>
  )
}
