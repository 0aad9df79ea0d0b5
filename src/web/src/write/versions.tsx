import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Copy, type Version } from '../kit/api'
import { toast } from '../kit/toast'

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
  const name = async (call: Promise<{ error?: unknown; response: Response }>) => {
    try {
      await ask(call)
    } catch (e) {
      toast((e as Error).message)
    }
    cache.invalidateQueries({ queryKey: key })
  }
  if (!versions) return <p className="quiet">Looking…</p>
  return (
    <div className="side-part" data-testid="versions">
      <form
        className="flex gap-2 mb-2"
        onSubmit={async (e) => {
          e.preventDefault()
          const box = e.currentTarget.elements.namedItem('name') as HTMLInputElement
          await settle()
          await name(api.POST('/api/listings/{id}/versions', { params: { path }, body: { name: box.value } }))
          toast('Kept as a version')
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
      <p className="quiet text-[13px] mb-2">Kept by themselves: after a pause, before a fill or a fix, when sent.</p>
      {versions.length === 0 && <p>None yet: the first is kept when you change something after a pause.</p>}
      {versions.map((v) => (
        <div key={v.id} className={`take ${open === v.id ? 'cursor' : ''}`}>
          <p className="text-[14px]">
            <b>{v.name || when(v.at)}</b>{' '}
            <span className="quiet text-[13px]">
              {v.name ? `${when(v.at)}, ` : ''}kept {v.why}
            </span>
          </p>
          <p className="flex flex-wrap gap-3 text-[13px]">
            <button type="button" className="link" onClick={() => setOpen(open === v.id ? null : v.id)}>
              {open === v.id ? 'Close' : 'Compare'}
            </button>
            <button type="button" className="link" onClick={() => bring(v)}>
              Bring back
            </button>
            <button
              type="button"
              className="link"
              onClick={() => {
                const next = window.prompt('A name for this version', v.name)
                if (next !== null)
                  name(
                    api.PUT('/api/listings/{id}/versions/{version}', {
                      params: { path: { id: listingId, version: v.id } },
                      body: { name: next },
                    }),
                  )
              }}
            >
              Name it
            </button>
          </p>
          {open === v.id && (
            <>
              <label className="text-[13px] quiet">
                with{' '}
                <select
                  className="inline-input"
                  value={against}
                  onChange={(e) => setAgainst(Number(e.target.value))}
                  aria-label="Compare with"
                >
                  <option value={0}>what is here now</option>
                  {versions
                    .filter((o) => o.id !== v.id)
                    .map((o) => (
                      <option key={o.id} value={o.id}>
                        {o.name || when(o.at)}
                      </option>
                    ))}
                </select>
              </label>
              {changes?.length === 0 && <p className="text-[13.5px]">No difference.</p>}
              {changes?.map((c) => (
                <div key={c.field} className="text-[13.5px] my-1.5" data-testid="changed-field">
                  <span className="quiet">{c.label}</span>
                  <p className="whitespace-pre-wrap leading-snug">
                    {c.words.map((w, i) =>
                      w.are === 'added' ? (
                        // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
                        <ins key={i}>{w.text}</ins>
                      ) : w.are === 'removed' ? (
                        // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
                        <del key={i}>{w.text}</del>
                      ) : (
                        // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
                        <span key={i}>{w.text}</span>
                      ),
                    )}
                  </p>
                </div>
              ))}
            </>
          )}
        </div>
      ))}
    </div>
  )
}
