import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { Menu } from '../kit/menu'
import { counted, dateTimeOf } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'

/** The imports of this market, each with its name, and undone as a whole. */
export function Imports({ desk, undo }: { desk: Desk; undo: (id: number) => Promise<unknown> }) {
  const [naming, setNaming] = useState<{ id: number; source: string } | null>(null)
  const { run } = useChanges()
  const path = { marketId: desk.market.id }
  const imports = useQuery({
    queryKey: queryKey('imports', desk.market.id),
    queryFn: () => ask(api.GET('/api/markets/{marketId}/imports', { params: { path } })),
  }).data
  if (!imports || imports.length === 0) return null
  return (
    <div className="mt-6 max-w-2xl" data-testid="imports">
      <h2 className="sub">Earlier imports</h2>
      <table className="plain">
        <tbody>
          {imports.map((i) => (
            <tr key={i.id}>
              <td>{i.source}</td>
              <td className="r">{counted(i.rows, 'term')}</td>
              <td className="r quiet">{dateTimeOf(i.at)}</td>
              <td className="r">
                <Menu
                  label={`Import “${i.source}”`}
                  items={[
                    { label: 'Rename…', run: () => setNaming(i) },
                    { label: 'Undo the import', run: () => undo(i.id) },
                  ]}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {naming && (
        <NameDialog
          title="Rename import"
          label="Source name"
          value={naming.source}
          action="Rename"
          done={(name) =>
            run(() =>
              ask(
                api.PUT('/api/markets/{marketId}/imports/{import}/source', {
                  params: { path: { ...path, import: naming.id } },
                  body: { name },
                }),
              ),
            )
          }
          close={() => setNaming(null)}
        />
      )}
    </div>
  )
}
