import { Fragment, useEffect, useState } from 'react'
import { api, messageOf, type PlatformView, type Unfit } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import { toast, toastAgain } from '../kit/toast'
import { Attributes, Categories, namesOf } from './categories'
import { newField, roles } from './newplatform'
import { NumberBox, Words } from './profileinputs'
import {
  draftOf,
  type FieldRule,
  folds,
  idOf,
  keepDraft,
  type Limit,
  labelOf,
  number,
  type Profile,
  shapes,
  thresholds,
} from './profilerules'

/** One platform's rules, each to be edited; what is wrong, and which listings would no longer fit, shows while one types. */
export function ProfileSheet({
  view,
  usual,
  saved,
  again,
}: {
  view: PlatformView
  usual: Record<string, number>
  saved: () => Promise<void>
  /** Begins anew with what is saved. */
  again: () => void
}) {
  const [profile, setProfile] = useState(() => draftOf(view.id)?.profile ?? (view.profile as unknown as Profile))
  const [text, setText] = useState<string | null>(null)
  const [wrong, setWrong] = useState<Record<string, string[]>>({})
  const [unfit, setUnfit] = useState<Unfit[]>([])
  // The revision that the changes were made from: it moves on only when something is saved from here.
  const [from, setRevision] = useState(() => draftOf(view.id)?.revision ?? view.revision)
  const [theirs, setTheirs] = useState<PlatformView | null>(null)
  // What is saved, as it was written here: the server may write the same in other words.
  const [savedAs, setSavedAs] = useState(() => JSON.stringify(view.profile))
  const changed = JSON.stringify(profile) !== savedAs

  useEffect(() => keepDraft(view.id, changed ? profile : null, from), [view.id, changed, profile, from])

  // What a change would do is said while it is made.
  useEffect(() => {
    let gone = false
    const timer = setTimeout(async () => {
      const { data, error } = await api.POST('/api/platforms/check', { body: { profile: profile, like: null } })
      if (gone) return
      setWrong((error as { errors?: Record<string, string[]> })?.errors ?? {})
      if (data) setUnfit(data.unfit)
    }, 200)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [profile])

  const change = (next: Partial<Profile>) => setProfile({ ...profile, ...next })
  const search = profile.search ?? {}
  const field = (i: number, next: Partial<FieldRule>) => change({ fields: profile.fields.map((f, k) => (k === i ? { ...f, ...next } : f)) })
  const move = (i: number, by: number) => {
    const fields = [...profile.fields]
    const to = i + by
    if (to < 0 || to >= fields.length) return
    fields.splice(to, 0, ...fields.splice(i, 1))
    change({ fields })
  }
  const save = async (revision = from) => {
    if (Object.keys(wrong).length > 0) return toast(messages.fixErrors)
    const before = view.profile
    const put = async (next: typeof before, from: number, done: (revision: number) => void) => {
      try {
        const { data, error, response } = await api.PUT('/api/platforms/{id}', {
          params: { path: { id: view.id } },
          body: { profile: next, like: null, revision: from },
        })
        if (data) done(data.revision ?? from)
        else if (response.status === 409) setTheirs(error as unknown as PlatformView)
        else toastAgain(messages.notSaved(messageOf(error, response.status)), () => put(next, from, done))
      } catch {
        toastAgain(messages.keptInWindow, () => put(next, from, done))
      }
    }
    await put(profile, revision, (now) => {
      setTheirs(null)
      setRevision(now)
      setSavedAs(JSON.stringify(profile))
      toast(messages.saved(profile.name), () =>
        put(before, now, async () => {
          await saved()
          discard()
        }),
      )
      saved()
    })
  }
  const discard = () => {
    keepDraft(view.id, null)
    again()
  }
  // The form is for profiles that can be read; any other is corrected where it was typed.
  const asForm = async () => {
    try {
      JSON.parse(text ?? '')
    } catch {
      return toast(messages.fixJson)
    }
    const { error, response } = await api.POST('/api/platforms/check', { body: { profile: profile, like: null } })
    if (response.ok) return setText(null)
    const [path] = Object.keys((error as { errors?: Record<string, string[]> })?.errors ?? {})
    toast(messages.fixField(labelOf(path ?? '', profile.fields ?? [])))
  }
  useShortcuts({ savePlatform: () => changed && save() })
  const problems = Object.entries(wrong)
  // Errors of a field are shown at the field; as JSON there are no fields to show them at.
  const general = problems.filter(([path]) => text !== null || !/^profile\.fields\[\d+\]/.test(path))
  const wrongAt = (path: string) => wrong[`profile.${path}`]?.join(' ')
  const fresh = unfit.filter((u) => u.before)
  return (
    <section className="sheet" data-testid="profile">
      <div className="flex flex-wrap gap-x-4 gap-y-1 items-baseline mb-2">
        <input
          className="head text-[24px] font-bold bg-transparent outline-none border-b-2 border-transparent focus:border-(--color-secondary) field-sizing-content min-w-40"
          aria-label="Name"
          value={profile.name}
          onChange={(e) => change({ name: e.target.value })}
        />
        <span className="quiet text-[13px] num">{profile.id}</span>
        <span className="ml-auto flex gap-3 items-baseline text-[13.5px]">
          <button type="button" className="link disabled:opacity-50" disabled={!changed} onClick={discard}>
            Discard changes
          </button>
          <button type="button" className="link" onClick={() => (text === null ? setText(JSON.stringify(profile, null, 2)) : asForm())}>
            {text === null ? 'Edit as JSON' : 'Edit as a form'}
          </button>
          <a className="link" href={`/api/platforms/${view.id}/profile.json`}>
            Export JSON
          </a>
          <button type="button" className="btn btn-sm btn-primary" disabled={!changed} onClick={() => save()}>
            Save <Key of="savePlatform" plain />
          </button>
        </span>
      </div>
      {theirs && (
        <ConflictBox
          what={`The platform ${view.name}`}
          savedAt={null}
          rows={Object.keys({ ...profile, ...theirs.profile }).map((key) => ({
            label: key,
            mine: JSON.stringify(profile[key as keyof Profile] ?? null),
            theirs: JSON.stringify((theirs.profile as Record<string, unknown>)[key] ?? null),
          }))}
          keepMine={() => save(theirs.revision)}
          takeTheirs={async () => {
            await saved()
            discard()
          }}
        />
      )}
      {general.length > 0 && (
        <div className="text-accent text-[13.5px] mb-2" role="alert" data-testid="problems">
          {general.map(([path, messages]) => (
            <p key={path}>
              <b>{labelOf(path, profile.fields ?? [])}</b>: {messages.join(' ')}
            </p>
          ))}
        </div>
      )}
      {unfit.length > 0 && (
        <div className="text-[13.5px] mb-2" data-testid="unfit">
          <b>
            {fresh.length > 0
              ? `${counted(fresh.length, 'listing')} would no longer fit these rules:`
              : 'Listings that don’t fit these rules, and didn’t before:'}
          </b>
          {unfit.map((u) => (
            <p key={u.listingId} className={u.before ? 'text-accent' : 'quiet'}>
              {u.product}: {u.why.join('; ')}
            </p>
          ))}
        </div>
      )}
      {text !== null ? (
        <textarea
          className="w-full h-[60vh] num text-[12.5px] bg-transparent border border-(--tin-2) rounded p-2"
          aria-label="Platform as JSON"
          spellCheck={false}
          value={text}
          onChange={(e) => {
            setText(e.target.value)
            try {
              setProfile(JSON.parse(e.target.value) as Profile)
            } catch (problem) {
              setWrong({ 'profile.': [(problem as Error).message] })
            }
          }}
        />
      ) : (
        <>
          <textarea
            className="inline-input w-full text-[14px] field-sizing-content"
            aria-label="About"
            placeholder="What is special about this platform"
            value={profile.about ?? ''}
            onChange={(e) => change({ about: e.target.value })}
          />
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
              {profile.fields.map((f, i) => {
                const limit = (next: Limit) => {
                  const merged = { unit: 'characters', ...f.limit, ...next }
                  field(i, { limit: merged.max == null && merged.maxItems == null ? null : merged })
                }
                const bad = (key: string) => (wrongAt(`fields[${i}].${key}`) ? 'text-accent' : '')
                return (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a field is its place
                  <Fragment key={i}>
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
                          onChange={(e) => field(i, { shape: e.target.value })}
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
                          onChange={(e) => limit({ unit: e.target.value })}
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
                        <button
                          type="button"
                          className="px-1 cursor-pointer quiet"
                          aria-label={`Move ${f.key} up`}
                          onClick={() => move(i, -1)}
                        >
                          ↑
                        </button>
                        <button
                          type="button"
                          className="px-1 cursor-pointer quiet"
                          aria-label={`Move ${f.key} down`}
                          onClick={() => move(i, 1)}
                        >
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
                    {problems
                      .filter(([path]) => path.startsWith(`profile.fields[${i}]`))
                      .map(([path, messages]) => (
                        <tr key={path}>
                          <td colSpan={13} className="text-accent" role="alert" data-testid="problems">
                            <b>{labelOf(path, profile.fields ?? [])}</b>: {messages.join(' ')}
                          </td>
                        </tr>
                      ))}
                  </Fragment>
                )
              })}
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
          <div className="grid grid-cols-2 gap-x-8">
            <div>
              <h3 className="text-[15px] font-semibold mt-4 mb-1">Search treats as equal</h3>
              {Object.entries(folds).map(([key, name]) => (
                <label key={key} className="flex gap-2 items-center text-[14px] cursor-pointer">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={search.folds?.includes(key) ?? false}
                    onChange={(e) =>
                      change({
                        search: {
                          ...search,
                          folds: e.target.checked ? [...(search.folds ?? []), key] : search.folds?.filter((x) => x !== key),
                        },
                      })
                    }
                  />
                  {name}
                </label>
              ))}
              <label className="flex gap-2 items-center text-[14px] cursor-pointer mt-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={search.wordsCombine ?? false}
                  onChange={(e) => change({ search: { ...search, wordsCombine: e.target.checked } })}
                />
                The words of a search may be in different fields
              </label>
              <label className="flex gap-2 items-baseline text-[14px] mt-1">
                Search updates after
                <input
                  className="inline-input w-12 num"
                  inputMode="numeric"
                  aria-label="Search updates after (hours)"
                  value={search.indexDelayHours ?? 0}
                  onChange={(e) => change({ search: { ...search, indexDelayHours: number(e.target.value) ?? 0 } })}
                />
                hours
              </label>
              <Words
                name="Ignored words"
                values={search.ignoredWords ?? []}
                change={(w) => change({ search: { ...search, ignoredWords: w } })}
              />
              <Words name="Banned phrases" values={profile.banned ?? []} change={(banned) => change({ banned })} />
            </div>
            <div>
              <h3 className="text-[15px] font-semibold mt-4 mb-1">Check settings</h3>
              <table className="plain text-[13.5px]">
                <tbody>
                  {Object.entries(usual).map(([key, value]) => (
                    <tr key={key}>
                      <td>{thresholds[key] ?? key}</td>
                      <td className="r">
                        <input
                          className="inline-input w-14 num text-right"
                          inputMode="decimal"
                          aria-label={thresholds[key] ?? key}
                          placeholder={String(value)}
                          defaultValue={profile.checks?.[key] ?? ''}
                          onChange={(e) => {
                            const { [key]: _, ...others } = profile.checks ?? {}
                            const own = number(e.target.value)
                            change({ checks: own === null ? others : { ...others, [key]: own } })
                          }}
                        />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </div>
        </>
      )}
    </section>
  )
}
