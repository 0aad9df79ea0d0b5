import { useEffect, useRef, useState } from 'react'
import { api, ask, type EditRequest, type ListingLine, messageOf, type PlannedEdit } from '../../kit/api'
import { useChanges } from '../../kit/changes'
import { Difference } from '../../kit/difference'
import { messages } from '../../kit/messages'
import { counted, fixed, full } from '../../kit/numbers'
import { toast } from '../../kit/toast'

export type ManyKind = EditRequest['kind']

const kinds = [
  ['replace', 'Find and replace'],
  ['addTag', 'Add a tag'],
  ['removeTag', 'Remove a tag'],
] as const

const fields = [
  ['title', 'Title'],
  ['tags', 'Tags'],
  ['bullets', 'Bullet points'],
  ['backend', 'Backend keywords'],
  ['body', 'Description'],
] as const

const shownChanges = 200

/** One edit of many listings: every change shows first, with its effect on grip and limits; one undo takes it back. */
export function EditMany(p: {
  kind: ManyKind
  listings: ListingLine[]
  country: string
  close: () => void
  change: (kind: ManyKind) => void
}) {
  const { run } = useChanges()
  // What is selected when it opens stays what is edited.
  const [ids] = useState(() => p.listings.map((l) => l.id))
  const [find, setFind] = useState('')
  const [replacement, setReplacement] = useState('')
  const [matchesCase, setMatchesCase] = useState(false)
  const [wholeWords, setWholeWords] = useState(true)
  const [roles, setRoles] = useState<string[]>([])
  const [plan, setPlan] = useState<PlannedEdit[] | null>(null)
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set())
  const [error, setError] = useState('')
  const first = useRef<HTMLInputElement>(null)
  useEffect(() => first.current?.focus(), [])
  const edit: EditRequest = { ids, kind: p.kind, find, replacement, matchesCase, wholeWords, roles, country: p.country }
  const asked = JSON.stringify(edit)
  // biome-ignore lint/correctness/useExhaustiveDependencies: planned again when the edit changes
  useEffect(() => {
    setError('')
    if (!find.trim()) return setPlan(null)
    const control = new AbortController()
    const timer = setTimeout(async () => {
      try {
        const { data, error, response } = await api.POST('/api/listings/edit/preview', { body: edit, signal: control.signal })
        setPlan(data?.changes ?? null)
        // What would not fit is left out until the seller says otherwise.
        setDropped(new Set(data?.changes.filter((c) => c.over !== null).map((c) => c.key)))
        setError(data ? '' : messageOf(error, response.status))
      } catch (e) {
        if (!control.signal.aborted) setError((e as Error).message)
      }
    }, 250)
    return () => {
      clearTimeout(timer)
      control.abort()
    }
  }, [asked])
  const chosen = plan?.filter((c) => !dropped.has(c.key)) ?? []
  const listings = new Set(chosen.map((c) => c.listingId)).size
  const apply = () => {
    if (chosen.length === 0) return
    p.close()
    run(async () => {
      const done = await ask(
        api.POST('/api/listings/edit', {
          body: { edit, keys: chosen.map((c) => c.key), revisions: Object.fromEntries(chosen.map((c) => [c.listingId, c.revision])) },
        }),
      )
      if (done.skipped > 0) toast(messages.editSkipped(done.skipped))
      return { what: done.what && done.skipped > 0 ? `${done.what}. ${messages.editSkipped(done.skipped)}` : done.what, id: done.id }
    })
  }
  const toggle = (key: string) => {
    const next = new Set(dropped)
    if (!next.delete(key)) next.add(key)
    setDropped(next)
  }
  const tick = (label: string, on: boolean, set: (on: boolean) => void) => (
    <label className="inline-flex gap-1.5 items-center text-[13.5px] cursor-pointer">
      <input type="checkbox" className="checkbox checkbox-xs checkbox-primary" checked={on} onChange={(e) => set(e.target.checked)} />
      {label}
    </label>
  )
  return (
    <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr) auto' }} data-testid="edit-many">
      <form
        onSubmit={(e) => e.preventDefault()}
        onKeyDown={(e) => {
          const inBox = e.target instanceof HTMLInputElement && e.target.type !== 'checkbox'
          // The button is below the changes, outside the form: the browser would not press it.
          if (e.key === 'Escape') p.close()
          else if (e.key === 'Enter' && inBox) apply()
          else return
          e.preventDefault()
          e.stopPropagation()
        }}
      >
        <nav className="side-tabs" aria-label="Edits">
          {kinds.map(([kind, name]) => (
            <button key={kind} type="button" aria-pressed={p.kind === kind} onClick={() => p.change(kind)}>
              {name}
            </button>
          ))}
        </nav>
        <p className="text-[14px] mb-1">in {counted(ids.length, 'listing')}</p>
        <label className="block text-[13.5px] mb-2">
          {p.kind === 'replace' ? 'Find' : 'Tag'}
          <input ref={first} className="input input-sm w-full" value={find} maxLength={2000} onChange={(e) => setFind(e.target.value)} />
        </label>
        {p.kind === 'replace' && (
          <>
            <label className="block text-[13.5px] mb-2">
              Replace with <span className="quiet">empty removes it</span>
              <input
                className="input input-sm w-full"
                value={replacement}
                maxLength={2000}
                onChange={(e) => setReplacement(e.target.value)}
              />
            </label>
            <p className="flex flex-wrap gap-x-4 gap-y-1 mb-2">
              {tick('Whole words', wholeWords, setWholeWords)}
              {tick('Match case', matchesCase, setMatchesCase)}
            </p>
            <fieldset className="flex flex-wrap gap-1 items-center">
              <legend className="sr-only">Fields</legend>
              <button type="button" className="choice" aria-pressed={roles.length === 0} onClick={() => setRoles([])}>
                All texts
              </button>
              {fields.map(([role, name]) => (
                <button
                  key={role}
                  type="button"
                  className="choice"
                  aria-pressed={roles.includes(role)}
                  onClick={() => setRoles(roles.includes(role) ? roles.filter((r) => r !== role) : [...roles, role])}
                >
                  {name}
                </button>
              ))}
            </fieldset>
          </>
        )}
        {error && (
          <p className="text-accent text-[14px] mt-2" role="alert">
            {error}
          </p>
        )}
      </form>
      <div className="overflow-auto min-h-0 mt-2" data-testid="planned">
        {plan === null ? (
          <p className="quiet text-[14px]">
            {find.trim() ? 'Looking through the listings…' : 'Every change shows here first, with its effect on grip and on limits.'}
          </p>
        ) : plan.length === 0 ? (
          <p className="quiet text-[14px]">
            {p.kind === 'replace'
              ? `None of them has “${find.trim()}”.`
              : p.kind === 'addTag'
                ? 'All of them have this tag, or no field for tags.'
                : 'None of them has this tag.'}
          </p>
        ) : (
          plan.slice(0, shownChanges).map((c) => (
            <div key={c.key} className="border-b border-base-300 py-1.5 text-[13.5px]">
              <label className="flex gap-2 items-baseline cursor-pointer">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs checkbox-primary self-center"
                  checked={!dropped.has(c.key)}
                  onChange={() => toggle(c.key)}
                />
                <span>
                  <b className="font-semibold">{c.product}</b>{' '}
                  <span className="quiet">
                    {c.platform}, {c.field.toLowerCase()}
                  </span>
                </span>
                <span className="num quiet ml-auto whitespace-nowrap" title="Change in grip">
                  {c.grip === null ? 'no data' : `${c.grip >= 0 ? '+' : '−'}${fixed(Math.abs(c.grip), 1)}`}
                </span>
              </label>
              {c.over && <p className="text-accent">{c.over}. Left out unless you tick it.</p>}
              <p className="leading-snug whitespace-pre-wrap">
                <Difference before={c.before.replaceAll('\n', ' · ')} after={c.after.replaceAll('\n', ' · ')} />
              </p>
            </div>
          ))
        )}
        {plan && plan.length > shownChanges && (
          <p className="quiet text-[13.5px] py-2">and {full(plan.length - shownChanges)} more, which are changed too.</p>
        )}
      </div>
      <p className="flex gap-2 items-center pt-2">
        <button type="button" className="btn btn-sm btn-primary" disabled={chosen.length === 0} onClick={apply}>
          Change {counted(listings, 'listing')} <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
        <button type="button" className="btn btn-sm" onClick={p.close}>
          Cancel <kbd>Esc</kbd>
        </button>
      </p>
    </aside>
  )
}
