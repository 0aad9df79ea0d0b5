import { useState } from 'react'
import type { DropChoice, DropView, Shop } from '../api'
import { counted, full } from '../numbers'

/** One thing that was brought in: what it was recognised as, what adding it adds, and what can be corrected. */
export function DoorItem({
  view: v,
  choose,
  shop,
  several,
  go,
}: {
  view: DropView
  choose: (change: Partial<DropChoice>) => void
  shop: Shop
  several: boolean
  /** Takes it to the import of its own that it needs. */
  go: () => void
}) {
  const { shown } = v
  return (
    <section className="mt-3" data-testid="door-item">
      <h2 className="text-[19px] font-bold leading-snug">{shown.title || v.name}</h2>
      <dl className="door-facts">
        {v.kinds.length > 0 && (
          <Fact name="What it is">
            <select
              aria-label="What it is"
              value={v.kind ?? ''}
              onChange={(e) => choose({ kind: e.target.value, columns: null, term: null, listingId: null, ofRivals: null })}
            >
              {v.kind === null && <option value="">Choose…</option>}
              {v.kinds.map((k) => (
                <option key={k.id} value={k.id}>
                  {k.name}
                </option>
              ))}
            </select>
          </Fact>
        )}
        {shown.needsTerm && (
          <Fact name="Term">
            <TermBox key={shown.term ?? ''} value={shown.term ?? ''} change={(term) => choose({ term })} />
          </Fact>
        )}
        {v.kind !== null && (
          <Fact name="Market">
            <select aria-label="Market" value={v.marketId} onChange={(e) => choose({ marketId: e.target.value })}>
              {shop.markets.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.platformName}, {m.countryName}
                </option>
              ))}
            </select>
          </Fact>
        )}
        {shown.hasDay && (
          <Fact name={dayOf(shown)}>
            <input
              type="date"
              aria-label={dayOf(shown)}
              value={v.day}
              onChange={(e) => e.target.value && choose({ day: e.target.value })}
            />
          </Fact>
        )}
        {shown.isLive !== null && (
          <Fact name="At the market">
            <label className="inline-flex gap-1.5 items-center cursor-pointer">
              <input
                type="checkbox"
                className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
                checked={shown.isLive}
                onChange={(e) => choose({ isLive: e.target.checked })}
              />
              These texts are live
            </label>
          </Fact>
        )}
        {shown.needsListing && (
          <Fact name={v.kind === 'listing' ? 'Compare with' : 'Your listing'}>
            <ListingChoice view={v} shop={shop} choose={choose} />
          </Fact>
        )}
        {shown.ofRivals !== null && (
          <Fact name="Of">
            <select aria-label="Of" value={String(shown.ofRivals)} onChange={(e) => choose({ ofRivals: e.target.value === 'true' })}>
              <option value="false">my listing</option>
              <option value="true">its rivals</option>
            </select>
          </Fact>
        )}
        {shown.facts.map((f, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: facts have an order and nothing else
          <Fact key={i} name={f.name}>
            <b className="font-semibold">{f.text}</b>
          </Fact>
        ))}
      </dl>
      {shown.problem && (
        <p className="doubts text-[13.5px]" role="status">
          {shown.problem}
        </p>
      )}
      {shown.columns && shown.columns.length > 0 && (
        <details className="text-[13.5px] my-2" open={shown.problem !== null}>
          <summary className="link w-fit">What the columns hold</summary>
          <table className="plain w-full">
            <tbody>
              {shown.columns.map((c) => (
                <tr key={c.column}>
                  <td>
                    <b className="font-medium">{c.head || `Column ${c.column + 1}`}</b>
                    <span className="quiet block truncate max-w-[210px]">{c.sample.join(' · ')}</span>
                  </td>
                  <td className="r">
                    <select
                      aria-label={`What “${c.head || `column ${c.column + 1}`}” holds`}
                      value={c.role}
                      onChange={(e) =>
                        choose({
                          columns: (shown.columns ?? []).map((o) => ({
                            column: o.column,
                            role: o.column === c.column ? e.target.value : o.role === e.target.value && o.role !== '' ? '' : o.role,
                          })),
                        })
                      }
                    >
                      {c.roles.map((r) => (
                        <option key={r.id} value={r.id}>
                          {r.name}
                        </option>
                      ))}
                    </select>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      {shown.rows.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can have the focus
        <div className="door-rows" role="region" aria-label="Preview" tabIndex={0}>
          <table className="plain w-full">
            <thead>
              <tr>
                {shown.heads.map((h, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: columns have an order and nothing else
                  <th key={i}>{h}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shown.rows.map((r, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: rows have an order and nothing else
                <tr key={i} className={r.isUnsure ? 'unsure' : ''}>
                  {r.cells.map((c, j) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: cells have an order and nothing else
                    <td key={j} className={/^[\d.,]+( [A-Z]{3})?$/.test(c) ? 'num' : ''}>
                      {j === 1 && r.mark && <span className="door-mark">{r.mark}</span>}
                      {c}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {shown.count > shown.rows.length && <p className="quiet text-[13px]">and {full(shown.count - shown.rows.length)} more</p>}
        </div>
      )}
      {shown.unsure.length > 0 ? (
        <details className="text-[13.5px] mt-2">
          <summary className="quiet cursor-pointer">
            {shown.unsure.length === 1 ? shown.unsure[0] : `${counted(shown.unsure.length, 'thing')} to know`}
          </summary>
          {shown.unsure.length > 1 && (
            <ul>
              {shown.unsure.map((u) => (
                <li key={u}>{u}</li>
              ))}
            </ul>
          )}
        </details>
      ) : (
        !shown.problem && v.kind !== null && <p className="quiet text-[13px] mt-2">Nothing was unclear.</p>
      )}
      {shown.dialog && (
        <p className="mt-2">
          <button type="button" className="btn btn-sm" onClick={go}>
            Go to its import…
          </button>
        </p>
      )}
      {(several || v.isOut) && (
        <label className="inline-flex gap-1.5 items-center text-[13.5px] mt-2 cursor-pointer">
          <input
            type="checkbox"
            className="checkbox checkbox-xs checkbox-primary rounded-[3px]"
            checked={v.isOut}
            onChange={(e) => choose({ isOut: e.target.checked })}
          />
          Leave this one out
        </label>
      )}
    </section>
  )
}

const dayOf = (shown: DropView['shown']) => (shown.isLive === null ? 'Seen on' : 'Live since')

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  )
}

function TermBox({ value, change }: { value: string; change: (term: string) => void }) {
  const [text, setText] = useState(value)
  return (
    <input
      className="inline-input w-full font-semibold"
      aria-label="Term"
      autoFocus={value === ''}
      maxLength={200}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text.trim() !== value && change(text.trim())}
    />
  )
}

/** The shop's listings on the market's platform. */
function ListingChoice({ view: v, shop, choose }: { view: DropView; shop: Shop; choose: (change: Partial<DropChoice>) => void }) {
  const platform = shop.markets.find((m) => m.id === v.marketId)?.platformId
  const listings = shop.products.flatMap((p) => {
    const id = platform === undefined ? undefined : p.listings[platform]
    return id === undefined ? [] : [{ id, name: p.name }]
  })
  return (
    <select aria-label="Your listing" value={v.shown.listingId ?? 0} onChange={(e) => choose({ listingId: Number(e.target.value) })}>
      <option value={0}>{v.kind === 'listing' ? 'none' : 'Choose…'}</option>
      {listings.map((l) => (
        <option key={l.id} value={l.id}>
          {l.name}
        </option>
      ))}
    </select>
  )
}
