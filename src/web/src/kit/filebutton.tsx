import { useRef } from 'react'

/** Tables that can be imported. */
const tables = '.csv,.tsv,.txt,.xlsx'

/** A button that asks for a file. The same file can be chosen again. */
export function FileButton({
  name,
  about,
  choose,
  accept = tables,
}: {
  name: string
  about: string
  choose: (file: File) => void
  accept?: string
}) {
  const box = useRef<HTMLInputElement>(null)
  return (
    <>
      <button type="button" className="pill" onClick={() => box.current?.click()}>
        {name}
      </button>
      <input
        ref={box}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={about}
        onChange={(e) => {
          if (e.target.files?.[0]) choose(e.target.files[0])
          e.target.value = ''
        }}
      />
    </>
  )
}
