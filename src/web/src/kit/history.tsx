import { useQuery } from '@tanstack/react-query'
import { api, ask } from './api'
import { useChanges } from './changes'
import { Dialog } from './dialog'
import { dateTimeOf } from './numbers'
import { queryKey } from './queries'
import { capital } from './words'

/** The last changes, each with Undo where it can be undone now. */
export function History({ product, close }: { product?: number; close: () => void }) {
  const { undo } = useChanges(product)
  const changes = useQuery({
    queryKey: queryKey('changes', product),
    queryFn: () => ask(api.GET('/api/changes', { params: { query: { product } } })),
    refetchOnMount: 'always',
  }).data
  return (
    <Dialog name="History" close={close} width={720}>
      <h2 className="text-[20px] font-bold mb-1">History</h2>
      <p className="quiet text-[13.5px] mb-2">
        Changes to {product === undefined ? 'the shop' : 'this product and the shop'}, newest first. Texts have their own versions in Write.
      </p>
      {changes?.length === 0 && <p>No changes yet.</p>}
      {changes && changes.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the keyboard scrolls it
        <div className="max-h-[60vh] overflow-auto" role="region" aria-label="Changes" tabIndex={0}>
          <table className="plain" data-testid="history">
            <tbody>
              {changes.map((c) => (
                <tr key={c.id}>
                  <td>{capital(c.what)}</td>
                  <td className="quiet whitespace-nowrap pl-4">{dateTimeOf(c.at)}</td>
                  <td className="r">
                    {c.canUndo && (
                      <button type="button" className="link" onClick={() => undo(c.id)} aria-label={`Undo: ${c.what}`}>
                        Undo
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </Dialog>
  )
}
