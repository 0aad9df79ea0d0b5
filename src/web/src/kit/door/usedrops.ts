import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ask, type DropChoice, type DropView } from '../api'
import { useChanges } from '../changes'
import { messages } from '../messages'
import { refresh, refreshAll } from '../queries'
import { toast } from '../toast'
import { upload } from '../upload'
import type { Brought } from './open'

/** Where something is brought in; the product is the one whose Dig a large table goes to, and the screen is where undo takes it back. */
export type DoorPlace = { marketId: string; screen: string; productId?: number; listingId?: number }

type Uploaded = { files: string[]; textId: string | null }
type Dropped = { files: { id: string; name: string; isPicture: boolean }[] }

const send = async (file: Blob, name: string) => (await upload<Dropped>(`/api/drops?name=${encodeURIComponent(name)}`, file)).files

/** Sends what is brought in, asks what it is, with what the seller corrects, and adds it. */
export function useDrops(place: DoorPlace, brought: Brought, close: () => void) {
  const changes = useChanges()
  const [uploaded, setUploaded] = useState<Uploaded | null>(null)
  const [views, setViews] = useState<DropView[] | null>(null)
  const [choices, setChoices] = useState<Record<string, DropChoice>>({})
  const [problem, setProblem] = useState('')
  const [isBusy, setBusy] = useState(false)
  const asked = useRef(0)
  const sent = useRef(new Map<string, File>())
  const navigate = useNavigate()

  const body = (all: Record<string, DropChoice>, of: Uploaded) => ({
    files: of.files,
    marketId: place.marketId,
    textId: of.textId,
    choices: Object.values(all),
    listingId: place.listingId ?? null,
    term: brought.term ?? null,
    screen: place.screen,
  })

  const look = async (all: Record<string, DropChoice>, of: Uploaded | null = uploaded) => {
    if (!of || of.files.length === 0) return
    const number = ++asked.current
    try {
      const next = await ask(api.POST('/api/drops/preview', { body: body(all, of) }))
      if (number !== asked.current) return
      setViews(next)
      setProblem('')
    } catch (e) {
      if (number === asked.current) setProblem((e as Error).message)
    }
  }

  const bring = async ({ files, text }: Pick<Brought, 'files' | 'text'>) => {
    setBusy(true)
    setProblem('')
    const ids = [...(uploaded?.files ?? [])]
    let textId = uploaded?.textId ?? null
    for (const file of files)
      try {
        const stored = await send(file, file.name)
        if (stored[0] && stored.length === 1) sent.current.set(stored[0].id, file)
        ids.push(...stored.map((f) => f.id))
      } catch (e) {
        setProblem((e as Error).message)
      }
    if (text && files.length === 1 && ids.length === 1) textId = (await send(new Blob([text]), 'Pasted'))[0]?.id ?? null
    const of = { files: ids, textId }
    setUploaded(of)
    await look(choices, of)
    setBusy(false)
  }

  // What it was opened with is brought in at once.
  const first = useRef(false)
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, with what it was opened with
  useEffect(() => {
    if (first.current || brought.files.length === 0) return
    first.current = true
    bring(brought)
  }, [])

  const choose = (id: string, change: Partial<DropChoice>) => {
    const next = { ...choices, [id]: { ...nothing(id), ...choices[id], ...change } }
    setChoices(next)
    look(next)
  }
  const isReady = (views ?? []).some((v) => !v.isOut) && (views ?? []).every((v) => v.isOut || v.shown.problem === null)
  const add = async () => {
    if (!uploaded || !isReady || isBusy) return
    setBusy(true)
    let refreshed: Promise<unknown> | undefined
    const said = await changes.attempt(
      async () => {
        const done = await ask(api.POST('/api/drops/add', { body: body(choices, uploaded) }))
        if (!done.what) toast(messages.nothingNew)
        return done
      },
      (c) => {
        refreshed = refreshAll(c).then(() => refresh(c, 'numbers'))
        return refreshed
      },
    )
    // Where one goes next, all of it is there.
    await refreshed
    setBusy(false)
    if (said !== null) return setProblem(said)
    close()
    brought.done?.()
  }
  const forget = () => {
    for (const id of uploaded?.files ?? []) api.DELETE('/api/drops/{id}', { params: { path: { id } } })
    close()
  }
  // What has an import of its own goes there as it is.
  const hand = (id: string, to: string) => {
    navigate(to, { state: { file: sent.current.get(id) } })
    forget()
  }
  return { views, choose, problem, isBusy, isReady, bring, add, forget, hand }
}

/** Nothing is corrected. */
const nothing = (id: string): DropChoice => ({
  id,
  kind: null,
  term: null,
  marketId: null,
  day: null,
  listingId: null,
  ofRivals: null,
  isLive: null,
  columns: null,
  isOut: false,
})
