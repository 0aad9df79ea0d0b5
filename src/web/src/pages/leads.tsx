import { useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type ClashView, type LeadView, type UntargetedTerm } from '../kit/api'
import { useChanges } from '../kit/changes'
import { HelpLink } from '../kit/helplink'
import { Num } from '../kit/num'
import { counted, fixed, full } from '../kit/numbers'
import { useSite } from '../kit/pages'
import { queryKey } from '../kit/queries'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'

const columns: Column<LeadView>[] = [
  { key: 'name', head: 'Page or listing', width: 'minmax(180px,1fr)', words: true, value: (l) => l.name, cell: (l) => l.name },
  {
    key: 'where',
    head: 'Where',
    width: '170px',
    words: true,
    value: (l) => l.kind ?? l.platformName,
    cell: (l) => <span className="quiet">{l.kind ? `Web shop, ${l.kind}` : l.platformName}</span>,
  },
  {
    key: 'lead',
    head: 'Lead',
    width: 'minmax(160px,1fr)',
    words: true,
    value: (l) => l.lead,
    cell: (l) => l.lead ?? <span className="quiet">none</span>,
  },
  {
    key: 'volume',
    head: 'Searches/mo',
    width: '96px',
    right: true,
    value: (l) => l.volume,
    cell: (l) => <Num value={l.volume} unit="searches/mo" />,
  },
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly it holds its lead, 0–100',
    width: '56px',
    right: true,
    value: (l) => l.grip,
    cell: (l) => <Num value={l.grip} shown={l.grip === null ? undefined : `${Math.round(l.grip)}`} unit="of 100" />,
  },
]

/** Every page and listing with its lead; where pages compete, and what no page targets. */
export function Leads() {
  const [params, set] = useAddress()
  const navigate = useNavigate()
  const site = useSite().data
  const leads = useQuery({ queryKey: queryKey('leads'), queryFn: () => ask(api.GET('/api/leads')) })
  const sort = sortIn(params)
  const rows = sortRows(leads.data?.leads ?? [], columns, sort)
  const at = Math.max(
    0,
    rows.findIndex((l) => String(l.listingId) === params.get('at')),
  )
  return (
    <section className="work min-h-0" style={{ gridTemplateColumns: 'minmax(0,1fr) 440px' }} data-testid="leads">
      <div className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'minmax(0,1fr)' }}>
        <Table
          name="Leads"
          rows={rows}
          columns={columns}
          id={(l) => String(l.listingId)}
          at={rows.length > 0 ? at : -1}
          onAt={(_, l) => set({ at: l ? String(l.listingId) : null })}
          onEnter={(l) => navigate(`/${l.productId}/${l.marketId}/write`)}
          sort={sort}
          onSort={(s) => set(sortChanges(s))}
          empty={leads.isPending ? <span className="quiet">Weighing every page…</span> : 'Nothing to list yet.'}
        />
      </div>
      <aside className="side">
        <h3 className="!mt-0">
          Competing pages <HelpLink to="pages" about="pages that compete" />
        </h3>
        {leads.data?.clashes.length === 0 && <p className="quiet text-[14px]">No two pages compete for a term.</p>}
        {leads.data?.clashes.map((c) => (
          <Clash key={`${c.key} ${c.isLead}`} clash={c} />
        ))}
        {(leads.data?.moreClashes ?? 0) > 0 && (
          <p className="quiet text-[14px]">
            {counted(leads.data?.moreClashes ?? 0, 'more term', 'more terms')} with competing pages; these have the most searches.
          </p>
        )}
        <h3>Terms without a page</h3>
        {leads.data && leads.data.untargeted.length === 0 && (
          <p className="quiet text-[14px]">No searched term on the web market’s shelf is without a page. Search for more in Dig.</p>
        )}
        {leads.data && leads.data.untargeted.length > 0 && (
          <table className="plain text-[14px]">
            <tbody>
              {leads.data.untargeted.map((t) => (
                <Untargeted key={t.text} term={t} market={site?.marketId} />
              ))}
            </tbody>
          </table>
        )}
      </aside>
    </section>
  )
}

function Clash({ clash }: { clash: ClashView }) {
  const { run } = useChanges()
  return (
    <div className="mb-4 text-[14px]" data-testid="clash">
      <p>
        <b>{clash.text}</b> <span className="quiet">{clash.volume === null ? 'no search data' : `${full(clash.volume)} searches/mo`}</span>
      </p>
      <p className="quiet text-[13px]">{clash.isLead ? 'The lead of several pages.' : 'Held firmly by several pages.'}</p>
      <p>
        Keep it on <b>{clash.keeper}</b> <span className="quiet num">(grip {fixed(clash.keeperGrip, 0)})</span>
      </p>
      {clash.others.map((o) => (
        <p key={o.pageId} className="flex flex-wrap gap-x-2 items-baseline">
          {o.name} <span className="quiet num">(grip {fixed(o.grip, 0)})</span>
          {!clash.isLead && !o.isLead ? (
            <span className="quiet">its lead is another: use “{clash.text}” less there</span>
          ) : o.free ? (
            <button
              type="button"
              className="link"
              onClick={() =>
                run(() => ask(api.PUT('/api/pages/{id}/lead', { params: { path: { id: o.pageId } }, body: { text: o.free ?? '' } })))
              }
            >
              Set its lead to “{o.free}” ({o.freeVolume === null ? 'no data' : full(o.freeVolume)})
            </button>
          ) : (
            <span className="quiet">has no other free pick; pick more terms for it</span>
          )}
        </p>
      ))}
    </div>
  )
}

const needs = { product: 'a product page', category: 'a category', content: 'a content page' } as const

function Untargeted({ term, market }: { term: UntargetedTerm; market: string | null | undefined }) {
  return (
    <tr>
      <td>{term.text}</td>
      <td className="r">
        <Num value={term.volume} unit="searches/mo" />
      </td>
      <td className="quiet">needs {needs[term.kind]}</td>
      {market === undefined && <td />}
    </tr>
  )
}
