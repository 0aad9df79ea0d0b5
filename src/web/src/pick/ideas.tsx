import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { compact, full } from '../kit/numbers'
import type { Place } from '../kit/shop'

/** Products the shop could make: compatible picks of high headroom that no listing holds. */
export function IdeasPart({ place }: { place: Place }) {
  const ideas = useQuery({
    queryKey: ['ideas', place.market.id],
    queryFn: () => ask(api.GET('/api/ideas/{marketId}', { params: { path: { marketId: place.market.id } } })),
  }).data
  return (
    <div data-testid="ideas">
      <h3>Ideas for products</h3>
      <p className="quiet text-[13px] mb-2">
        From the picks of the whole shop in {place.market.platformName}, {place.market.countryName}: those of high headroom that none of its
        listings holds, put together where they can be true of one thing.
      </p>
      {ideas?.length === 0 && (
        <p className="quiet text-[13.5px]">
          None: every pick with headroom well above 50 is held by a listing. Pick terms for things you do not make yet, with the home
          “later”, and they show here.
        </p>
      )}
      {ideas?.map((idea) => (
        <section key={idea.text} className="mb-4">
          <h4 className="font-semibold text-[15px]">{idea.text}</h4>
          <p className="quiet text-[13px]">{idea.why}</p>
          <table className="plain">
            <tbody>
              {idea.terms.map((t) => (
                <tr key={t.text}>
                  <td title={`picked for ${t.product}`}>{t.text}</td>
                  <td className="r num" title={`${full(t.volume)} searches a month`}>
                    {compact(t.volume)}
                  </td>
                  <td className="r num" title="headroom">
                    {t.headroom?.toFixed(0)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </div>
  )
}
