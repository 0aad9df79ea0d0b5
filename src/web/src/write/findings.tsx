import { useState } from 'react'
import type { Field, Finding } from '../kit/api'
import { Walked } from '../kit/walked'

/** The field under which the check tells what it finds in alt texts. */
export const PicturesKey = '$pictures'

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
  if (!findings) return <p className="quiet">Checking…</p>
  const open = findings.filter((f) => !f.aside)
  const away = findings.filter((f) => f.aside)
  const label = (f: Finding) => fields.find((x) => x.key === f.field)?.label ?? (f.field === PicturesKey ? 'Pictures' : f.field)
  return (
    <Walked
      name="Findings"
      testid="findings"
      rows={open}
      id={(f) => f.key + f.start}
      on={{ Enter: (f) => (f.fix ? fix(f) : go(f)), a: aside }}
      before={
        open.length === 0 ? (
          <p>Nothing to say. {away.length > 0 ? 'What you put aside is below.' : ''}</p>
        ) : (
          <p className="quiet text-[13px] mb-1">
            Dearest first. <kbd>↑</kbd> <kbd>↓</kbd> walk, <kbd>Enter</kbd> fixes, <kbd>A</kbd> puts aside.
          </p>
        )
      }
      row={(f) => (
        <>
          <button type="button" className="link text-[12.5px]" onClick={() => go(f)}>
            {label(f)}
            {f.item > 0 ? ` ${f.item + 1}` : ''}
          </button>
          <Line finding={f} fix={fix} aside={aside} />
        </>
      )}
      after={
        away.length > 0 && (
          <>
            <h3>Put aside</h3>
            {away.map((f) => (
              <div key={f.key + f.start} className="quiet">
                <span className="text-[12.5px]">{label(f)}</span>
                <Line finding={f} fix={fix} aside={aside} />
              </div>
            ))}
          </>
        )
      }
    />
  )
}
