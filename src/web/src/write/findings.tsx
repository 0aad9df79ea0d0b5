import { useState } from 'react'
import type { Checked, Field, Finding } from '../kit/api'
import { Key } from '../kit/key'
import { fixed } from '../kit/numbers'
import { Walked } from '../kit/walked'

/** The field under which the check lists findings in alt texts. */
export const PicturesKey = '$pictures'

const levels = { must: 'Required.', should: 'Recommended.', fine: 'Optional.' } as const

/** What can be done about a finding. */
export type FindingActions = {
  fix: (f: Finding, label?: string) => void
  dismiss: (f: Finding) => void
  addToFacts: (f: Finding) => void
  /** Says that its word claims nothing in this shop. */
  noClaim: (f: Finding) => void
  go: (f: Finding) => void
}

/** Findings with the same key are one: its first place, and how many more there are. */
export function onceEach(findings: Finding[]): (Finding & { more: number })[] {
  const byKey = new Map<string, Finding & { more: number }>()
  for (const f of findings) {
    const key = f.claim ? f.key : `${f.key} ${f.start} ${f.item} ${f.why}`
    const first = byKey.get(key)
    if (first) first.more++
    else byKey.set(key, { ...f, more: 0 })
  }
  return [...byKey.values()]
}

/** One finding, with what can be done about it. */
function Line({ finding, actions, more = 0 }: { finding: Finding; actions: FindingActions; more?: number }) {
  const gain = finding.cost >= 0.05 ? ` (+${fixed(finding.cost, 1)} grip)` : ''
  return (
    <p className={`finding ${finding.level}`} data-finding={finding.id}>
      <b>{levels[finding.level]}</b> <span>{finding.why}</span>
      {more > 0 && <span className="quiet"> {more === 1 ? '1 more place.' : `${more} more places.`}</span>}{' '}
      {!finding.aside && finding.claim && (
        <button type="button" className="link mr-2" onClick={() => actions.addToFacts(finding)}>
          Add to facts
        </button>
      )}
      {!finding.aside && finding.claim && (
        <button type="button" className="link mr-2" title="In every product of this shop" onClick={() => actions.noClaim(finding)}>
          Not a claim
        </button>
      )}
      {!finding.aside &&
        [finding.fix, ...finding.otherFixes]
          .filter((f) => f !== null)
          .map((f, i) => (
            <button key={f.label} type="button" className="link mr-2" onClick={() => actions.fix(finding, f.label)}>
              {f.label}
              {i === 0 ? gain : ''}
            </button>
          ))}
      {!finding.aside && !finding.fix && !finding.claim && finding.length > 0 && (
        <button type="button" className="link mr-2" onClick={() => actions.go(finding)}>
          Select the text
        </button>
      )}
      <button
        type="button"
        className="link quiet"
        onClick={() => actions.dismiss(finding)}
        title={finding.claim ? 'For this word in this listing' : 'Until the text changes'}
      >
        {finding.aside ? 'Restore' : 'Dismiss'}
      </button>
    </p>
  )
}

/** The findings of one field, under it: the two most important, the others on demand. */
export function FieldFindings({ id, findings, actions }: { id?: string; findings: Finding[]; actions: FindingActions }) {
  const [all, setAll] = useState(false)
  const open = onceEach(findings.filter((f) => !f.aside))
  if (open.length === 0) return null
  const shown = all ? open : open.slice(0, 2)
  return (
    <div className="mt-1" id={id} data-testid="field-findings">
      {shown.map((f) => (
        <Line key={f.key + f.start + f.item + f.why} finding={f} actions={actions} more={f.more} />
      ))}
      {open.length > 2 && (
        <button type="button" className="link text-[13px]" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show ${open.length - 2} more`}
        </button>
      )}
    </div>
  )
}

/** Every finding, the required ones first; dismissed ones below. */
export function AllFindings({ fields, checked, actions }: { fields: Field[]; checked: Checked | null; actions: FindingActions }) {
  if (!checked) return <p className="quiet">Checking…</p>
  const { findings } = checked
  const open = onceEach(findings.filter((f) => !f.aside))
  const away = onceEach(findings.filter((f) => f.aside))
  const label = (f: Finding) => fields.find((x) => x.key === f.field)?.label ?? (f.field === PicturesKey ? 'Alt text' : f.field)
  const primary = (f: Finding) => (f.claim ? actions.addToFacts(f) : f.fix ? actions.fix(f) : actions.go(f))
  return (
    <Walked
      name="Findings"
      testid="findings"
      rows={open}
      id={(f) => f.key + f.start + f.item + f.why}
      on={{ Enter: primary, d: actions.dismiss, f: (f) => f.claim && actions.addToFacts(f), g: actions.go }}
      before={
        open.length === 0 ? (
          <p>No findings. {away.length > 0 ? 'Dismissed ones are below.' : ''}</p>
        ) : (
          <p className="quiet text-[13px] mb-1">
            Most important first. <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>Enter</kbd> fixes, <kbd>D</kbd> dismisses. From a field:{' '}
            <Key of="nextFinding" /> next, <Key of="applyFix" /> fix.
          </p>
        )
      }
      row={(f) => (
        <>
          <button type="button" className="link text-[13px]" onClick={() => actions.go(f)}>
            {label(f)}
            {f.item > 0 ? ` ${f.item + 1}` : ''}
          </button>
          <Line finding={f} actions={actions} more={f.more} />
        </>
      )}
      after={
        <>
          {away.length > 0 && (
            <>
              <h3>Dismissed</h3>
              {away.map((f) => (
                <div key={f.key + f.start + f.item + f.why} className="quiet">
                  <span className="text-[12.5px]">{label(f)}</span>
                  <Line finding={f} actions={actions} more={f.more} />
                </div>
              ))}
            </>
          )}
          <Passed checked={checked} />
        </>
      }
    />
  )
}

/** Where the lead stands, place by place, and the checks that found nothing, each with what was looked at. */
function Passed({ checked }: { checked: Checked }) {
  const { passed, leadPlaces } = checked
  // A check that found several things failed once.
  const failed = new Set(checked.findings.map((f) => f.id)).size
  return (
    <>
      {leadPlaces.length > 0 && (
        <div data-testid="lead-places">
          <h3>
            The lead is in {leadPlaces.filter((p) => p.held).length} of {leadPlaces.length} places
          </h3>
          <ul className="text-[13.5px] flex flex-wrap gap-x-4">
            {leadPlaces.map((p) => (
              <li key={`${p.place} ${p.field}`} className={p.held ? '' : 'quiet'}>
                <span aria-hidden="true">{p.held ? '✓' : '–'}</span> {p.label}
                <span className="sr-only">{p.held ? ': there' : ': not there'}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {passed.length > 0 && (
        <details data-testid="passed" className="mt-3">
          <summary className="cursor-pointer font-semibold text-[14.5px]">
            {passed.length} of {passed.length + failed} checks passed
          </summary>
          {passed.map((p) => (
            <details key={p.id} className="text-[13.5px] my-1">
              <summary className="cursor-pointer">✓ {p.text}</summary>
              <p className="quiet pl-4">{p.how}</p>
            </details>
          ))}
        </details>
      )}
    </>
  )
}
