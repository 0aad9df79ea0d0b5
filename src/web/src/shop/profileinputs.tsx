import { useState } from 'react'
import { number } from './profilerules'

/** A whole number, or nothing. */
export function NumberBox(p: {
  label: string
  width: string
  wrong: string
  none: string
  value: number | null | undefined
  put: (n: number | null) => void
}) {
  return (
    <input
      className={`inline-input ${p.width} num ${p.wrong}`}
      inputMode="numeric"
      aria-label={p.label}
      aria-invalid={p.wrong !== '' || undefined}
      placeholder={p.none}
      value={p.value ?? ''}
      onChange={(e) => p.put(number(e.target.value))}
    />
  )
}

/** A list of words or phrases, separated by commas. */
export function Words({ name, values, change }: { name: string; values: string[]; change: (values: string[]) => void }) {
  const [text, setText] = useState(values.join(', '))
  return (
    <>
      <h3 className="text-[15px] font-semibold mt-4 mb-1">{name}</h3>
      <textarea
        className="inline-input w-full text-[14px] field-sizing-content"
        aria-label={name}
        placeholder="None. Separate with commas."
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          change(
            e.target.value
              .split(',')
              .map((w) => w.trim())
              .filter(Boolean),
          )
        }}
      />
    </>
  )
}
