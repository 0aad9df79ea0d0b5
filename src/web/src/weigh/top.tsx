import { useQuery } from '@tanstack/react-query'
import { useAddress } from '../kit/address'
import { api, ask, type Top, type TopValue, type Value } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { messages } from '../kit/messages'
import { counted, full, percent } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { TermTable } from '../kit/terms/termtable'
import { toast } from '../kit/toast'
import { seenOn, ToBring } from '../kit/tobring'
import { Bar, ViewFrame } from '../kit/viewframe'
import type { ViewProps } from './frame'
import { Differences, Sentences, texts, useTopWords, WordDetail } from './topwords'

type Attribute = Top['attributes'][number]
/** A value of an attribute; an attribute that nobody fills has a row without one. */
type ValueRow = { id: string; attribute: Attribute; value: TopValue | null }

/** What the first 100 listings for a term fill and how they word their titles, and how those that do differ. */
export function TopListings(p: ViewProps) {
  const { desk, listing } = p
  const [params, set] = useAddress()
  const shown = params.get('words')
  const words = shown === null ? null : (texts.find(([t]) => t === shown)?.[0] ?? 'title')
  const term = params.get('topterm') ?? ''
  const query = useQuery({
    queryKey: queryKey('top', desk.listingId, desk.market.id, term, words ?? 'title', listing.copy),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/listings/{id}/top', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: listing.copy, term: term || null, text: words ?? 'title' },
          signal,
        }),
      ),
    // The words of one text are not those of another.
    placeholderData: (before, asked) => (asked?.queryKey[4] === (words ?? 'title') ? before : undefined),
  })
  const data = query.data
  // Of no listing at all, nothing is said.
  const values = data && (data.described ?? 0) > 0 ? valueRows(data) : []
  const sort = sortIn(params)
  const onSort = (s: Sort) => set(sortChanges(s))
  const found = useTopWords(desk, data, sort)
  const shownValues = sortRows(values, valueColumns, sort)
  const rowAt = (ids: string[]) => Math.max(0, ids.indexOf(params.get('at') ?? ''))
  const at = words ? rowAt(found.rows.map((w) => w.text)) : rowAt(shownValues.map((v) => v.id))
  const row = words ? undefined : shownValues[at]
  const word = words ? found.rows[at] : undefined
  const fill = (r: ValueRow) => {
    if (!r.value || query.isPlaceholderData) return
    if (r.value.value === null) return toast(r.value.byFacts === 'denies' ? messages.noFacts(r.value.text) : messages.attributeClosed)
    p.steps.replaceField(
      r.attribute.field,
      r.value.value as Value,
      messages.filledAttribute(`${r.attribute.name}: ${r.value.text}`),
      'attribute',
    )
  }
  const top = (
    <>
      <form
        className="flex flex-wrap items-baseline gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          set({ topterm: new FormData(e.currentTarget).get('term') as string, at: null })
        }}
      >
        <p className="head text-[19px] font-bold leading-tight">
          {data && (data.looked ?? 0) > 0 ? `The first ${full(data?.looked)} listings for` : 'The first listings for'}
        </p>
        <input
          key={data?.term}
          name="term"
          aria-label="Term"
          className="inline-input !text-[16px]"
          defaultValue={term || data?.term}
          maxLength={200}
          size={26}
        />
        <span className="quiet text-[13.5px]">
          {data && (data.found ?? 0) > 0 && `of ${counted(data.found ?? 0, 'result')}`} {seenOn(data?.seen)}
        </span>
        <span className="ml-auto flex gap-1" role="group" aria-label="Show">
          <button type="button" className="choice" aria-pressed={!words} onClick={() => set({ words: null, at: null, sort: null })}>
            Attributes
          </button>
          {texts.map(([text, name]) => (
            <button
              key={text}
              type="button"
              className="choice"
              aria-pressed={words === text}
              onClick={() => set({ words: text, at: null, sort: null })}
            >
              {name}
            </button>
          ))}
        </span>
      </form>
      <p className="quiet text-[13.5px] mt-1">
        {words
          ? `Which words they use, at which mean rank and price, and how listings that use one differ from the others. ${
              data?.texts != null && data.looked != null && data.texts < data.looked ? `Known of ${full(data.texts)} of them. ` : ''
            }A word is picked and placed as any term.`
          : 'Which values they fill, and how listings that fill one differ from the others. Enter fills a value in yours.'}{' '}
        {!words &&
          data?.described !== null &&
          data?.looked != null &&
          (data?.described ?? 0) > 0 &&
          (data?.described ?? 0) < data.looked &&
          `Attributes of ${full(data.described)} of them are known. `}
        A difference doesn’t show a cause. <HelpLink to="attributes-of-rivals" about="these differences" />
      </p>
    </>
  )
  const empty = query.isError ? (
    <span role="alert">{query.error.message}</span>
  ) : query.isPending ? (
    'Reading the first 100 listings…'
  ) : data?.term === '' ? (
    'No picks yet, so there is nothing to search for. Enter a term above.'
  ) : data?.looked === null ? (
    <ToBring market={p.desk.market} term={data.term} what="No results of this term known here." />
  ) : data?.looked === 0 ? (
    'The market shows no listings for this term.'
  ) : !words && data?.described === 0 ? (
    'Their attributes are not known: a results page does not show them. Bring in pages of single listings.'
  ) : words ? (
    'No word is in three titles or more.'
  ) : (
    `${listing.platformName} has no attributes.`
  )
  return (
    <ViewFrame
      {...p}
      name="top"
      top={top}
      side={row ? <ValueDetail row={row} fill={() => fill(row)} /> : word && <WordDetail word={word.word} />}
    >
      {words ? (
        <TermTable
          desk={desk}
          name={`Words in ${words}`}
          rows={found.rows}
          columns={found.columns}
          source="top 100"
          saidBy={(w) => `${counted(w.word.held, 'listing')} of the first ${full(data?.looked)}`}
          at={found.rows.length > 0 ? at : -1}
          rowHeight={34}
          onAt={(_, w) => set({ at: w?.text ?? null, side: 'detail' })}
          sort={sort}
          onSort={onSort}
          empty={<span className="quiet">{empty}</span>}
        />
      ) : (
        <Table
          name="Attributes"
          rows={shownValues}
          columns={valueColumns}
          id={(r) => r.id}
          at={shownValues.length > 0 ? at : -1}
          rowHeight={34}
          onAt={(_, r) => set({ at: r?.id ?? null, side: 'detail' })}
          onEnter={fill}
          sort={sort}
          onSort={onSort}
          empty={<span className="quiet">{empty}</span>}
        />
      )}
    </ViewFrame>
  )
}

const valueRows = (data: Top): ValueRow[] =>
  data.attributes.flatMap((attribute): ValueRow[] =>
    attribute.values.length === 0
      ? [{ id: attribute.name, attribute, value: null }]
      : attribute.values.map((value) => ({ id: `${attribute.name}: ${value.text}`, attribute, value })),
  )

const isMine = (r: ValueRow) => r.value !== null && r.attribute.mine.some((m) => m.toLowerCase() === r.value?.text.toLowerCase())

const supportWords = { says: 'in your facts', silent: 'not mentioned', denies: 'not in your facts' } as const

const valueColumns: Column<ValueRow>[] = [
  {
    key: 'attribute',
    head: 'Attribute',
    width: 'minmax(110px,0.6fr)',
    words: true,
    value: (r) => r.attribute.name,
    cell: (r) => (
      <span className={r.attribute.isOpen ? '' : 'quiet'} title={r.attribute.isOpen ? undefined : messages.attributeClosed}>
        {r.attribute.name}
      </span>
    ),
  },
  {
    key: 'filled',
    head: 'Filled by',
    title: 'The share of the listings that fill this attribute, with any value',
    width: '70px',
    right: true,
    value: (r) => r.attribute.share,
    cell: (r) => <span className="num">{percent(r.attribute.share)}</span>,
  },
  {
    key: 'value',
    head: 'Value',
    width: 'minmax(110px,0.7fr)',
    words: true,
    value: (r) => r.value?.text,
    cell: (r) => (r.value ? <b className="font-semibold">{r.value.text}</b> : <span className="quiet">nobody fills it</span>),
  },
  {
    key: 'share',
    head: 'Have it',
    title: 'The share of the listings with this value',
    width: '120px',
    value: (r) => r.value?.share,
    cell: (r) => r.value && <Bar value={r.value.share} of={1} shown={percent(r.value.share)} mine={isMine(r)} />,
  },
  {
    key: 'mine',
    head: 'Yours',
    width: '110px',
    words: true,
    value: (r) => r.attribute.mine.join(', '),
    cell: (r) =>
      isMine(r) ? (
        <b className="text-primary">filled</b>
      ) : r.attribute.mine.length > 0 ? (
        <span className="quiet">{r.attribute.mine.join(', ')}</span>
      ) : (
        <span className="quiet">empty</span>
      ),
  },
  {
    key: 'facts',
    head: 'Facts',
    width: '110px',
    words: true,
    value: (r) => r.value?.byFacts,
    cell: (r) => r.value && <span className="quiet">{supportWords[r.value.byFacts]}</span>,
  },
  {
    key: 'clear',
    head: 'Clear difference',
    width: 'minmax(110px,0.7fr)',
    value: (r) => (r.value?.differences.some((d) => d.isClear) ? 1 : 0),
    cell: (r) => r.value && <Differences list={r.value.differences} />,
  },
]

function ValueDetail({ row, fill }: { row: ValueRow; fill: () => void }) {
  const { attribute, value } = row
  return (
    <>
      <h3 className="!mt-0">{value ? `${attribute.name}: ${value.text}` : attribute.name}</h3>
      <p className="text-[14px]">
        {percent(attribute.share)} fill {attribute.name}
        {value && `, ${counted(value.held, 'listing')} (${percent(value.share)}) with “${value.text}”`}. Yours:{' '}
        {attribute.mine.length > 0 ? attribute.mine.join(', ') : 'empty'}.
      </p>
      {value && (
        <>
          {isMine(row) ? null : value.value !== null ? (
            <p className="my-2">
              <button type="button" className="btn btn-sm btn-primary" onClick={fill}>
                Fill it in yours <kbd className="!text-inherit !bg-transparent">Enter</kbd>
              </button>
            </p>
          ) : null}
          <p className="quiet text-[13.5px]">
            {value.byFacts === 'says'
              ? 'This product’s facts say the same.'
              : value.byFacts === 'silent'
                ? 'This product’s facts don’t mention it. Fill it only if it is true.'
                : messages.noFacts(value.text)}
            {!attribute.isOpen && ` ${messages.attributeClosed}`}
          </p>
          <div className="sub">Listings with it and without</div>
          <Sentences list={value.differences} />
        </>
      )}
    </>
  )
}
