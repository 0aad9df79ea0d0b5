import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Copy, type FieldChange, type Version } from '../kit/api'
import { toast } from '../kit/toast'
import { NameBox, Walked } from '../kit/walked'

const when = (at: string) => new Date(at).toLocaleString(undefined, { month: 'short', day: 'numeric', hour: '2-digit', minute: '2-digit' })

/** Every state worth returning to: compared word by word with what is here, or with another, named, brought back. */
export function Versions({
  listingId,
  copy,
  settle,
  bring,
}: {
  listingId: number
  copy: () => Copy
  settle: () => Promise<void>
  bring: (version: Version) => void
}) {
  const cache = useQueryClient()
  const [open, setOpen] = useState<number | null>(null)
  const [against, setAgainst] = useState(0)
  const [naming, setNaming] = useState<number | null>(null)
  const key = ['versions', listingId]
  const path = { id: listingId }
  const versions = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET('/api/listings/{id}/versions', { params: { path } })),
    staleTime: 0,
  }).data
  const changes = useQuery({
    queryKey: ['compare', listingId, open, against],
    enabled: open !== null,
    staleTime: 0,
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/versions/compare', {
          params: { path },
          body: { from: open ?? 0, to: against, fields: copy() as never },
        }),
      ),
  }).data
  const name = async <T,>(call: Promise<{ data?: T; error?: unknown; response: Response }>) => {
    try {
      return await ask(call)
    } catch (e) {
      toast((e as Error).message)
    } finally {
      cache.invalidateQueries({ queryKey: key })
    }
  }
  return (
    <Walked
      name="Versions"
      testid="versions"
      rows={versions ?? []}
      id={(v) => String(v.id)}
      on={{ Enter: (v) => setOpen(open === v.id ? null : v.id), b: bring, n: (v) => setNaming(v.id) }}
      focus
      before={
        <>
          <form
            className="flex gap-2 mb-2"
            onSubmit={async (e) => {
              e.preventDefault()
              const box = e.currentTarget.elements.namedItem('name') as HTMLInputElement
              try {
                await settle()
              } catch (problem) {
                return toast((problem as Error).message)
              }
              const kept = await name(api.POST('/api/listings/{id}/versions', { params: { path }, body: { name: box.value } }))
              if (!kept) return
              toast(kept.kept ? 'Kept as a version' : 'Nothing new to keep: it is empty, or as it was kept last')
              box.value = ''
            }}
          >
            <input
              name="name"
              className="inline-input flex-1"
              placeholder="A name for what is here now"
              aria-label="Name of this version"
              maxLength={80}
            />
            <button type="submit" className="btn btn-sm">
              Keep now
            </button>
          </form>
          <p className="quiet text-[13px] mb-1">
            Kept by themselves: after a pause, before a fill or a fix, when sent. <kbd>↑</kbd> <kbd>↓</kbd> walk, <kbd>Enter</kbd> compares,{' '}
            <kbd>B</kbd> brings back, <kbd>N</kbd> names.
          </p>
          {versions === undefined && <p className="quiet">Looking…</p>}
          {versions?.length === 0 && <p>None yet: the first is kept when you change something after a pause.</p>}
        </>
      }
      row={(v) => (
        <>
          {naming === v.id ? (
            <NameBox
              label="Name of the version"
              value={v.name}
              done={(next) => {
                setNaming(null)
                if (next !== null && next !== v.name)
                  name(
                    api.PUT('/api/listings/{id}/versions/{version}', {
                      params: { path: { id: listingId, version: v.id } },
                      body: { name: next },
                    }),
                  )
              }}
            />
          ) : (
            <p className="text-[14px]">
              <b>{v.name || when(v.at)}</b>{' '}
              <span className="quiet text-[13px]">
                {v.name ? `${when(v.at)}, ` : ''}kept {v.why}
              </span>
            </p>
          )}
          <p className="flex flex-wrap gap-3 text-[13px]">
            <button type="button" className="link" onClick={() => setOpen(open === v.id ? null : v.id)}>
              {open === v.id ? 'Close' : 'Compare'}
            </button>
            <button type="button" className="link" onClick={() => bring(v)}>
              Bring back
            </button>
            <button type="button" className="link" onClick={() => setNaming(v.id)}>
              Name it
            </button>
          </p>
          {open === v.id && (
            <Compared changes={changes} against={against} setAgainst={setAgainst} others={(versions ?? []).filter((o) => o.id !== v.id)} />
          )}
        </>
      )}
    />
  )
}

/** What is different between two states, word by word. */
function Compared(p: { changes: FieldChange[] | undefined; against: number; setAgainst: (id: number) => void; others: Version[] }) {
  return (
    <>
      <label className="text-[13px] quiet">
        with{' '}
        <select className="inline-input" value={p.against} onChange={(e) => p.setAgainst(Number(e.target.value))} aria-label="Compare with">
          <option value={0}>what is here now</option>
          {p.others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name || when(o.at)}
            </option>
          ))}
        </select>
      </label>
      {p.changes?.length === 0 && <p className="text-[13.5px]">No difference.</p>}
      {p.changes?.map((c) => (
        <div key={c.field} className="text-[13.5px] my-1.5" data-testid="changed-field">
          <span className="quiet">{c.label}</span>
          <p className="whitespace-pre-wrap leading-snug">
            {c.words.map((w, i) => {
              const As = w.are === 'added' ? 'ins' : w.are === 'removed' ? 'del' : 'span'
              // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
              return <As key={i}>{w.text}</As>
            })}
          </p>
        </div>
      ))}
    </>
  )
}
