import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { compact, full } from '../kit/numbers'
import type { Place } from '../kit/shop'

/** Every known term that the title holds, and those it would hold in another order: one click puts it so. */
export function Reading({ place, text, put }: { place: Place; text: string; put: (text: string) => void }) {
  const read = useQuery({
    queryKey: ['read', place.listingId, place.market.id, text],
    enabled: text.trim() !== '',
    queryFn: () =>
      ask(api.POST('/api/listings/{id}/read', { params: { path: { id: place.listingId } }, body: { marketId: place.market.id, text } })),
    placeholderData: (before) => before,
  }).data
  if (text.trim() === '') return <p>The title is empty. What stands there will be read against every term that is known here.</p>
  if (!read) return <p className="quiet">Reading…</p>
  return (
    <div className="side-part" data-testid="reading">
      <h3 className="!mt-0">The title holds</h3>
      {read.holds.length === 0 && <p className="quiet">No term that is known here.</p>}
      <table className="plain text-[14px]">
        <tbody>
          {read.holds.map((t) => (
            <tr key={t.text}>
              <td>{t.text}</td>
              <td className="quiet">{t.band ? `${t.band} competition` : ''}</td>
              <td className="r num" title={full(t.volume)}>
                {compact(t.volume)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3>In another order it would hold</h3>
      {read.could.length === 0 && <p className="quiet">None more: its words are in a good order.</p>}
      <table className="plain text-[14px]">
        <tbody>
          {read.could.map((c) => (
            <tr key={c.term.text}>
              <td>{c.term.text}</td>
              <td>
                {c.text && (
                  <button type="button" className="link" title={c.text} onClick={() => put(c.text as string)}>
                    Put it so
                  </button>
                )}
              </td>
              <td className="r num" title={full(c.term.volume)}>
                {compact(c.term.volume)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
