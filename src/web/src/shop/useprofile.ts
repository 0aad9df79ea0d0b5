import { useEffect, useState } from 'react'
import { api, messageOf, type PlatformView, type Unfit } from '../kit/api'
import { messages } from '../kit/messages'
import { toast, toastAgain } from '../kit/toast'
import { draftOf, type FieldRule, keepDraft, labelOf, type Profile } from './profilerules'

/** A platform's rules while they are edited: what would be wrong, which listings would no longer fit, saving, and another window's changes. */
export function useProfile(
  view: PlatformView,
  saved: () => Promise<void>,
  /** Begins anew with what is saved. */
  again: () => void,
) {
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
  const edit = (json: string) => {
    setText(json)
    try {
      setProfile(JSON.parse(json) as Profile)
    } catch (problem) {
      setWrong({ 'profile.': [(problem as Error).message] })
    }
  }
  const problems = Object.entries(wrong)
  return {
    profile,
    changed,
    text,
    edit,
    toggleJson: () => (text === null ? setText(JSON.stringify(profile, null, 2)) : asForm()),
    // Errors of a field are shown at the field; as JSON there are no fields to show them at.
    general: problems.filter(([path]) => text !== null || !/^profile\.fields\[\d+\]/.test(path)),
    problemsOf: (i: number) => problems.filter(([path]) => path.startsWith(`profile.fields[${i}]`)),
    isWrong: (path: string) => wrong[`profile.${path}`] !== undefined,
    unfit,
    theirs,
    change,
    field,
    move,
    save,
    discard,
  }
}

export type ProfileDraft = ReturnType<typeof useProfile>
