import { useNavigate } from 'react-router'
import type { Fit, Home } from '../api'
import { useLead } from '../lead'
import { searchAt } from '../marketlink'
import { messages } from '../messages'
import { usePickActions } from '../picks'
import type { Desk } from '../shop'
import type { TermLine } from './line'

/** What can be done to terms, wherever they are listed. What is done to a term that is no pick makes it one. */
export function useTermActions(
  desk: Desk,
  leadKey: string | null | undefined,
  source: string,
  saidBy: (line: TermLine) => string = () => '',
) {
  const actions = usePickActions(desk)
  const setLead = useLead(desk)
  const navigate = useNavigate()
  const give = (lines: TermLine[], change: { fit?: Fit; home?: Home }) =>
    lines.length > 0 &&
    actions.change(
      lines.map((r) => r.text),
      { source, saidBy: lines.map(saidBy), ...change },
    )
  const isIn = (line: TermLine) => line.pick !== undefined && line.pick.home !== 'avoid'
  return {
    fit: (lines: TermLine[], fit: Fit) => give(lines, { fit }),
    home: (lines: TermLine[], home: Home) => give(lines, { home }),
    /** Makes all of them picks that fills and moves use. */
    use: async (lines: TermLine[]) => {
      const others = lines.filter((r) => !isIn(r) || r.pick?.home === 'later')
      return others.length === 0 || (await give(others, { home: 'anywhere' }))
    },
    /** Picks those that are not; where all of them are picks, removes them. */
    pick: (lines: TermLine[]) => {
      if (lines.length === 0) return
      if (lines.every(isIn)) return actions.drop(lines.map((r) => r.text))
      const wanted = lines.filter((r) => !isIn(r))
      return give(wanted, wanted.some((r) => r.pick) ? { home: 'anywhere' } : {})
    },
    avoid: (lines: TermLine[]) => {
      if (lines.length === 0) return
      // An avoided term keeps its fit and note, so it is not dropped but used again.
      return give(lines, { home: lines.every((r) => r.pick?.home === 'avoid') ? 'anywhere' : 'avoid' })
    },
    /** Makes a term the lead, and a pick where it is none; the lead itself is one no longer. */
    lead: async (line: TermLine) => {
      if (line.key === leadKey) return setLead(null, leadKey, messages.leadRemoved(line.text))
      if (!isIn(line) && !(await give([line], {}))) return
      return setLead(line.key, leadKey ?? null, messages.leadSet(line.text))
    },
    lookUp: (line: TermLine) => navigate(`${desk.base}/dig?term=${encodeURIComponent(line.text)}`),
    ownListings: (line: TermLine) => navigate(`/watch?view=terms&market=${desk.market.id}&term=${encodeURIComponent(line.text)}`),
    open: (line: TermLine) => {
      const address = searchAt(desk.market, line.text)
      if (address) window.open(address, '_blank', 'noopener,noreferrer')
    },
    canOpen: searchAt(desk.market, 'x') !== undefined,
  }
}
