import { Attributes, Categories, namesOf } from './categories'
import { newField, roles } from './newplatform'
import { NumberBox } from './profileinputs'
import { type FieldRule, idOf, type Limit, labelOf, number, shapes } from './profilerules'
import type { ProfileDraft } from './useprofile'

/** The fields of a platform: a row each, another one, and the categories and attributes that they offer. */
export function ProfileFields({ draft }: { draft: ProfileDraft }) {
  const { profile, change, field } = draft
  return (
    <>
      <h3 className="text-[15px] font-semibold mt-3 mb-1">Fields</h3>
      <table className="plain fields text-[13.5px]">
        <thead>
          <tr>
            <th>Name</th>
            <th>Role</th>
            <th>Type</th>
            <th title="How much the text, or each item, may hold">Limit</th>
            <th>Unit</th>
            <th title="How many items a list may have">Max items</th>
            <th title="Other places show the text up to this character">Cut off at</th>
            <th title="Whether its search reads the field">Searched</th>
            <th title="Search reads only so many characters from the start">Reads first</th>
            <th title="How much a match here counts, 0–1">Weight</th>
            <th title="A match nearer the start counts more">Early words count more</th>
            <th>Required</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {profile.fields.map((f, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a field is its place
            <FieldRow key={i} draft={draft} f={f} i={i} />
          ))}
        </tbody>
      </table>
      <form
        className="mt-2 flex gap-2 items-end text-[13.5px]"
        onSubmit={(e) => {
          e.preventDefault()
          const form = e.currentTarget.elements
          const box = form.namedItem('label') as HTMLInputElement
          const role = (form.namedItem('role') as HTMLSelectElement).value
          const label = box.value.trim()
          if (!idOf(label)) return box.focus()
          change({ fields: [...profile.fields, newField(label, role)] })
          box.value = ''
        }}
      >
        <label>
          New field
          <input name="label" className="inline-input w-44 ml-2" placeholder="Name" aria-label="Name of the new field" />
        </label>
        <label>
          Role
          <select name="role" className="inline-input ml-2" aria-label="Role of the new field" defaultValue="tags">
            {Object.entries(roles).map(([key, role]) => (
              <option key={key} value={key}>
                {role.name}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn btn-xs">
          Add field
        </button>
      </form>
      {profile.fields.map((f, i) =>
        f.shape === 'path' ? (
          <Categories key={f.key} name={f.label ?? f.key} tree={f.tree ?? []} change={(tree) => field(i, { tree })} />
        ) : f.shape === 'choices' ? (
          <Attributes
            key={f.key}
            name={f.label ?? f.key}
            rules={f.attributes ?? []}
            categories={profile.fields.flatMap((g) => namesOf(g.tree ?? []))}
            change={(attributes) => field(i, { attributes })}
          />
        ) : null,
      )}
    </>
  )
}

/** One field's rules, with what is wrong with them below. */
function FieldRow({ draft, f, i }: { draft: ProfileDraft; f: FieldRule; i: number }) {
  const { profile, change, move } = draft
  const { field } = draft
  const limit = (next: Limit) => {
    const merged = { unit: 'characters' as const, ...f.limit, ...next }
    field(i, { limit: merged.max == null && merged.maxItems == null ? null : merged })
  }
  const bad = (key: string) => (draft.isWrong(`fields[${i}].${key}`) ? 'text-accent' : '')
  return (
    <>
      <tr>
        <td>
          <input
            className="inline-input w-36"
            aria-label={`Name of field ${i + 1}`}
            value={f.label ?? f.key}
            onChange={(e) => field(i, { label: e.target.value })}
          />
        </td>
        <td>
          <select
            className="inline-input"
            aria-label={`Role of ${f.key}`}
            value={f.role ?? ''}
            onChange={(e) => field(i, { role: e.target.value })}
          >
            {Object.entries(roles).map(([key, role]) => (
              <option key={key} value={key}>
                {role.name}
              </option>
            ))}
            {f.role && !(f.role in roles) && <option>{f.role}</option>}
          </select>
        </td>
        <td>
          <select
            className="inline-input"
            aria-label={`Type of ${f.key}`}
            value={f.shape}
            onChange={(e) => field(i, { shape: e.target.value as FieldRule['shape'] })}
          >
            {Object.entries(shapes).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </td>
        <td>
          <NumberBox
            label={`Limit of ${f.key}`}
            width="w-14"
            wrong={bad('limit.max')}
            none="any"
            value={f.limit?.max}
            put={(n) => limit({ max: n })}
          />
        </td>
        <td>
          <select
            className="inline-input"
            aria-label={`Unit of ${f.key}`}
            value={f.limit?.unit ?? 'characters'}
            onChange={(e) => limit({ unit: e.target.value as NonNullable<Limit>['unit'] })}
          >
            <option>characters</option>
            <option>bytes</option>
            <option>words</option>
          </select>
        </td>
        <td>
          <NumberBox
            label={`Max items of ${f.key}`}
            width="w-11"
            wrong={bad('limit.maxItems')}
            none={['lines', 'phrases', 'path'].includes(f.shape) ? 'any' : ''}
            value={f.limit?.maxItems}
            put={(n) => limit({ maxItems: n })}
          />
        </td>
        <td>
          <NumberBox
            label={`${f.key} is cut off at`}
            width="w-11"
            wrong={bad('shows')}
            none="all"
            value={f.shows}
            put={(n) => field(i, { shows: n })}
          />
        </td>
        <td>
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            aria-label={`${f.key} is searched`}
            checked={f.indexed ?? false}
            onChange={(e) => field(i, { indexed: e.target.checked, weight: f.weight || (e.target.checked ? 0.5 : 0) })}
          />
        </td>
        <td>
          <NumberBox
            label={`Search reads first of ${f.key}`}
            width="w-11"
            wrong={bad('indexedFirst')}
            none="all"
            value={f.indexedFirst}
            put={(n) => field(i, { indexedFirst: n })}
          />
        </td>
        <td>
          <input
            className={`inline-input w-11 num ${bad('weight')}`}
            inputMode="decimal"
            aria-label={`Weight of ${f.key}`}
            defaultValue={f.weight ?? 0}
            onChange={(e) => field(i, { weight: number(e.target.value) ?? 0 })}
          />
        </td>
        <td>
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            aria-label={`Early words of ${f.key} count more`}
            checked={f.front ?? false}
            onChange={(e) => field(i, { front: e.target.checked })}
          />
        </td>
        <td>
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            aria-label={`${f.key} is required`}
            checked={f.required ?? false}
            onChange={(e) => field(i, { required: e.target.checked })}
          />
        </td>
        <td className="whitespace-nowrap">
          <button type="button" className="px-1 cursor-pointer quiet" aria-label={`Move ${f.key} up`} onClick={() => move(i, -1)}>
            ↑
          </button>
          <button type="button" className="px-1 cursor-pointer quiet" aria-label={`Move ${f.key} down`} onClick={() => move(i, 1)}>
            ↓
          </button>
          <button
            type="button"
            className="px-1 cursor-pointer quiet"
            aria-label={`Delete ${f.key}`}
            onClick={() => change({ fields: profile.fields.filter((_, k) => k !== i) })}
          >
            ×
          </button>
        </td>
      </tr>
      {draft.problemsOf(i).map(([path, messages]) => (
        <tr key={path}>
          <td colSpan={13} className="text-accent" role="alert" data-testid="problems">
            <b>{labelOf(path, profile.fields ?? [])}</b>: {messages.join(' ')}
          </td>
        </tr>
      ))}
    </>
  )
}
