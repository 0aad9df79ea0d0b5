import type { RefObject } from 'react'
import { useNavigate } from 'react-router'
import { Key } from '../kit/key'
import { counted } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { TermDetail } from '../kit/term'
import { Choices, Note } from './choices'
import { FactsPart } from './facts'
import { IdeasPart } from './ideas'
import { LanguagePart } from './language'
import { claimText, type Row, sides } from './rows'
import type { PickPage } from './usepickpage'
import { Woven } from './woven'

type Props = {
  desk: Desk
  page: PickPage
  note: RefObject<HTMLTextAreaElement | null>
  /** Opens a panel, or closes it when it is open. */
  open: (side: string) => void
}

/** Beside the picks: the facts, product ideas, another language, what is selected, or the current pick. */
export function PickSide({ panel, ...props }: Props & { panel: RefObject<HTMLElement | null> }) {
  const { desk, page: p, open } = props
  return (
    <aside className="side" ref={panel}>
      <div className="flex gap-1 mb-3" role="group" aria-label="Panel">
        {sides.map(([side, name, key]) => (
          <button type="button" key={side} className="choice" aria-pressed={p.side === side} onClick={() => open(side)}>
            {name} {key && <Key of={key} />}
          </button>
        ))}
      </div>
      {p.side === 'facts' ? (
        <FactsPart desk={desk} picks={p.all} />
      ) : p.side === 'ideas' ? (
        <IdeasPart desk={desk} />
      ) : p.side === 'language' ? (
        <LanguagePart
          desk={desk}
          picks={p.some.length > 0 ? p.some : p.inUse.filter((r) => r.language === '')}
          known={p.all}
          keep={p.actions.change}
        />
      ) : p.marked.size > 1 ? (
        <Selected page={p} />
      ) : (
        p.row && <CurrentPick {...props} row={p.row} />
      )}
      {p.picks.data?.undo && (
        <p className="mt-4 text-[13.5px]">
          <button type="button" className="link" onClick={() => p.actions.undo()}>
            Undo
          </button>{' '}
          <Key of="undo" /> <span className="quiet">{p.picks.data.undo}</span>
        </p>
      )}
    </aside>
  )
}

function Selected({ page: p }: { page: PickPage }) {
  return (
    <div data-testid="marked">
      <h3>{counted(p.marked.size, 'pick')} selected</h3>
      {p.some.length >= 2 && p.some.length <= 6 && <Woven picks={p.some} known={p.all} keep={p.actions.change} />}
      <Fits page={p} row={null} />
      <p className="flex flex-wrap gap-2 mt-2">
        <button type="button" className="pill" onClick={() => p.actions.drop(p.chosen())}>
          Remove picks <Key of="removePick" />
        </button>
        <button type="button" className="pill" onClick={() => p.clear()}>
          Clear selection <kbd>Esc</kbd>
        </button>
      </p>
    </div>
  )
}

const Fits = ({ page: p, row }: { page: PickPage; row: Row | null }) => (
  <Choices
    fit={row?.fit ?? null}
    home={row?.home ?? null}
    fits={(fit) => p.does.fit(p.chosenRows(), fit)}
    homes={(home) => (home === 'avoid' ? p.does.avoid(p.chosenRows()) : p.does.home(p.chosenRows(), home))}
  />
)

function CurrentPick({ desk, page: p, note, open, row }: Props & { row: Row }) {
  const navigate = useNavigate()
  return (
    <TermDetail
      key={row.key}
      desk={desk}
      text={row.text}
      numbers={row.numbers}
      norm={p.picks.data?.norm}
      dig={(text) => navigate(`${desk.base}/dig?term=${encodeURIComponent(text)}`)}
      actions={
        <div className="mt-3">
          {row.claims.length > 0 && (
            <p className="doubts !mt-0 mb-2" data-testid="claims">
              {claimText(row)}{' '}
              <button type="button" className="link" onClick={() => open('facts')}>
                Open facts <Key of="facts" />
              </button>
            </p>
          )}
          {row.avoidedFor && (
            <p className="text-accent text-[13.5px] mb-2">
              <b>Required.</b> This term is on the avoid list ({row.avoidedFor}).
            </p>
          )}
          <Fits page={p} row={row} />
          <Note key={row.key} box={note} productId={desk.product.id} pick={row} />
          <p className="flex flex-wrap gap-2 mt-2">
            <button type="button" className="pill" onClick={() => p.does.lead(row)} disabled={row.home === 'avoid'}>
              {row.lead ? 'Remove as lead' : 'Set as lead'} <Key of="lead" />
            </button>
            <button type="button" className="pill" onClick={() => p.actions.drop(p.chosen())}>
              Remove pick <Key of="removePick" />
            </button>
          </p>
          {(row.source || row.saidBy) && (
            <p className="quiet text-[13px] mt-2" data-testid="said-by">
              {row.source ? `Found in “${row.source}”` : 'Found'}
              {row.saidBy ? `: ${row.saidBy.replace(/\.$/, '')}` : ''}.
            </p>
          )}
        </div>
      }
    />
  )
}
