import { type ReactNode, useEffect, useRef } from 'react'

/** A sheet over the work until Escape. The browser keeps the focus inside it and gives it back. */
export function Dialog({ name, close, children, width = 620 }: { name: string; close: () => void; children: ReactNode; width?: number }) {
  const ref = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null
    ref.current?.showModal()
    return () => before?.focus?.()
  }, [])
  return (
    <dialog
      ref={ref}
      aria-label={name}
      className="m-auto mt-[9vh] rounded-lg border border-(--tin-2) bg-base-100 text-base-content p-0 backdrop:bg-black/25"
      style={{ width: `min(${width}px, 94vw)` }}
      onCancel={(e) => {
        e.preventDefault()
        close()
      }}
      onClick={(e) => e.target === ref.current && close()}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <div className="p-5">
        {children}
        <p className="mt-4 text-right">
          <button type="button" className="btn btn-sm" onClick={close}>
            Close <kbd>Esc</kbd>
          </button>
        </p>
      </div>
    </dialog>
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
  const ref = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null
    ref.current?.showModal()
    box.current?.select()
    return () => before?.focus?.()
  }, [])
  return (
    <dialog
      ref={ref}
      aria-label={title}
      className="m-auto mt-[14vh] rounded-lg border border-(--tin-2) bg-base-100 text-base-content p-0 backdrop:bg-black/25"
      style={{ width: 'min(460px, 94vw)' }}
      onCancel={(e) => {
        e.preventDefault()
        close()
      }}
      onKeyDown={(e) => e.stopPropagation()}
    >
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
          <input ref={box} className="input input-sm w-full mt-1" defaultValue={value} maxLength={200} required />
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
    </dialog>
  )
}
