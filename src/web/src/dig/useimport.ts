import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type ColumnRole, type ImportPart, type ImportView, type TableLook } from '../kit/api'
import { useChanges } from '../kit/changes'
import { messages } from '../kit/messages'
import { refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { lines } from '../kit/stream'
import { upload } from '../kit/upload'

/** A file that is to be imported: how it is read, corrected, how far the import has come, and how it ended. */
export function useImport(desk: Desk, file: File | null) {
  const [view, setView] = useState<ImportView | null>(null)
  const [source, setSource] = useState('')
  const [part, setPart] = useState<ImportPart | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState('')
  const running = useRef<AbortController>(undefined)
  const cache = useQueryClient()
  const changes = useChanges()
  const path = { marketId: desk.market.id }
  const [rows, setRows] = useState<{ rows: number; more: boolean } | null>(null)
  const [id, separator, encoding] = [view?.id, view?.look.separator, view?.look.encoding]
  // The rows are counted beside everything else: a million takes a moment.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is counted depends on these alone
  useEffect(() => {
    setRows(null)
    if (!view) return
    let gone = false
    ask(
      api.POST('/api/markets/{marketId}/imports/{id}/rows', {
        params: { path: { ...path, id: view.id } },
        body: { look: view.look, encoding: null, separator: null },
      }),
    )
      .then((counted) => !gone && setRows(counted))
      .catch(() => undefined)
    return () => {
      gone = true
    }
  }, [id, separator, encoding])

  const begin = async (chosen: File) => {
    setError('')
    setPart(null)
    setBusy(`Reading ${chosen.name}…`)
    try {
      setView(await upload<ImportView>(`/api/markets/${desk.market.id}/imports?name=${encodeURIComponent(chosen.name)}`, chosen))
      setSource(chosen.name.replace(/\.\w+$/, ''))
    } catch (e) {
      setError(messages.notImported((e as Error).message))
    }
    setBusy('')
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: a file that was dropped is read at once
  useEffect(() => {
    if (file) begin(file)
  }, [file])

  const look = async (change: Partial<TableLook>, again = false) => {
    if (!view) return
    setError('')
    const body = again
      ? { look: null, encoding: change.encoding ?? view.look.encoding, separator: change.separator ?? view.look.separator }
      : { look: { ...view.look, ...change }, encoding: null, separator: null }
    try {
      setView(await ask(api.POST('/api/markets/{marketId}/imports/{id}/look', { params: { path: { ...path, id: view.id } }, body })))
    } catch (e) {
      // What was chosen stays in sight beside what is wrong with it.
      if (!again) setView({ ...view, look: { ...view.look, ...change } as TableLook })
      setError((e as Error).message)
    }
  }
  const role = (i: number, to: ColumnRole) =>
    view &&
    look({
      columns: view.look.columns.map((c, k) => ({
        ...c,
        role: k === i ? to : to !== 'month' && to !== 'ignore' && c.role === to ? 'ignore' : c.role,
      })),
    })

  const run = async () => {
    if (!view || part?.doing) return
    setError('')
    const controller = new AbortController()
    running.current = controller
    try {
      const url = `/api/markets/${desk.market.id}/imports/${view.id}/run`
      for await (const p of lines<ImportPart>(url, { look: view.look, source }, controller.signal)) setPart(p)
      await refresh(cache, 'numbers')
    } catch (e) {
      setPart(null)
      setError(controller.signal.aborted ? messages.importStopped : messages.notImported((e as Error).message))
    }
  }
  const stop = () => running.current?.abort()
  const undoImport = (id: number) =>
    changes.run(
      async () => {
        const { what } = await ask(api.POST('/api/markets/{marketId}/imports/{import}/undo', { params: { path: { ...path, import: id } } }))
        return { what: what ? messages.undone(what) : messages.nothingToUndo }
      },
      () => refresh(cache, 'numbers'),
    )
  const undoThis = (id: number) => undoImport(id).then(() => setPart(null))
  return { view, source, setSource, part, error, busy, rows, begin, look, role, run, stop, undoImport, undoThis }
}

export type ImportDraft = ReturnType<typeof useImport>
