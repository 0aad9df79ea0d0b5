import { useEffect, useMemo, useState } from 'react'
import { api, type PlatformView, type Profile, type Unfit } from '../kit/api'
import { profileDraft, useDraftView } from '../kit/drafts/drafts'
import { messages } from '../kit/messages'
import { toast } from '../kit/toast'
import { type FieldRule, labelOf } from './profilerules'

/** A platform's rules while they are edited: what would be wrong, which listings would no longer fit, saving, and another window's changes. */
export function useProfile(view: PlatformView) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: newer rules are opened below, in the same draft
  const draft = useMemo(() => profileDraft(view), [view.id])
  useEffect(() => draft.open(view.profile as unknown as Profile, view.revision), [draft, view])
  const state = useDraftView(draft)
  const profile = state.value
  const [text, setText] = useState<string | null>(null)
  const [wrong, setWrong] = useState<Record<string, string[]>>({})
  const [unfit, setUnfit] = useState<Unfit[]>([])

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

  const change = (next: Partial<Profile>) => draft.hold({ ...draft.snapshot().value, ...next })
  const field = (i: number, next: Partial<FieldRule>) => change({ fields: profile.fields.map((f, k) => (k === i ? { ...f, ...next } : f)) })
  const move = (i: number, by: number) => {
    const fields = [...profile.fields]
    const to = i + by
    if (to < 0 || to >= fields.length) return
    fields.splice(to, 0, ...fields.splice(i, 1))
    change({ fields })
  }
  const save = () => {
    if (Object.keys(wrong).length > 0) return toast(messages.fixErrors)
    return draft.release()
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
      draft.hold(JSON.parse(json) as Profile)
    } catch (problem) {
      setWrong({ 'profile.': [(problem as Error).message] })
    }
  }
  const problems = Object.entries(wrong)
  return {
    draft,
    state,
    profile,
    changed: state.state !== 'saved',
    text,
    edit,
    toggleJson: () => (text === null ? setText(JSON.stringify(profile, null, 2)) : asForm()),
    // Errors of a field are shown at the field; as JSON there are no fields to show them at.
    general: problems.filter(([path]) => text !== null || !/^profile\.fields\[\d+\]/.test(path)),
    problemsOf: (i: number) => problems.filter(([path]) => path.startsWith(`profile.fields[${i}]`)),
    isWrong: (path: string) => wrong[`profile.${path}`] !== undefined,
    unfit,
    change,
    field,
    move,
    save,
  }
}

export type ProfileDraft = ReturnType<typeof useProfile>
