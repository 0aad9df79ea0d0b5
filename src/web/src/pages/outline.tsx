import { useEffect, useState } from 'react'
import { api, ask, messageOf, type Page, type PlannedPage } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Dialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { counted } from '../kit/numbers'
import { useKept, useSaving } from '../kit/saving'
import { pressed } from '../kit/shortcuts'

/** Creates many categories from a pasted outline; what it would create shows while one types. */
export function OutlineDialog({ parent, close }: { parent: Page | undefined; close: () => void }) {
  const { attempt } = useChanges()
  const [text, setText, clear] = useKept(`outline ${parent?.id ?? ''}`, '')
  const [planned, setPlanned] = useState<PlannedPage[]>([])
  const saving = useSaving(() => {
    clear()
    close()
  })
  const { problem: error, setProblem: setError } = saving
  const body = { text, parentId: parent?.id ?? null }
  // biome-ignore lint/correctness/useExhaustiveDependencies: planned again when the text changes
  useEffect(() => {
    if (text.trim() === '') {
      setPlanned([])
      setError('')
      return
    }
    let gone = false
    const timer = setTimeout(async () => {
      const { data, error, response } = await api.POST('/api/pages/outline/preview', { body })
      if (gone) return
      setPlanned(data ?? [])
      setError(data ? '' : messageOf(error, response.status))
    }, 200)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [text])
  const add = () => {
    if (planned.length === 0) return
    saving.save(() => attempt(() => ask(api.POST('/api/pages/outline', { body }))))
  }
  return (
    <Dialog name="Paste an outline" close={close} width={860}>
      <h2 className="text-[20px] font-bold mb-1">Paste an outline</h2>
      <p className="quiet text-[13.5px] mb-3">
        Each line becomes a category {parent ? <>inside “{parent.name}”</> : 'at the top level'}; indented lines are inside the line above
        them.
      </p>
      <div className="grid grid-cols-2 gap-5">
        <textarea
          className="w-full h-[44vh] num text-[13px] bg-transparent border border-(--tin-2) rounded p-2"
          aria-label="Outline"
          placeholder={'Bird houses\n  Wren houses\n  Owl boxes\nFeeders'}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => pressed(e, 'runImport') && add()}
        />
        <div className="overflow-auto h-[44vh] text-[14px]" data-testid="planned">
          {error && (
            <p className="text-accent" role="alert">
              {error}
            </p>
          )}
          {planned.map((p) => (
            <p key={p.line} className="flex gap-3 border-b border-base-300 py-0.5" style={{ paddingLeft: p.level * 18 }}>
              <span>{p.name}</span> <span className="num quiet text-[12.5px]">/{p.slug}</span>
            </p>
          ))}
          {planned.length === 0 && !error && <p className="quiet">What it creates shows here.</p>}
        </div>
      </div>
      <p className="mt-3">
        <button type="button" className="btn btn-sm btn-primary" disabled={planned.length === 0} onClick={add}>
          Create {counted(planned.length, 'page')} <Key of="runImport" plain />
        </button>
      </p>
    </Dialog>
  )
}
