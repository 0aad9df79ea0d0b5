import { useState } from 'react'
import type { Field, Finding } from '../kit/api'

const words = { must: 'Must', should: 'Should', fine: 'Could' } as const

/** One thing that the check says, with what can be done about it. */
function Line({ finding, fix, aside }: { finding: Finding; fix: (f: Finding) => void; aside: (f: Finding) => void }) {
  return (
    <p className={`finding ${finding.level}`} data-finding={finding.id}>
      <b>{words[finding.level]}</b> <span>{finding.why}</span>{' '}
      {finding.fix && (
        <button type="button" className="link" onClick={() => fix(finding)} title={`${finding.fix.label}: Alt Enter in the field`}>
          {finding.fix.label}
          {finding.cost >= 0.05 ? ` (+${finding.cost.toFixed(1)} grip)` : ''}
        </button>
      )}
      <button
        type="button"
        className="link quiet ml-2"
        onClick={() => aside(finding)}
        title="It stays aside until the text changes: Alt A in the field"
      >
        {finding.aside ? 'Bring back' : 'Put aside'}
      </button>
    </p>
  )
}

/** What the check says of one field, under it. Only what matters most is open; the rest is a click away. */
export function FieldFindings({ findings, fix, aside }: { findings: Finding[]; fix: (f: Finding) => void; aside: (f: Finding) => void }) {
  const [all, setAll] = useState(false)
  const open = findings.filter((f) => !f.aside)
  if (open.length === 0) return null
  const shown = all ? open : open.slice(0, 2)
  return (
    <div className="mt-1" data-testid="field-findings">
      {shown.map((f) => (
        <Line key={f.key + f.start} finding={f} fix={fix} aside={aside} />
      ))}
      {open.length > 2 && (
        <button type="button" className="link text-[13px]" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `${open.length - 2} more`}
        </button>
      )}
    </div>
  )
}

/** Every finding, what must change first; those put aside below. */
export function AllFindings({
  fields,
  findings,
  fix,
  aside,
  go,
}: {
  fields: Field[]
  findings: Finding[] | null
  fix: (f: Finding) => void
  aside: (f: Finding) => void
  go: (f: Finding) => void
}) {
  const [at, setAt] = useState(0)
  if (!findings) return <p className="quiet">Checking…</p>
  const open = findings.filter((f) => !f.aside)
  const away = findings.filter((f) => f.aside)
  const label = (f: Finding) => fields.find((x) => x.key === f.field)?.label ?? f.field
  const now = open[Math.min(at, open.length - 1)]
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the list is walked by keys
    <div
      className="side-part"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the list is walked by keys
      tabIndex={0}
      data-testid="findings"
      onKeyDown={(e) => {
        if (e.key === 'ArrowDown') setAt(Math.min(open.length - 1, at + 1))
        else if (e.key === 'ArrowUp') setAt(Math.max(0, at - 1))
        else if (e.key === 'Enter' && now?.fix) fix(now)
        else if (e.key === 'Enter' && now) go(now)
        else if (e.key === 'a' && now) aside(now)
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      {open.length === 0 && <p>Nothing to say. {away.length > 0 ? 'What you put aside is below.' : ''}</p>}
      {open.length > 0 && (
        <p className="quiet text-[13px] mb-1">
          Dearest first. <kbd>↑</kbd> <kbd>↓</kbd> walk, <kbd>Enter</kbd> fixes, <kbd>A</kbd> puts aside.
        </p>
      )}
      {open.map((f, i) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the list around it takes the keys
        // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
        <div key={f.key + f.start} className={`take ${i === at ? 'cursor' : ''}`} onClick={() => setAt(i)}>
          <button type="button" className="link text-[12.5px]" onClick={() => go(f)}>
            {label(f)}
            {f.item > 0 ? ` ${f.item + 1}` : ''}
          </button>
          <Line finding={f} fix={fix} aside={aside} />
        </div>
      ))}
      {away.length > 0 && (
        <>
          <h3>Put aside</h3>
          {away.map((f) => (
            <div key={f.key + f.start} className="quiet">
              <span className="text-[12.5px]">{label(f)}</span>
              <Line finding={f} fix={fix} aside={aside} />
            </div>
          ))}
        </>
      )}
    </div>
  )
}
