import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Copy, type FieldChange, type Version } from '../kit/api'
import { useChanges } from '../kit/changes'
import { messages } from '../kit/messages'
import { dateTimeOf } from '../kit/numbers'
import { Earlier, earlierThan } from '../kit/paging'
import { queryKey, refresh } from '../kit/queries'
import { toast } from '../kit/toast'
import { NameBox, Walked } from '../kit/walked'

/** Every saved state of the listing: compared word by word, renamed, restored, deleted. */
export function Versions({
  listingId,
  copy,
  settle,
  restore,
}: {
  listingId: number
  copy: () => Copy
  settle: () => Promise<void>
  restore: (version: Version) => void
}) {
  const cache = useQueryClient()
  const [open, setOpen] = useState<number | null>(null)
  const [against, setAgainst] = useState(0)
  const [naming, setNaming] = useState<number | null>(null)
  const path = { id: listingId }
  const { run } = useChanges()
  const remove = (v: Version) => {
    run(() => ask(api.DELETE('/api/listings/{id}/versions/{version}', { params: { path: { ...path, version: v.id } } })))
  }
  const pages = useInfiniteQuery({
    queryKey: queryKey('versions', listingId),
    queryFn: ({ pageParam }) => ask(api.GET('/api/listings/{id}/versions', { params: { path, query: { before: pageParam } } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: earlierThan,
    staleTime: 0,
  })
  const versions = pages.data?.pages.flat()
  const changes = useQuery({
    queryKey: queryKey('compare', listingId, open, against),
    enabled: open !== null,
    staleTime: 0,
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/versions/compare', {
          params: { path },
          body: { from: open ?? 0, to: against, fields: copy() },
        }),
      ),
  }).data
  const name = async <T,>(call: Promise<{ data?: T; error?: unknown; response: Response }>) => {
    try {
      return await ask(call)
    } catch (e) {
      toast((e as Error).message)
    } finally {
      refresh(cache, 'versions')
    }
  }
  return (
    <Walked
      name="Versions"
      testid="versions"
      rows={versions ?? []}
      id={(v) => String(v.id)}
      on={{ Enter: (v) => setOpen(open === v.id ? null : v.id), r: restore, F2: (v) => setNaming(v.id), Delete: remove }}
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
              toast(kept.kept ? messages.versionSaved : messages.versionNotNeeded)
              box.value = ''
            }}
          >
            <input
              name="name"
              className="inline-input flex-1"
              placeholder="Name (optional)"
              aria-label="Name of the new version"
              maxLength={80}
            />
            <button type="submit" className="btn btn-sm">
              Save version
            </button>
          </form>
          <p className="quiet text-[13px] mb-1">
            Saved automatically after a pause, before a fill or a fix, and when sent. <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>Enter</kbd>{' '}
            compares, <kbd>R</kbd> restores, <kbd>F2</kbd> renames, <kbd>Del</kbd> deletes.
          </p>
          {versions === undefined && <p className="quiet">Loading…</p>}
          {versions?.length === 0 && <p>No versions yet. The first is saved when you edit the listing after a pause.</p>}
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
                  run(() =>
                    ask(
                      api.PUT('/api/listings/{id}/versions/{version}', {
                        params: { path: { ...path, version: v.id } },
                        body: { name: next },
                      }),
                    ),
                  )
              }}
            />
          ) : (
            <p className="text-[14px]">
              <b>{v.name || dateTimeOf(v.at)}</b>{' '}
              <span className="quiet text-[13px]">
                {v.name ? `${dateTimeOf(v.at)}, ` : ''}saved {v.why}
              </span>
            </p>
          )}
          <p className="flex flex-wrap gap-3 text-[13px]">
            <button type="button" className="link" onClick={() => setOpen(open === v.id ? null : v.id)}>
              {open === v.id ? 'Close' : 'Compare'}
            </button>
            <button type="button" className="link" onClick={() => restore(v)}>
              Restore
            </button>
            <button type="button" className="link" onClick={() => setNaming(v.id)}>
              Rename
            </button>
            <button type="button" className="link" onClick={() => remove(v)}>
              Delete
            </button>
          </p>
          {open === v.id && (
            <Compared changes={changes} against={against} setAgainst={setAgainst} others={(versions ?? []).filter((o) => o.id !== v.id)} />
          )}
        </>
      )}
      after={<Earlier pages={pages} />}
    />
  )
}

/** The differences between two states, word by word. */
function Compared(p: { changes: FieldChange[] | undefined; against: number; setAgainst: (id: number) => void; others: Version[] }) {
  return (
    <>
      <label className="text-[13px] quiet">
        Compare with{' '}
        <select className="inline-input" value={p.against} onChange={(e) => p.setAgainst(Number(e.target.value))} aria-label="Compare with">
          <option value={0}>the current text</option>
          {p.others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name || dateTimeOf(o.at)}
            </option>
          ))}
        </select>
      </label>
      {p.changes?.length === 0 && <p className="text-[13.5px]">No differences.</p>}
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
