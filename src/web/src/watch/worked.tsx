import { useAddress } from '../kit/address'
import { HelpLink } from '../kit/helplink'
import { full } from '../kit/numbers'
import { kindNames, measureName } from './names'
import { useJournal } from './usenotes'

const measures = ['views', 'clicks', 'sales'] as const

/** What the changes of each kind did on average in this shop. */
export function Worked({ head }: { head: React.ReactNode }) {
  const [params, set] = useAddress()
  const measure = measures.find((m) => m === params.get('measure')) ?? 'views'
  const journal = useJournal({ effects: false, pooled: true, measure })
  const pooled = journal.data?.pooled ?? []
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr)' }}>
      <section className="sheet" data-testid="worked">
        {head}
        <h1 className="text-[24px] font-bold leading-tight">What has worked in this shop</h1>
        <p className="quiet text-[13.5px] mb-3">
          All changes of one kind together. Each counts the more, the surer it is, and they may differ from one another by more than chance.{' '}
          <HelpLink to="before-and-after" about="the pooled difference" />
        </p>
        <p className="flex gap-1 mb-2" role="group" aria-label="Measure">
          {measures.map((m) => (
            <button key={m} type="button" className="choice" aria-pressed={m === measure} onClick={() => set({ measure: m })}>
              {measureName(m, false)}
            </button>
          ))}
        </p>
        {pooled.length === 0 && !journal.isPending && (
          <p className="quiet">No change is noted yet. Every text that goes live adds a note.</p>
        )}
        <table className="plain text-[14.5px] w-full max-w-[980px]">
          {pooled.length > 0 && (
            <thead>
              <tr>
                <th>Changed</th>
                <th className="text-right">Compared</th>
                <th>What it did</th>
                <th>Changed together with something else</th>
              </tr>
            </thead>
          )}
          <tbody>
            {pooled.map((p) => (
              <tr key={p.kind}>
                <td>
                  <b className="font-semibold">{kindNames[p.kind]}</b>
                </td>
                <td className="num text-right">{full(p.count)}</td>
                <td>{p.says}</td>
                <td className="quiet">{p.count === 0 ? '' : `${full(p.together)} of ${full(p.count)}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </main>
  )
}
