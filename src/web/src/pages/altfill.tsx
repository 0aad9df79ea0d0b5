import { useEffect, useState } from 'react'
import { type AltChange, api, ask, messageOf, type PictureView } from '../kit/api'
import { useChanges } from '../kit/changes'
import { counted } from '../kit/numbers'

/** Fills many alt texts by a pattern; what it would change shows first. */
export function AltFill({ names, selected, close }: { names: readonly string[]; selected: PictureView[]; close: () => void }) {
  const { run } = useChanges()
  const [pattern, setPattern] = useState('{what it shows}, {lead}')
  const [scope, setScope] = useState<'empty' | 'selected' | 'all'>(selected.length > 0 ? 'selected' : 'empty')
  const [planned, setPlanned] = useState<AltChange[]>([])
  const [error, setError] = useState('')
  const key = selected.map((p) => `${p.productId} ${p.number}`).join(',')
  const body = { pattern, scope, selected: selected.map((p) => ({ productId: p.productId, number: p.number })) }
  // biome-ignore lint/correctness/useExhaustiveDependencies: planned again when the pattern, the scope or the selection change
  useEffect(() => {
    let gone = false
    const timer = setTimeout(async () => {
      const { data, error, response } = await api.POST('/api/pictures/fill/preview', { body })
      if (gone) return
      setPlanned(data ?? [])
      setError(data ? '' : messageOf(error, response.status))
    }, 200)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [pattern, scope, key])
  const fill = () => {
    close()
    run(() => ask(api.POST('/api/pictures/fill', { body })))
  }
  return (
    <form
      data-testid="alt-fill"
      onSubmit={(e) => {
        e.preventDefault()
        if (planned.length > 0) fill()
      }}
    >
      <h3 className="!mt-0">Fill by a pattern</h3>
      <input autoFocus className="inline-input w-full" aria-label="Pattern" value={pattern} onChange={(e) => setPattern(e.target.value)} />
      <p className="flex flex-wrap gap-1 my-2">
        {names.map((n) => (
          <button key={n} type="button" className="choice" onClick={() => setPattern(`${pattern}{${n}}`)}>
            {`{${n}}`}
          </button>
        ))}
      </p>
      <div className="flex gap-1 mb-2" role="group" aria-label="Which pictures">
        {(
          [
            ['empty', 'Empty ones'],
            ['selected', `Selected (${selected.length})`],
            ['all', 'All'],
          ] as const
        ).map(([s, name]) => (
          <button
            key={s}
            type="button"
            className="choice"
            aria-pressed={scope === s}
            disabled={s === 'selected' && selected.length === 0}
            onClick={() => setScope(s)}
          >
            {name}
          </button>
        ))}
      </div>
      {error && (
        <p className="text-accent" role="alert">
          {error}
        </p>
      )}
      <p className="flex gap-2 my-2">
        <button type="submit" className="btn btn-sm btn-primary" disabled={planned.length === 0}>
          Fill {counted(planned.length, 'alt text')} <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
        <button type="button" className="btn btn-sm" onClick={close}>
          Cancel <kbd>Esc</kbd>
        </button>
      </p>
      <ul className="text-[13.5px]">
        {planned.slice(0, 40).map((c) => (
          <li key={`${c.productId} ${c.number}`} className="border-b border-base-300 py-1">
            <span className="quiet">{c.product}</span> <br />
            {c.before && <del>{c.before}</del>} <ins>{c.after}</ins>
          </li>
        ))}
      </ul>
    </form>
  )
}
