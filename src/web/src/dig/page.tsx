import { useRef } from 'react'
import { NameDialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { Measuring } from '../kit/measuring'
import { compact, counted, full } from '../kit/numbers'
import { type Desk, useConnected } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { sortChanges } from '../kit/sort'
import { TermTable } from '../kit/terms/termtable'
import { Filters } from './filters'
import { GridSheet } from './grid'
import { Import } from './import'
import { Known } from './known'
import { LookUps } from './lookups'
import { NoTerm } from './notices'
import { saidBy, shownRows, sources } from './rows'
import { Scatter } from './scatter'
import { termsIn, useSuggestions } from './several'
import { DigSide } from './side'
import { Trail } from './trail'
import { type DigPage, useDigPage } from './usedigpage'

/** A term → search suggestions, what sellers use, related words, combinations, the shelf; judged and picked. */
export function Dig({ desk }: { desk: Desk }) {
  const p = useDigPage(desk)
  const box = useRef<HTMLInputElement>(null)
  const filterBox = useRef<HTMLInputElement>(null)
  const { view, show, term } = p
  const connected = useConnected()
  useShortcuts({
    // In the table, the keys of every table of terms do it.
    pick: view !== 'table' && (() => p.pick(p.chosen())),
    avoid: view !== 'table' && (() => p.avoid(p.chosen())),
    searchTerm: () => box.current?.select(),
    filter: () => filterBox.current?.focus(),
    paste: () => p.setSide('paste'),
    importFile: () => show('import'),
    grid: () => term && show(view === 'grid' ? 'table' : 'grid'),
    scatter: () => show(view === 'scatter' ? 'table' : 'scatter'),
    titleQueries: () => p.copyQueries(),
    deleteTerm: p.onShelf ? () => p.remove(p.chosen()) : undefined,
    renameTerm: () => p.row && p.setNaming(p.row),
    close: () => {
      if (p.dug.data?.doing) p.dug.stop()
      else if (p.marked.size > 0) p.clear()
      else if (view !== 'table') show('table')
      else p.setSide('term')
    },
  })
  return (
    <main
      className="work"
      style={{
        gridTemplateColumns: `${connected ? '164px' : '206px'} minmax(0,1fr) ${view === 'import' ? '' : connected ? '304px' : '286px'}`,
      }}
    >
      <Trail
        desk={desk}
        above={<LookUps desk={desk} term={term} dig={(text) => p.dig(text, false)} />}
        here={p.dug.data?.stepId}
        go={(text, parent) => {
          p.setAsked(text)
          p.set({ at: null, view: null, term: text, parent: parent ? String(parent) : null }, true)
        }}
      />
      {view === 'import' ? (
        <Import
          desk={desk}
          file={p.file}
          close={(imported) => {
            p.setFile(null)
            p.set({ view: null, ...(imported && { from: 'shelf', term: null }) })
          }}
        />
      ) : (
        <>
          <section className="sheet !overflow-hidden !px-5 grid" style={{ gridTemplateRows: 'auto auto auto minmax(0,1fr)' }}>
            <SearchBar desk={desk} page={p} box={box} />
            {p.isSeveral ? (
              <p className="quiet text-[13px] mb-1">Each term by itself, side by side. They stay on your shelf.</p>
            ) : (
              <SourceBoxes page={p} />
            )}
            <div className="min-h-[26px]">
              {view === 'grid' ? (
                <p className="quiet text-[13px] flex flex-wrap items-center gap-2">
                  <Views page={p} />
                  Searches/mo of each combination. <b className="text-base-content">Bold words</b> are in the product’s facts. A dash means
                  no data.
                </p>
              ) : (
                <Filters
                  marketId={desk.market.id}
                  box={filterBox}
                  params={p.params}
                  set={p.set}
                  passing={p.rows.length}
                  out={p.out}
                  copyQueries={p.copyQueries}
                  views={<Views page={p} />}
                />
              )}
              {p.dug.data?.known && !connected && <Known known={p.dug.data.known} desk={desk} term={term} />}
              {p.unknown && connected && <NoTerm term={term} paste={() => p.setSide('paste')} importFile={() => show('import')} />}
              <Digging dug={p.dug} />
              {!desk.market.own && <LookUp page={p} />}
              <Measuring />
            </div>
            <Terms desk={desk} page={p} filter={() => filterBox.current?.focus()} />
          </section>
          <DigSide desk={desk} page={p} />
        </>
      )}
      {p.naming && (
        <NameDialog
          title="Rename term"
          label="Term (its numbers stay)"
          value={p.naming.text}
          action="Rename"
          done={(name) => p.naming && p.rename(p.naming, name)}
          close={() => p.setNaming(null)}
        />
      )}
    </main>
  )
}

function SearchBar({ desk, page: p, box }: { desk: Desk; page: DigPage; box: React.RefObject<HTMLInputElement | null> }) {
  const suggested = useSuggestions(desk, p.asked === p.term ? '' : p.asked)
  // What is chosen from the list takes the place of the last term.
  const before = p.asked.replace(/[^;,]*$/, '')
  return (
    <form
      className="flex flex-wrap gap-2 items-center mb-2"
      onSubmit={(e) => {
        e.preventDefault()
        p.dig(p.asked, false)
        box.current?.blur()
      }}
    >
      <input
        ref={box}
        className="flex-1 min-w-60 bg-transparent outline-none border-b-2 border-secondary text-[20px] font-semibold px-0.5 pb-1"
        value={p.asked}
        onChange={(e) => p.setAsked(e.target.value)}
        placeholder="Search for a term, or several: bird house; nest box"
        aria-label="Search for a term"
        list="suggestions"
        onPaste={(e) => {
          // A column of terms would lose its line breaks in a box of one line.
          const text = e.clipboardData.getData('text')
          if (!/[\n\t]/.test(text.trim())) return
          e.preventDefault()
          p.setAsked(termsIn(text).join('; '))
        }}
        onKeyDown={(e) => e.key === 'Escape' && box.current?.blur()}
      />
      <datalist id="suggestions">
        {suggested?.map((s) => (
          <option key={s.text} value={`${before}${before && !before.endsWith(' ') ? ' ' : ''}${s.text}`}>
            {s.volume === null ? 'No data' : `${full(s.volume)} searches/mo`}
          </option>
        ))}
      </datalist>
      <button type="submit" className="pill">
        Search <kbd>Enter</kbd>
      </button>
      <button type="button" className="pill" title="Add terms: type or paste them" onClick={() => p.setSide('paste')}>
        Add terms <Key of="paste" />
      </button>
    </form>
  )
}

/** Which sources the rows come from, with how many each has. */
function SourceBoxes({ page: p }: { page: DigPage }) {
  // Other meanings are offered where related words have some.
  // Related searches are offered where a results page has some.
  const shown = sources.filter(
    ([source]) =>
      (source !== 'related' || !!p.counts.related) && (source !== 'rare' || p.from.has('rare') || (p.from.has('alike') && !!p.counts.rare)),
  )
  return (
    <div className="flex flex-wrap gap-x-2.5 gap-y-1 items-center text-[13px] quiet mb-1">
      {shown.map(([source, name, about]) => (
        <label
          key={source}
          title={about}
          className={`inline-flex gap-1.5 items-center cursor-pointer ${!p.term && source !== 'shelf' ? 'opacity-50' : ''}`}
        >
          <input
            type="checkbox"
            name={source}
            className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
            checked={p.from.has(source)}
            disabled={!p.term}
            onChange={() => p.toggle(source)}
          />
          <b className="text-base-content font-semibold">{name}</b>
          <span className="num text-[12.5px]">
            {source === 'shelf' ? compact(p.onAll) : p.counts[source] !== undefined ? compact(p.counts[source]) : ''}
          </span>
        </label>
      ))}
    </div>
  )
}

const views = [
  ['table', 'Table', 'One row for each term'],
  ['grid', 'Grid', 'The term and other names for it, combined with materials, styles, colours, sizes, audiences and occasions'],
  ['scatter', 'Scatter', 'Demand against competition'],
] as const

function Views({ page: p }: { page: DigPage }) {
  return (
    <span className="inline-flex gap-1" role="group" aria-label="Show as">
      {views.map(([view, name, about]) => (
        <button
          type="button"
          key={view}
          className="choice"
          aria-pressed={p.view === view}
          disabled={view === 'grid' && (!p.term || p.isSeveral)}
          title={about}
          onClick={() => p.show(view)}
        >
          {name}
        </button>
      ))}
    </span>
  )
}

/** How far a search has come; it can be stopped and resumed. */
function Digging({ dug }: { dug: DigPage['dug'] }) {
  return (
    <>
      {dug.isError && <p className="text-accent py-1">{dug.error.message} Your earlier results are still here.</p>}
      {dug.data?.doing && (
        <p className="flex gap-2 items-center text-[13px] quiet" role="status" data-testid="digging">
          <progress className="progress progress-primary w-28 h-1.5" value={dug.data.done} max={dug.data.of} aria-label="Progress" />
          {dug.data.doing}
          <button type="button" className="link" onClick={dug.stop}>
            Stop
          </button>
          <kbd>Esc</kbd>
        </p>
      )}
      {dug.data?.stopped && !dug.isFetching && (
        <p className="text-[13px] quiet">
          Stopped at {dug.data.done} of {dug.data.of}.{' '}
          <button type="button" className="link" onClick={() => dug.refetch()}>
            Resume
          </button>
        </p>
      )}
    </>
  )
}

/** Terms of the table that have no numbers yet, and how far they are looked up. */
function LookUp({ page: p }: { page: DigPage }) {
  const { progress, start, stop } = p.lookUp
  if (progress)
    return (
      <p className="flex gap-2 items-center text-[13px] quiet" role="status" data-testid="looking-up">
        <progress className="progress progress-primary w-28 h-1.5" value={progress.done} max={progress.of} aria-label="Progress" />
        Looking up {full(progress.of)} terms
        <button type="button" className="link" onClick={stop}>
          Stop
        </button>
      </p>
    )
  if (p.measured.isFetching) return <p className="text-[13px] quiet">Looking up {counted(p.rows.length, 'term')}…</p>
  if (p.unmeasured.length === 0) return null
  return (
    <p className="text-[13px] quiet">
      <button type="button" className="link" onClick={() => start(p.unmeasured)}>
        Look up {p.unmeasured.length === 1 ? 'the one' : `all ${full(p.unmeasured.length)}`} without numbers
      </button>
    </p>
  )
}

/** The rows: as a grid of combinations, a scatter plot or a table. */
function Terms({ desk, page: p, filter }: { desk: Desk; page: DigPage; filter: () => void }) {
  if (p.view === 'grid' && p.term && !p.isSeveral)
    return (
      <GridSheet
        grid={p.grid.data}
        byPick={p.byPick}
        at={p.wanted}
        onAt={(key) => p.set({ at: key })}
        onDig={(text) => p.dig(text, true)}
      />
    )
  if (p.view === 'scatter')
    return (
      <Scatter
        rows={shownRows(p.rows)}
        norm={p.norm}
        at={p.row?.key}
        marked={p.marked}
        onAt={(key) => (p.isList ? p.set({ at: key }) : p.setShelfAt(shownRows(p.rows).findIndex((r) => r.key === key)))}
        onMark={p.mark}
      />
    )
  return (
    <TermTable
      desk={desk}
      name="Terms"
      rows={p.rows}
      columns={p.columns}
      source={p.source}
      saidBy={saidBy}
      clear={p.clear}
      exportAs={p.out}
      filter={filter}
      at={p.at}
      onAt={(i, r) => {
        p.setShelfAt(i)
        p.set({ at: r?.key ?? null })
      }}
      onEnter={(r) => p.dig(r.text, true)}
      marked={p.marked}
      onMark={p.mark}
      sort={p.sort}
      onSort={(s) => p.set(sortChanges(s))}
      onRange={p.shelf.look}
      empty={
        p.dug.isFetching || p.shelf.fetching ? (
          <span className="quiet">Searching {desk.market.platformName}…</span>
        ) : p.filtered ? (
          <span className="quiet">No terms match these filters.</span>
        ) : p.term ? (
          ''
        ) : (
          <span className="quiet">
            Your shelf is empty. Search for a broad term above, such as what the product is; or paste terms, or drop a CSV or XLSX file
            here.
          </span>
        )
      }
    />
  )
}
