import { useEffect, useState } from 'react'
import { api, type PlatformView, type Unfit } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { useKeys } from '../kit/keys'
import { toast, toastAgain } from '../kit/toast'
import { type AttributeRule, Attributes, Categories, type Category, namesOf } from './categories'

export type Limit = { max?: number | null; unit?: string; maxItems?: number | null } | null
export type FieldRule = {
  key: string
  label?: string
  role?: string
  shape: string
  indexed?: boolean
  indexedFirst?: number | null
  weight?: number
  front?: boolean
  required?: boolean
  limit?: Limit
  shows?: number | null
  separator?: string
  tree?: Category[]
  attributes?: AttributeRule[]
  [other: string]: unknown
}
export type Profile = {
  id: string
  name: string
  about?: string
  language?: string
  spelling?: string | null
  search?: { folds?: string[]; ignoredWords?: string[]; wordsCombine?: boolean; indexDelayHours?: number }
  fields: FieldRule[]
  banned?: string[]
  checks?: Record<string, number>
}

const shapes = {
  line: 'one line',
  text: 'text',
  lines: 'bullet points',
  phrases: 'tags',
  words: 'loose words',
  rich: 'HTML',
  path: 'category',
  choices: 'attributes',
}
const folds = {
  diacritics: 'accents: pajaros = pájaros',
  possessive: 'owners: womens = women’s',
  plural: 'plurals: box = boxes',
  compound: 'one word or two: birdhouse = bird house',
  spelling: 'spelling: grey = gray',
}
const thresholds: Record<string, string> = {
  unusedShare: 'share of room that may lie unused',
  whatWithinWords: 'what it is, within the first words of the title',
  shoutingLetters: 'letters of a word of capitals that shouts',
  shoutingWords: 'such words in a field',
  descriptionMinWords: 'fewest words of the description',
  termPerHundredWords: 'most uses of a term in a hundred words',
  listSentenceWords: 'fewest words of a sentence that is a list',
  listSentenceShare: 'share of picks that makes it one',
  openingSentences: 'first sentences that should hold a core pick',
  rivalsFillShare: 'share of rivals that fill an attribute',
  shopNameInTags: '1: the shop’s name should be a tag',
  titleRepeatsPay: '1: a word twice in the title pays twice',
}

// What is no number goes on as it was typed: the check says so and names the key.
const number = (text: string) => (text.trim() === '' ? null : Number.isNaN(Number(text)) ? (text as unknown as number) : Number(text))

/** A name as an id or a key. */
export const idOf = (name: string) =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40)

// What is not saved yet is kept for as long as the window is open, with the revision that it was made from.
export const draftOf = (id: string) => {
  const kept = sessionStorage.getItem(`platform ${id}`)
  return kept === null ? null : (JSON.parse(kept) as { profile: Profile; revision: number })
}
const keepDraft = (id: string, profile: Profile | null, revision = 0) =>
  profile ? sessionStorage.setItem(`platform ${id}`, JSON.stringify({ profile, revision })) : sessionStorage.removeItem(`platform ${id}`)

/** One platform's rules, each to be changed; what is wrong, and which listings would no longer fit, is said while one types. */
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
  const changed = JSON.stringify(profile) !== JSON.stringify(view.profile)

  useEffect(() => keepDraft(view.id, changed ? profile : null, from), [view.id, changed, profile, from])

  // What a change would do is said while it is made.
  useEffect(() => {
    let gone = false
    const timer = setTimeout(async () => {
      const { data, error } = await api.POST('/api/platforms/check', { body: { profile: profile as never, like: null } })
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
    if (Object.keys(wrong).length > 0) return toast('Something is wrong still: it is said in rust')
    const before = view.profile
    const put = async (next: unknown, from: number, done: (revision: number) => void) => {
      try {
        const { data, error, response } = await api.PUT('/api/platforms/{id}', {
          params: { path: { id: view.id } },
          body: { profile: next as never, like: null, revision: from },
        })
        if (data) done(data.revision ?? from)
        else if (response.status === 409) setTheirs(error as unknown as PlatformView)
        else
          toastAgain(`Not saved: ${(error as { detail?: string })?.detail ?? `the server answered ${response.status}`}`, () =>
            put(next, from, done),
          )
      } catch {
        toastAgain('Not saved: the server cannot be reached. Your changes are kept in this window.', () => put(next, from, done))
      }
    }
    await put(profile, revision, (now) => {
      setTheirs(null)
      setRevision(now)
      toast(`${profile.name} saved`, () =>
        put(before, now, async () => {
          await saved()
          forget()
        }),
      )
      saved()
    })
  }
  const forget = () => {
    keepDraft(view.id, null)
    again()
  }
  // The form is for profiles that can be read; what cannot is put right where it was typed.
  const asForm = async () => {
    try {
      JSON.parse(text ?? '')
    } catch {
      return toast('Put the JSON right first')
    }
    const { error, response } = await api.POST('/api/platforms/check', { body: { profile: profile as never, like: null } })
    if (response.ok) return setText(null)
    const [path] = Object.keys((error as { errors?: Record<string, string[]> })?.errors ?? {})
    toast(`Put ${path?.replace(/^profile\.?/, '') || 'the profile'} right first`)
  }
  useKeys({ 'Ctrl+s': () => save() })
  const problems = Object.entries(wrong)
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
          {changed && (
            <button type="button" className="link" onClick={forget}>
              Forget the changes
            </button>
          )}
          <button type="button" className="link" onClick={() => (text === null ? setText(JSON.stringify(profile, null, 2)) : asForm())}>
            {text === null ? 'As JSON' : 'As a form'}
          </button>
          <a className="link" href={`/api/platforms/${view.id}/profile.json`}>
            Take out (JSON)
          </a>
          <button type="button" className="btn btn-sm btn-primary" disabled={!changed} onClick={() => save()}>
            Save <kbd>Ctrl S</kbd>
          </button>
        </span>
      </div>
      {theirs && (
        <ConflictBox
          what={`${view.name}’s profile`}
          savedAt={null}
          rows={Object.keys({ ...profile, ...theirs.profile }).map((key) => ({
            label: key,
            mine: JSON.stringify(profile[key as keyof Profile] ?? null),
            theirs: JSON.stringify((theirs.profile as Record<string, unknown>)[key] ?? null),
          }))}
          keepMine={() => save(theirs.revision)}
          takeTheirs={async () => {
            await saved()
            forget()
          }}
        />
      )}
      {problems.length > 0 && (
        <div className="text-accent text-[13.5px] mb-2" role="alert" data-testid="problems">
          {problems.map(([path, messages]) => (
            <p key={path}>
              <span className="num">{path.replace(/^profile\./, '')}</span>: {messages.join(' ')}
            </p>
          ))}
        </div>
      )}
      {unfit.length > 0 && (
        <div className="text-[13.5px] mb-2" data-testid="unfit">
          <b>{fresh.length > 0 ? `${fresh.length} that fitted before would no longer:` : 'Do not fit, and did not before:'}</b>
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
          aria-label="The profile as JSON"
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
            placeholder="What is different here"
            value={profile.about ?? ''}
            onChange={(e) => change({ about: e.target.value })}
          />
          <h3 className="text-[15px] font-semibold mt-3 mb-1">Fields</h3>
          <table className="plain fields text-[13.5px]">
            <thead>
              <tr>
                <th>Name</th>
                <th>Written as</th>
                <th title="Most that the text, or each entry, may hold">Most</th>
                <th>counted in</th>
                <th title="Most entries of a list">Entries</th>
                <th title="Characters that other places show">Shown</th>
                <th title="Whether its search reads it">Searched</th>
                <th title="Only so many first characters are read">first</th>
                <th title="How much a match here counts, 0 to 1">Weight</th>
                <th title="A match further forward counts for more">Front</th>
                <th title="No listing without it">Needed</th>
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
                  <tr key={i}>
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
                        aria-label={`Shape of ${f.key}`}
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
                        label={`Most of ${f.key}`}
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
                        label={`Entries of ${f.key}`}
                        width="w-11"
                        wrong={bad('limit.maxItems')}
                        none={['lines', 'phrases', 'path'].includes(f.shape) ? 'any' : '–'}
                        value={f.limit?.maxItems}
                        put={(n) => limit({ maxItems: n })}
                      />
                    </td>
                    <td>
                      <NumberBox
                        label={`Shown of ${f.key}`}
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
                        label={`First characters searched of ${f.key}`}
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
                        aria-label={`Front of ${f.key} counts`}
                        checked={f.front ?? false}
                        onChange={(e) => field(i, { front: e.target.checked })}
                      />
                    </td>
                    <td>
                      <input
                        type="checkbox"
                        className="checkbox checkbox-xs"
                        aria-label={`${f.key} is needed`}
                        checked={f.required ?? false}
                        onChange={(e) => field(i, { required: e.target.checked })}
                      />
                    </td>
                    <td className="whitespace-nowrap">
                      <button type="button" className="px-1 cursor-pointer quiet" aria-label={`${f.key} up`} onClick={() => move(i, -1)}>
                        ↑
                      </button>
                      <button type="button" className="px-1 cursor-pointer quiet" aria-label={`${f.key} down`} onClick={() => move(i, 1)}>
                        ↓
                      </button>
                      <button
                        type="button"
                        className="px-1 cursor-pointer quiet"
                        aria-label={`Take ${f.key} out`}
                        onClick={() => change({ fields: profile.fields.filter((_, k) => k !== i) })}
                      >
                        ×
                      </button>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
          <form
            className="mt-1"
            onSubmit={(e) => {
              e.preventDefault()
              const box = e.currentTarget.elements.namedItem('label') as HTMLInputElement
              const key = idOf(box.value)
              if (!key) return
              change({ fields: [...profile.fields, { key, label: box.value.trim(), shape: 'line', indexed: false, weight: 0 }] })
              box.value = ''
            }}
          >
            <input name="label" className="inline-input w-56" placeholder="another field… then Enter" aria-label="Name of another field" />
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
              <h3 className="text-[15px] font-semibold mt-4 mb-1">Its search takes as the same</h3>
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
                a search’s words may stand in different fields
              </label>
              <label className="flex gap-2 items-baseline text-[14px] mt-1">
                its index notices a change after
                <input
                  className="inline-input w-12 num"
                  inputMode="numeric"
                  aria-label="Hours until its index notices"
                  value={search.indexDelayHours ?? 0}
                  onChange={(e) => change({ search: { ...search, indexDelayHours: number(e.target.value) ?? 0 } })}
                />
                hours
              </label>
              <Words
                name="Words it drops from a search"
                values={search.ignoredWords ?? []}
                change={(w) => change({ search: { ...search, ignoredWords: w } })}
              />
              <Words name="Phrases it refuses" values={profile.banned ?? []} change={(banned) => change({ banned })} />
            </div>
            <div>
              <h3 className="text-[15px] font-semibold mt-4 mb-1">Thresholds of the findings</h3>
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

/** A whole number, or nothing. */
function NumberBox(p: {
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
      placeholder={p.none}
      value={p.value ?? ''}
      onChange={(e) => p.put(number(e.target.value))}
    />
  )
}

/** A list of words or phrases, separated by commas. */
function Words({ name, values, change }: { name: string; values: string[]; change: (values: string[]) => void }) {
  const [text, setText] = useState(values.join(', '))
  return (
    <>
      <h3 className="text-[15px] font-semibold mt-4 mb-1">{name}</h3>
      <textarea
        className="inline-input w-full text-[14px] field-sizing-content"
        aria-label={name}
        placeholder="none; separate by commas"
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
