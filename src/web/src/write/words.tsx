import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type Copy, type Listing, type Schemas } from '../kit/api'
import { Key } from '../kit/key'
import { Num } from '../kit/num'
import { counted } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { PlaceDialog } from '../kit/terms/place'

type Row = Schemas['PickWord']

const most = 12

/** Each word of the picks: where it stands, and which searches need it; the words that stand nowhere come first. One key puts one in. */
export function WordsPanel({ desk, listing, copy, round }: { desk: Desk; listing: Listing; copy: Copy; round: number }) {
  const [params, set] = useAddress()
  const [placing, setPlacing] = useState<string[] | null>(null)
  const data = useQuery({
    queryKey: queryKey('words', listing.id, desk.market.id, round),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/listings/{id}/words', {
          params: { path: { id: listing.id } },
          body: { marketId: desk.market.id, fields: copy },
          signal,
        }),
      ),
    placeholderData: (before) => before,
  }).data
  const columns = useMemo(() => columnsOf(listing), [listing])
  const sort = sortIn(params)
  const rows = sortRows(data?.words ?? [], columns, sort)
  const wanted = params.get('word')
  const at = Math.max(
    rows.length === 0 ? -1 : 0,
    rows.findIndex((r) => r.word === wanted),
  )
  const row = rows[at]
  // Picks in use are put in as they are; a word alone is no search.
  const place = (r: Row | undefined) => r && setPlacing(r.needed.slice(0, most))
  useShortcuts({ place: () => place(row) })
  if (data?.words.length === 0) return <p className="quiet">No picks yet. Their words will be here, each with where it stands.</p>
  const nowhere = data?.words.filter((w) => w.fields.length === 0).length ?? 0
  const phrases = Object.entries(data?.phrases ?? {}).filter(([, missing]) => missing.length > 0)
  return (
    <div
      className="grid min-h-0 backed side-part"
      style={{ gridTemplateRows: 'auto minmax(0,1fr) auto' }}
      data-testid="words"
      tabIndex={-1}
    >
      <p className="quiet text-[13px] mb-1">
        {nowhere === 0
          ? 'Every word of the picks stands in a searched field.'
          : `${counted(nowhere, 'word stands', 'words stand')} in no searched field.`}{' '}
        <Key of="place" /> puts the picks with a word into the listing.
      </p>
      <Table
        name="Words of the picks"
        rows={rows}
        columns={columns}
        id={(r) => r.word}
        at={at}
        rowHeight={33}
        onAt={(_, r) => set({ word: r?.word ?? null })}
        onEnter={place}
        sort={sort}
        onSort={(s) => set(sortChanges(s))}
        empty=""
      />
      <div className="text-[13px] mt-1">
        {row && (
          <p className="leading-snug">
            Needed by: {row.needed.slice(0, 8).join(', ')}
            {row.needed.length > 8 && ` and ${row.needed.length - 8} more`}
          </p>
        )}
        {phrases.map(([key, missing]) => (
          <p key={key} className="quiet leading-snug mt-1" data-testid="missing-phrases">
            Not in {listing.fields.find((f) => f.key === key)?.label}, which people read: {missing.slice(0, 5).join(', ')}
            {missing.length > 5 && ` and ${missing.length - 5} more`}
          </p>
        ))}
      </div>
      {placing && <PlaceDialog desk={desk} terms={placing} done={() => {}} close={() => setPlacing(null)} />}
    </div>
  )
}

const columnsOf = (listing: Listing): Column<Row>[] => {
  const label = (key: string) => listing.fields.find((f) => f.key === key)?.label ?? key
  const where = (r: Row) => [...r.fields.map(label), ...r.unsearched.map((k) => `${label(k)} (not searched)`)].join(', ')
  return [
    {
      key: 'word',
      head: 'Word',
      width: 'minmax(72px,0.6fr)',
      words: true,
      value: (r) => r.word,
      cell: (r) => (r.fields.length === 0 ? <span className="gap-word">{r.word}</span> : r.word),
    },
    {
      key: 'where',
      head: 'Stands in',
      width: 'minmax(90px,1fr)',
      words: true,
      value: where,
      cell: (r) => (
        <span className={r.fields.length === 0 ? 'text-accent text-[13px]' : 'quiet text-[13px]'} title={where(r)}>
          {where(r) || 'nowhere'}
        </span>
      ),
    },
    {
      key: 'picks',
      head: 'Picks',
      title: 'Picks with this word',
      width: '42px',
      right: true,
      value: (r) => r.needed.length,
      cell: (r) => <Num value={r.needed.length} unit="picks" />,
    },
    {
      key: 'volume',
      head: 'Searches',
      title: 'Searches per month of these picks together',
      width: '64px',
      right: true,
      value: (r) => r.volume,
      cell: (r) => <Num value={r.volume} unit="searches/mo" />,
    },
  ]
}
