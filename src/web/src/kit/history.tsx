import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask } from './api'
import { type Turn, turnChange } from './changes'
import { Dialog } from './dialog'
import { dateTimeOf } from './numbers'
import { queryKey } from './queries'
import { capital } from './words'

/** The last changes, each with Undo where it can be undone now, and those undone, which can be made again. Large ones ask first. */
export function History({ product, close }: { product?: number; close: () => void }) {
  const cache = useQueryClient()
  const [asked, setAsked] = useState<number | null>(null)
  const changes = useQuery({
    queryKey: queryKey('changes', product),
    queryFn: () => ask(api.GET('/api/changes', { params: { query: { product, undone: true } } })),
    refetchOnMount: 'always',
  }).data
  const turn = (to: Turn, id: number) => {
    setAsked(null)
    turnChange(cache, to, id)
  }
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
                  <td className={c.undoneAt ? 'quiet' : ''}>
                    {c.undoneAt && <span className="mark mr-2">undone</span>}
                    {capital(c.what)}
                  </td>
                  <td className="quiet whitespace-nowrap pl-4">{dateTimeOf(c.at)}</td>
                  <td className="r whitespace-nowrap">
                    {c.canUndo &&
                      (asked !== c.id ? (
                        <button
                          type="button"
                          className="link"
                          onClick={() => (c.isLarge ? setAsked(c.id) : turn(c.undoneAt ? 'redo' : 'undo', c.id))}
                          aria-label={`${c.undoneAt ? 'Make again' : 'Undo'}: ${c.what}`}
                        >
                          {c.undoneAt ? 'Make again' : 'Undo'}
                        </button>
                      ) : (
                        <span role="group" aria-label="This is a large change">
                          <b className="font-semibold">A large change.</b>{' '}
                          <button type="button" className="link" autoFocus onClick={() => turn(c.undoneAt ? 'redo' : 'undo', c.id)}>
                            {c.undoneAt ? 'Make it again' : 'Undo all of it'}
                          </button>{' '}
                          <button type="button" className="link" onClick={() => setAsked(null)}>
                            Leave it
                          </button>
                        </span>
                      ))}
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
