import { useRef } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import type { NoteKind } from '../kit/api'
import { counted } from '../kit/numbers'
import { useShop } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { kindNames } from './names'
import { noteColumns } from './notecolumns'
import { NoteDetail } from './notedetail'
import { NoteTable, useNoteRows } from './notetable'
import { useJournal } from './usenotes'

const journalColumns = noteColumns(true)

/** Every change note of the shop, searched and filtered. */
export function Journal({ head }: { head: React.ReactNode }) {
  const [params, set] = useAddress()
  const shop = useShop().data
  const box = useRef<HTMLInputElement>(null)
  const has = params.get('text') ?? ''
  const kind = (params.get('kind') as NoteKind | null) ?? undefined
  const productId = params.get('product') ? Number(params.get('product')) : undefined
  const journal = useJournal({ has: has || undefined, kind, productId })
  const { rows, at, note } = useNoteRows(journal.data?.notes ?? [], journalColumns)
  useShortcuts({ filterListings: () => box.current?.focus() })
  const query = new URLSearchParams({ ...(has && { has }), ...(kind && { kind }), ...(productId && { productId: String(productId) }) })
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }} data-testid="journal">
        {head}
        <div className="mb-2">
          <h1 className="text-[24px] font-bold leading-tight">{counted(journal.data?.all ?? 0, 'change')} in the journal</h1>
          <div className="flex flex-wrap gap-2 items-center mt-2">
            <input
              ref={box}
              className="input input-sm w-60"
              placeholder="Search the journal"
              aria-label="Search the journal"
              value={has}
              maxLength={200}
              onChange={(e) => set({ text: e.target.value })}
              onKeyDown={(e) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()}
            />
            <select
              className="select select-sm w-44"
              aria-label="Kind"
              value={kind ?? ''}
              onChange={(e) => set({ kind: e.target.value || null })}
            >
              <option value="">All kinds</option>
              {(Object.keys(kindNames) as NoteKind[]).map((k) => (
                <option key={k} value={k}>
                  {kindNames[k]}
                </option>
              ))}
            </select>
            <select
              className="select select-sm w-52"
              aria-label="Product"
              value={productId ?? ''}
              onChange={(e) => set({ product: e.target.value || null })}
            >
              <option value="">All products</option>
              {shop?.products
                .filter((p) => !p.isPage && !p.isIdea)
                .map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
            </select>
            <a className="pill ml-auto" href={`/api/notes/export.csv?${query}`}>
              Export
            </a>
          </div>
        </div>
        <NoteTable
          name="Journal"
          rows={rows}
          at={at}
          columns={journalColumns}
          empty={
            <span className="quiet">
              {journal.isPending
                ? 'Loading…'
                : has || kind || productId
                  ? 'No note passes the filter.'
                  : 'No change is noted yet. Every text that goes live adds a note.'}
            </span>
          }
        />
      </section>
      <aside className="side" data-testid="journal-detail">
        <div className="side-part">
          {note && (
            <>
              {note.listingId !== null && note.marketId !== null && (
                <p className="text-[14px] mb-2">
                  {note.product} on {note.platform}.{' '}
                  <Link className="link" to={`/${note.productId}/${note.marketId}/watch?view=notes&at=${note.id}`}>
                    Open in Watch
                  </Link>
                </p>
              )}
              <NoteDetail note={note} nights={false} />
            </>
          )}
        </div>
      </aside>
    </main>
  )
}
