import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import { Dialog } from '../kit/dialog'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { useKept, useSaving } from '../kit/saving'
import { shelfQuery } from '../kit/shelfquery'
import type { Desk } from '../kit/shop'
import { pressed } from '../kit/shortcuts'

const MostTerms = 500

/** Terms to check besides the picks: a pasted list, or what a saved filter of the shelf lets pass. */
export function CheckOther(p: {
  desk: Desk
  /** Gives the problem, or null. */
  begin: (terms: string[]) => Promise<string | null>
  close: () => void
}) {
  const { desk, begin, close } = p
  const [text, setText, clear] = useKept(`check ${desk.listingId}`, '')
  const [filter, setFilter] = useState('')
  const saving = useSaving(() => {
    clear()
    close()
  })
  const filters = useQuery({ queryKey: queryKey('filters'), queryFn: () => ask(api.GET('/api/filters')) }).data ?? []
  const check = async () => {
    const pasted = text
      .split('\n')
      .map((t) => t.trim())
      .filter(Boolean)
    const chosen = filters.find((f) => String(f.id) === filter)
    const passing = chosen
      ? (
          await ask(
            api.POST('/api/markets/{marketId}/shelf', {
              params: { path: { marketId: desk.market.id } },
              body: { ...shelfQuery(new URLSearchParams(chosen.filters)), by: 'volume', down: true, skip: 0, take: MostTerms },
            }),
          )
        ).rows.map((r) => r.text)
      : []
    const terms = [...pasted, ...passing]
    if (terms.length === 0) return chosen ? 'No term of the shelf passes this filter.' : messages.noTerms
    return begin(terms)
  }
  const run = () => saving.save(check)
  return (
    <Dialog name="Check other terms" close={close}>
      <h2 className="text-[20px] font-bold mb-1">Check other terms</h2>
      <p className="quiet text-[14px] mb-2">They are checked now, and from then on with your picks once a day.</p>
      <textarea
        className="slot w-full block"
        rows={7}
        maxLength={200_000}
        aria-label="Terms, one a line"
        placeholder="One term a line"
        data-first-focus=""
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => pressed(e, 'runImport') && run()}
      />
      {filters.length > 0 && (
        <label className="block text-[14px] mt-2">
          And the terms of my shelf that pass{' '}
          <select className="select select-sm w-56" value={filter} onChange={(e) => setFilter(e.target.value)}>
            <option value="">no filter</option>
            {filters.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </select>{' '}
          <span className="quiet">the first {counted(MostTerms, 'term')}</span>
        </label>
      )}
      {saving.problem && (
        <p className="text-accent text-[14px]" role="alert">
          {saving.problem}
        </p>
      )}
      <button type="button" className="btn btn-sm btn-primary mt-3" onClick={run}>
        Check these terms <Key of="runImport" plain />
      </button>
    </Dialog>
  )
}
