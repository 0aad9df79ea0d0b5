import { useRef } from 'react'
import { useNavigate } from 'react-router'
import { Key } from '../kit/key'
import { Measuring } from '../kit/measuring'
import { messages } from '../kit/messages'
import { counted, full, withoutData } from '../kit/numbers'
import { PickBox } from '../kit/pickbox'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { sortChanges } from '../kit/sort'
import { TermTable } from '../kit/terms/termtable'
import { Legend } from '../kit/thread'
import { toast } from '../kit/toast'
import { nameOf } from './rows'
import { PickSide } from './side'
import { type PickPage, usePickPage } from './usepickpage'

/** The picks of a product: fit, home, note, lead; sorted by any number or ordered by hand; variants, weaves, facts, ideas, another language. */
export function PickList({ desk }: { desk: Desk }) {
  const p = usePickPage(desk)
  const navigate = useNavigate()
  const note = useRef<HTMLTextAreaElement>(null)
  const panel = useRef<HTMLElement>(null)
  const sideTo = (to: string) => {
    const next = to === 'term' || p.side === to ? null : to
    p.set({ side: next })
    // The focus goes to what opens, and back to the row when it closes.
    requestAnimationFrame(() =>
      (next
        ? panel.current?.querySelector<HTMLElement>('[data-panel]')
        : document.querySelector<HTMLElement>('[role=row][tabindex="0"]')
      )?.focus(),
    )
  }
  useShortcuts({
    note: () => note.current?.focus(),
    removePick: () => p.actions.drop(p.chosen()),
    moveUp: () => p.move(-1),
    moveDown: () => p.move(1),
    variants: () => p.set({ families: p.families ? null : '1' }),
    expand: () => p.fold(true),
    collapse: () => p.fold(false),
    facts: () => sideTo('facts'),
    ideas: () => sideTo('ideas'),
    language: () => sideTo('language'),
    weave: p.marked.size < 2 && (() => toast(messages.selectToCombine)),
    close: () => (p.marked.size > 0 ? p.clear() : sideTo('term')),
  })

  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 336px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
        <div className="flex flex-wrap items-end gap-x-6 mb-0.5">
          <h1 className="text-[20px] font-bold mb-1">
            {p.picks.data ? (
              <>
                {counted(p.inUse.length, 'pick')}
                <small className="quiet text-[14px] font-normal font-sans">
                  , {searchesOf(p)}, {p.all.filter((r) => r.home === 'later').length} saved for later,{' '}
                  {p.all.filter((r) => r.home === 'avoid').length} to avoid
                </small>
              </>
            ) : (
              'Picks'
            )}
          </h1>
          <PickBox desk={desk} by="pickTerms" leadKey={p.leadKey} />
        </div>
        <div>
          <Groups page={p} />
          <Measuring />
        </div>
        <Legend />
        <TermTable
          desk={desk}
          name="Picks"
          rows={p.rows}
          columns={p.columns}
          source="picks"
          chosen={p.chosenRows}
          at={p.at}
          onAt={(_, r) => p.set({ at: r?.key ?? null })}
          marked={p.marked}
          onMark={p.mark}
          sort={p.sort}
          onSort={(s) => p.set(sortChanges(s))}
          rowClass={(r) => (r.home === 'avoid' ? 'struck' : r.home === 'later' ? 'quiet' : '')}
          rowHeight={36}
          empty={
            p.picks.isFetching ? (
              ''
            ) : (
              <span className="quiet">
                No picks yet. Type the terms that you want to be found for in the box above, or search for one in{' '}
                <button type="button" className="link" onClick={() => navigate(`${desk.base}/dig`)}>
                  Dig
                </button>{' '}
                and press <Key of="pick" /> on each one.
              </span>
            )
          }
        />
      </section>
      <PickSide desk={desk} page={p} panel={panel} note={note} open={sideTo} />
    </main>
  )
}

const searchesOf = (p: PickPage) =>
  p.unknown > 0 && p.unknown === p.inUse.length
    ? 'no search numbers: each pick counts the same'
    : `${full(p.volume)} searches/mo${withoutData(p.unknown)}`

/** Which picks the table shows: those in one language, with spelling variants as one row. */
function Groups({ page: p }: { page: PickPage }) {
  return (
    <div className="flex flex-wrap gap-1.5 items-center text-[13px] mb-1 min-h-[24px]">
      {p.languages.length > 1 &&
        [null, ...p.languages].map((l) => (
          <button type="button" key={l ?? 'all'} className="choice" aria-pressed={p.language === l} onClick={() => p.set({ language: l })}>
            {l === null ? 'All languages' : l === '' ? 'Listing’s language' : nameOf(l)}{' '}
            <span className="num text-[12px]">{l === null ? p.all.length : p.all.filter((r) => r.language === l).length}</span>
          </button>
        ))}
      {p.foldable > 0 && (
        <button
          type="button"
          className="choice"
          aria-pressed={p.families}
          title="Shows the spelling variants of a term as one row; → shows them, ← hides them"
          onClick={() => p.set({ families: p.families ? null : '1' })}
        >
          Group variants <Key of="variants" />
        </button>
      )}
      <span className="quiet ml-auto">
        <kbd>Space</kbd> selects; actions then apply to all selected picks
      </span>
    </div>
  )
}
