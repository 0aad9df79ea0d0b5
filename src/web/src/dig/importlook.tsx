import type { ColumnRole, ImportView } from '../kit/api'
import { compact, counted, full, money } from '../kit/numbers'
import type { ImportDraft } from './useimport'

const roles: [ColumnRole, string][] = [
  ['ignore', 'Ignore'],
  ['term', 'Term'],
  ['volume', 'Searches/mo'],
  ['competition', 'Competing listings'],
  ['titlesHolding', 'Exact-title matches'],
  ['clickCost', 'CPC'],
  ['popularity', 'Popularity rank'],
  ['clicks', 'Clicks on your listings'],
  ['orders', 'Orders'],
  ['sales', 'Sales'],
  ['month', 'Searches in month…'],
]
const separators: [string, string][] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'vertical bar'],
]

/** How a file is read: its format and its columns, to be corrected, and what its first rows become. */
export function ImportLook({ draft, view, currency }: { draft: ImportDraft; view: ImportView; currency: string }) {
  const { source, setSource, look } = draft
  return (
    <>
      <div className="flex flex-wrap gap-x-5 gap-y-1 text-[13.5px] my-2 items-center">
        {view.look.separator !== '' && (
          <>
            <label>
              Delimiter{' '}
              <select className="inline-input" value={view.look.separator} onChange={(e) => look({ separator: e.target.value }, true)}>
                {separators.map(([s, name]) => (
                  <option key={s} value={s}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <label>
              Encoding{' '}
              <select className="inline-input" value={view.look.encoding} onChange={(e) => look({ encoding: e.target.value }, true)}>
                {['utf-8', 'utf-16', 'utf-16BE', 'windows-1252'].map((c) => (
                  <option key={c}>{c}</option>
                ))}
              </select>
            </label>
          </>
        )}
        <label>
          Number format{' '}
          <select className="inline-input" value={view.look.style} onChange={(e) => look({ style: e.target.value as 'point' | 'comma' })}>
            <option value="point">1,300.50</option>
            <option value="comma">1.300,50</option>
          </select>
        </label>
        <label className="inline-flex gap-1.5 items-center">
          <input
            type="checkbox"
            className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
            checked={view.look.hasHead}
            onChange={(e) => look({ hasHead: e.target.checked })}
          />
          First row is a header
        </label>
        <label>
          Source name <input className="inline-input w-36" value={source} onChange={(e) => setSource(e.target.value)} />
        </label>
      </div>
      <ColumnTable draft={draft} view={view} />
      <div className="sub">Preview</div>
      <ul className="text-[13.5px]" data-testid="read-as">
        {view.terms.slice(0, 4).map((t) => (
          <li key={t.row}>
            <b>{t.text}</b>{' '}
            <span className="quiet">
              {[
                t.volume === null ? 'no search data' : `${full(t.volume)} searches/mo`,
                t.competition === null ? null : counted(t.competition, 'competing listing'),
                t.titlesHolding === null ? null : counted(t.titlesHolding, 'exact-title match', 'exact-title matches'),
                t.clickCost === null ? null : `CPC ${money(t.clickCost, currency)}`,
                t.clicks === null ? null : counted(t.clicks, 'click'),
                t.orders === null ? null : counted(t.orders, 'order'),
                t.sales === null ? null : `sales ${money(t.sales, currency)}`,
                t.months === null
                  ? null
                  : `${t.months.length} months, ${compact(Math.min(...t.months))} to ${compact(Math.max(...t.months))}`,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
          </li>
        ))}
        {view.bad.map((b) => (
          <li key={b.row} className="text-accent">
            Row {b.row}: {b.reason}
          </li>
        ))}
      </ul>
    </>
  )
}

/** The first rows as they stand, with what each column holds. */
function ColumnTable({ draft, view }: { draft: ImportDraft; view: ImportView }) {
  const { look, role } = draft
  return (
    <div className="overflow-x-auto border border-base-300 rounded">
      <table className="plain looks">
        <thead>
          <tr>
            <th className="r">Row</th>
            {view.look.columns.map((c, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
              <th key={i} className={c.role === 'ignore' ? 'quiet' : ''}>
                <select
                  className={`text-[13px] cursor-pointer bg-transparent ${c.role === 'ignore' ? '' : 'font-semibold text-primary'}`}
                  aria-label={`Column ${i + 1}`}
                  value={c.role}
                  onChange={(e) => role(i, e.target.value as ColumnRole)}
                >
                  {roles.map(([r, name]) => (
                    <option key={r} value={r}>
                      {name}
                    </option>
                  ))}
                </select>
                {c.role === 'month' && (
                  <input
                    className="inline-input num w-20 ml-1"
                    aria-label={`Month of column ${i + 1}`}
                    placeholder="2025-01"
                    defaultValue={c.month ?? ''}
                    onBlur={(e) => look({ columns: view.look.columns.map((k, n) => (n === i ? { ...k, month: e.target.value } : k)) })}
                  />
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {view.rows.map((cells, y) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the rows of a file have only their number
            <tr key={y} className={y === 0 && view.look.hasHead ? 'font-semibold' : ''}>
              <td className="r num quiet">{y + 1}</td>
              {view.look.columns.map((c, x) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
                <td key={x} className={`whitespace-nowrap max-w-64 truncate ${c.role === 'ignore' ? 'quiet' : ''}`} title={cells[x]}>
                  {cells[x]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
