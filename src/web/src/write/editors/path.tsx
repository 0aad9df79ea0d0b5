import { asList } from '../texts'
import { Boxed } from './boxed'
import { type EditorProps, none } from './props'

/** The category path, broadest first, with the attributes that deeper categories add. */
export function Path({ field, value, weighedValue, change, pieces, pointed, fields }: EditorProps) {
  const levels = asList(value)
  const weighed = asList(weighedValue)
  const known = field.tree.length > 0
  const under = (path: string[]) =>
    field.tree.filter((c) => c.path.length === path.length + 1 && path.every((p, i) => c.path[i].toLowerCase() === p.trim().toLowerCase()))
  const deeper = under(levels)
  const opens = (name: string) =>
    (fields ?? [])
      .flatMap((f) => f.attributes)
      .filter((a) => a.category === name)
      .map((a) => a.name)
  const opened = levels.flatMap(opens)
  return (
    <div className="flex flex-wrap items-baseline gap-x-1 gap-y-1 text-[15px]">
      {[...levels, ...(known && deeper.length === 0 && levels.length > 0 ? [] : [''])].map((level, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a level is its place
        <span key={i} className="inline-flex items-baseline gap-1">
          {i > 0 && <span className="quiet">›</span>}
          <Boxed text={level} pieces={pieces[i] ?? none} weighed={weighed[i] ?? ''} pointed={pointed}>
            {known ? (
              <select
                className={`inline-input ${level ? '' : 'quiet'}`}
                aria-label={`${field.label}, level ${i + 1}`}
                value={level}
                onChange={(e) => change(e.target.value ? [...levels.slice(0, i), e.target.value] : levels.slice(0, i))}
              >
                <option value="">{i === 0 ? 'Choose…' : 'More specific…'}</option>
                {!under(levels.slice(0, i)).some((c) => c.path[i] === level) && level && (
                  <option value={level}>{level} (not in the list)</option>
                )}
                {under(levels.slice(0, i)).map((c) => (
                  <option key={c.path[i]} value={c.path[i]}>
                    {c.path[i]}
                    {c.path[i] !== level && opens(c.path[i]).length > 0 ? `: adds ${opens(c.path[i]).join(', ')}` : ''}
                  </option>
                ))}
              </select>
            ) : (
              <input
                className="inline-input field-sizing-content min-w-20"
                aria-label={`${field.label}, level ${i + 1}`}
                placeholder={i === 0 ? 'Broadest' : 'More specific…'}
                value={level}
                onChange={(e) => {
                  const next = [...levels]
                  next[i] = e.target.value
                  change(e.target.value === '' ? next.slice(0, i).concat(next.slice(i + 1)) : next)
                }}
              />
            )}
          </Boxed>
        </span>
      ))}
      {opened.length > 0 && <span className="quiet text-[13px] ml-2">adds {opened.join(', ')}</span>}
    </div>
  )
}
