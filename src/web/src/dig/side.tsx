import { Key } from '../kit/key'
import { Menu } from '../kit/menu'
import { counted, money, percent } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { TermDetail } from '../kit/term'
import { Marked, WhyAvoid } from './notices'
import { Paste } from './paste'
import { type Row, saidBy } from './rows'
import type { DigPage } from './usedigpage'

/** Beside the rows: pasting, what is selected, or the current term. */
export function DigSide({ desk, page: p }: { desk: Desk; page: DigPage }) {
  const { row } = p
  return (
    <aside className="side">
      {p.side === 'paste' ? (
        <Paste
          desk={desk}
          close={() => p.setSide('term')}
          done={() => p.set({ from: 'shelf' })}
          asFile={(text) => {
            p.setFile(new File([text], 'pasted'))
            p.setSide('term')
            p.show('import')
          }}
        />
      ) : p.marked.size > 1 ? (
        <Marked
          rows={p.chosen()}
          pick={() => p.pick(p.chosen())}
          avoid={() => p.avoid(p.chosen())}
          queries={p.copyQueries}
          none={() => p.clear()}
        />
      ) : row ? (
        <TermDetail
          desk={desk}
          text={row.text}
          numbers={row.numbers}
          norm={p.norm}
          dig={(text) => p.dig(text, true)}
          actions={<TermActions productId={desk.product.id} page={p} row={row} currency={desk.market.currency} />}
        />
      ) : (
        <p className="quiet">Select a term to see its year, its spelling variants, its search results and its numbers.</p>
      )}
    </aside>
  )
}

function TermActions({ productId, page: p, row, currency }: { productId: number; page: DigPage; row: Row; currency: string }) {
  const { pick, sellers } = row
  return (
    <>
      <p className="flex flex-wrap gap-2 mt-3">
        <button type="button" className="pill" onClick={() => p.pick([row])}>
          {pick && pick.home !== 'avoid' ? 'Remove pick' : 'Pick'} <Key of="pick" />
        </button>
        <button type="button" className="pill" onClick={() => p.avoid([row])}>
          {pick?.home === 'avoid' ? 'Stop avoiding' : 'Avoid'} <Key of="avoid" />
        </button>
        <button type="button" className="pill" onClick={() => p.dig(row.text, true)}>
          Search this <kbd>Enter</kbd>
        </button>
        {p.onShelf && (
          <Menu
            label={`Term “${row.text}”`}
            items={[
              { label: 'Rename…', run: () => p.setNaming(row) },
              { label: 'Delete from the shelf', run: () => p.remove([row]) },
            ]}
          />
        )}
      </p>
      {pick?.home === 'avoid' && <WhyAvoid key={row.key} productId={productId} pick={pick} />}
      {saidBy(row) && <p className="text-[13px] mt-2">{saidBy(row)}</p>}
      {sellers && <SellersLine sellers={sellers} currency={currency} />}
    </>
  )
}

/** What is known of the sellers who use a term. */
function SellersLine({ sellers, currency }: { sellers: NonNullable<Row['sellers']>; currency: string }) {
  const said = [
    sellers.price === null ? null : `${money(sellers.price, currency)} on average`,
    sellers.ratings === null ? null : counted(Math.round(sellers.ratings), 'rating'),
    sellers.sales === null ? null : `${counted(Math.round(sellers.sales), 'sale')}/mo`,
    sellers.occupancy === null ? null : `${percent(sellers.occupancy)} of nights booked`,
    sellers.rank === null ? null : `rank ${Math.round(sellers.rank)} on average`,
  ].filter(Boolean)
  return said.length === 0 ? null : <p className="quiet text-[13px]">Sellers who use it: {said.join(', ')}.</p>
}
