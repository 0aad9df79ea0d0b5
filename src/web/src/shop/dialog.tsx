import { type ReactNode, useEffect, useRef } from 'react'

/** A sheet that lies on the work until Escape. */
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
      <div className="p-5">{children}</div>
    </dialog>
  )
}
