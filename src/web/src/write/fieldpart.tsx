import { memo } from 'react'
import type { Copy, Field, Finding, Value } from '../kit/api'
import { copyText } from '../kit/copy'
import type { DraftView } from '../kit/drafts/draft'
import { aboutRole } from '../kit/names'
import { keysOf } from '../kit/shortcuts'
import { gradeWords } from '../kit/thread'
import { Editor } from './editors/editor'
import { FieldFindings, type FindingActions } from './findings'
import type { Piece } from './segments'
import { asText, oneText } from './texts'

/** Whether the text is saved; if not, why, and that it is kept in the browser. */
export const SaveState = memo(function SaveState({ saving, again }: { saving: DraftView<Copy>; again: () => void }) {
  const stuck = saving.state === 'failed' || saving.state === 'refused'
  return (
    <span className="ml-auto quiet" role="status" data-testid="save-state" data-state={saving.state}>
      {saving.state === 'saved' ? (
        'Saved automatically'
      ) : stuck ? (
        <span className="text-accent">
          Not saved. {saving.message} Your text is kept in this browser.{' '}
          <button type="button" className="link" onClick={again}>
            Try again
          </button>
        </span>
      ) : saving.state === 'conflict' ? (
        <span className="text-accent">Not saved: edited in another window</span>
      ) : saving.restored ? (
        'Saving text from your last visit…'
      ) : (
        'Saving…'
      )}
    </span>
  )
})

/** One field with its name, its limits and its editor; it is drawn again only when something of its own changes. */
export const FieldPart = memo(function FieldPart(p: {
  field: Field
  platform: string
  value: Value | undefined
  weighedValue: Value | undefined
  change: (key: string, value: Value) => void
  pieces: Piece[][]
  pointed: string | undefined
  findings: Finding[]
  actions: FindingActions
  fill: ((side: string, field: string) => void) | undefined
  placeholder?: string | undefined
  pixels?: number | undefined
  suffix?: string | undefined
  writeOut?: ((key: string) => void) | undefined
  fields: Field[] | undefined
  category: Value | undefined
  isPage: boolean
}) {
  const { field, value } = p
  // Several small boxes share one description.
  const about = aboutRole(field.role || field.key, p.isPage)
  const grouped = field.shape === 'path' || field.shape === 'choices'
  return (
    <div
      className="mb-4"
      data-field={field.key}
      {...(grouped && {
        role: 'group',
        'aria-labelledby': `${field.key}-label`,
        'aria-describedby': `${field.key}-held ${field.key}-findings`,
      })}
    >
      <h2 id={`${field.key}-label`} title={about || undefined} className="flex gap-2.5 items-baseline text-[14px] font-semibold">
        {field.label} <small className="quiet text-[13px] font-normal font-sans">{aboutField(field, value, p.platform)}</small>
        <span className="ml-auto font-sans font-medium text-[13px] flex gap-3">
          {p.writeOut && p.placeholder && !asText(value) && (
            <button type="button" className="link" onClick={() => p.writeOut?.(field.key)}>
              Use the derived text
            </button>
          )}
          {p.fill && (
            <button
              type="button"
              className="link"
              title={`Suggests the words that gain the most (${keysOf('fill')[0]} in the field)`}
              onClick={() => p.fill?.('fill', field.key)}
              aria-label={field.shape === 'lines' ? `Suggest a closing line for ${field.label}` : `Fill ${field.label}`}
            >
              {field.shape === 'lines' ? 'Suggest a closing line' : 'Fill'}
            </button>
          )}
          <button
            type="button"
            className="link"
            onClick={() => copyText(field.label, oneText(field, value))}
            aria-label={`Copy ${field.label}`}
          >
            Copy
          </button>
        </span>
      </h2>
      {about && <p className="field-about">{about}</p>}
      <Editor
        field={field}
        value={value}
        weighedValue={p.weighedValue}
        change={(v) => p.change(field.key, v)}
        pieces={p.pieces}
        pointed={p.pointed}
        describedBy={`${field.key}-held ${field.key}-findings`}
        invalid={p.findings.some((f) => f.level === 'must')}
        fields={p.fields}
        category={p.category}
        placeholder={p.placeholder}
        width={p.pixels === undefined ? undefined : { pixels: p.pixels, suffix: p.suffix ?? '' }}
      />
      <p id={`${field.key}-held`} className="sr-only">
        {heldIn(p.pieces)}
      </p>
      <FieldFindings id={`${field.key}-findings`} findings={p.findings} actions={p.actions} />
    </div>
  )
})

/** The threads of a field in words, for those who can't see them. */
function heldIn(pieces: Piece[][]) {
  const held = [...new Map(pieces.flat().map((p) => [p.key, p.grade])).entries()]
  if (held.length === 0) return 'No picks here.'
  return `Picks here: ${held.map(([key, grade]) => `${key} (${grade === 'avoided' ? 'to avoid' : gradeWords[grade].toLowerCase()})`).join(', ')}.`
}

/** Fields that a fill can suggest something for. */
export const canFill = (field: Field) =>
  field.indexed &&
  (field.shape === 'phrases' || field.shape === 'words' || field.shape === 'lines' || (field.shape === 'line' && field.role === 'title'))

function aboutField(field: Field, value: Value | undefined, platform: string) {
  const parts: string[] = []
  const items = Array.isArray(value) ? value.filter((v) => v.trim()).length : 0
  if (field.maxItems !== null)
    parts.push(`${items} of ${field.maxItems}${items > field.maxItems ? `, ${items - field.maxItems} too many` : ''}`)
  if (field.maxItems !== null && field.max !== null) parts.push(`each up to ${field.max} ${field.unit}`)
  if (!field.indexed) parts.push(`${platform} doesn’t search this`)
  else if (field.indexedFirst) parts.push(`the first ${field.indexedFirst} characters are searched`)
  else if (field.role === '' || field.role === 'category' || field.role === 'attributes') parts.push('searched')
  return parts.join(', ')
}
