import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type Schemas } from '../kit/api'
import { counted, full } from '../kit/numbers'
import { usePicks } from '../kit/picks'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import type { Column } from '../kit/table'
import type { TermLine } from '../kit/terms/line'
import { sortTerms, TermTable, useTermColumns } from '../kit/terms/termtable'
import { gradeWords, Thread } from '../kit/thread'

type Term = Schemas['RivalTerm']
type Row = TermLine & { found: Term }

/** What is read: a saved rival by its number, or a result of a search by its rank. */
export type ReadRival = { rival: number } | { term: string; rank: number }

/** Another seller's listing: its whole text, and every term of it that the market knows, to pick from. */
export function RivalTextView({ desk, of }: { desk: Desk; of: ReadRival }) {
  const [params, set] = useAddress()
  const path = { id: desk.listingId }
  const marketId = desk.market.id
  const query = useQuery({
    queryKey: queryKey('rivals', 'text', desk.listingId, marketId, of),
    queryFn: ({ signal }) =>
      'rival' in of
        ? ask(
            api.GET('/api/listings/{id}/rivals/{rivalId}/text', {
              params: { path: { ...path, rivalId: of.rival }, query: { marketId } },
              signal,
            }),
          )
        : ask(api.GET('/api/listings/{id}/rivals/found/text', { params: { path, query: { marketId, ...of } }, signal })),
  })
  const picks = usePicks(desk).data?.picks
  const columns = useTermColumns<Row>({ desk, table: 'terms of a rival', own, usual, fields: undefined })
  const rows = useMemo(() => {
    const byKey = new Map(picks?.map((p) => [p.key, p]))
    return (query.data?.terms ?? []).map((t): Row => ({ key: t.key, text: t.text, numbers: t.numbers, pick: byKey.get(t.key), found: t }))
  }, [query.data, picks])
  const sort = sortIn(params)
  const sorted = sortTerms(rows, columns, sort)
  const data = query.data
  const missing = rows.filter((r) => r.found.holds === 'missing').length
  if (query.isError) return <p role="alert">{query.error.message}</p>
  if (!data) return <p className="quiet">Reading its text…</p>
  return (
    <div className="grid min-h-0 gap-2" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }} data-testid="rival-text">
      <div className="max-h-[34vh] overflow-auto border-b border-base-300 pb-2">
        {data.texts.map((t) => (
          <p key={t.key} className="text-[14px] mb-1.5 leading-snug whitespace-pre-line">
            <b className="font-semibold">{t.label}:</b> {t.text}
          </p>
        ))}
        {data.texts.length === 0 && <p className="quiet text-[14px]">Nothing of its text is known.</p>}
        <p className="quiet text-[13.5px]">
          {counted(rows.length + data.left, 'known term')} in it, {full(missing)} of them not in yours.
          {data.left > 0 && ` The ${full(rows.length)} most searched are listed.`}
        </p>
      </div>
      <TermTable
        desk={desk}
        name="Terms of the rival"
        rows={sorted}
        columns={columns}
        source="rivals"
        saidBy={() => `in a listing of ${data.shop || 'a rival'}`}
        at={Math.max(
          0,
          sorted.findIndex((r) => r.key === params.get('its')),
        )}
        rowHeight={34}
        onAt={(_, r) => set({ its: r?.key ?? null })}
        sort={sort}
        onSort={(s) => set(sortChanges(s))}
        empty="No term of it is known in this market. Bring in terms under Dig, and they are looked for here."
      />
    </div>
  )
}

const usual = ['volume', 'competition', 'headroom', 'fit']

const own: Column<Row>[] = [
  {
    key: 'text',
    head: 'Term',
    width: 'minmax(150px,1fr)',
    words: true,
    value: (r) => r.text,
    cell: (r) => (
      <>
        {r.text}
        {r.pick && <small className="mark ml-2">{r.pick.home === 'avoid' ? 'avoided' : 'picked'}</small>}
      </>
    ),
  },
  {
    key: 'in',
    head: 'In its',
    title: 'The fields of the rival that hold it',
    width: 'minmax(90px,0.5fr)',
    narrow: false,
    words: true,
    value: (r) => r.found.fields.join(', '),
    cell: (r) => (
      <span className="quiet text-[13px] truncate block" title={r.found.fields.join(', ')}>
        {r.found.fields.join(', ')}
      </span>
    ),
  },
  {
    key: 'yours',
    head: 'Yours',
    title: 'How your listing holds it',
    width: '62px',
    words: true,
    value: (r) => gradeWords[r.found.holds],
    cell: (r) => <Thread grade={r.found.holds} title={gradeWords[r.found.holds]} />,
  },
]
