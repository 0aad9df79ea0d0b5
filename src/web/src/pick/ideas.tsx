import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { Num } from '../kit/num'
import { fixed } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'

/** Products the shop could make: compatible picks with high headroom that no listing is eligible for. */
export function IdeasPart({ desk }: { desk: Desk }) {
  const ideas = useQuery({
    queryKey: queryKey('ideas', desk.market.id),
    queryFn: () => ask(api.GET('/api/ideas/{marketId}', { params: { path: { marketId: desk.market.id } } })),
  }).data
  return (
    <div data-testid="ideas" data-panel tabIndex={-1} className="outline-none">
      <h3>Product ideas</h3>
      <p className="quiet text-[13px] mb-2">
        Picks from the whole shop with high headroom in {desk.market.platformName}, {desk.market.countryName} that none of your listings is
        eligible for, combined where they can be true of one product.
      </p>
      {ideas?.length === 0 && (
        <p className="quiet text-[13.5px]">
          No ideas yet: your listings are eligible for every pick with headroom well above 50. Pick terms for things you don’t make yet and
          save them for later; they appear here.
        </p>
      )}
      {ideas?.map((idea) => (
        <section key={idea.text} className="mb-4">
          <h4 className="font-semibold text-[15px]">{idea.text}</h4>
          <p className="quiet text-[13px]">{idea.why}</p>
          <table className="plain">
            <thead>
              <tr>
                <th>Pick</th>
                <th className="r">Searches/mo</th>
                <th className="r">Headroom</th>
              </tr>
            </thead>
            <tbody>
              {idea.terms.map((t) => (
                <tr key={t.text}>
                  <td title={`picked for ${t.product}`}>{t.text}</td>
                  <td className="r">
                    <Num value={t.volume} unit="searches/mo" />
                  </td>
                  <td className="r">
                    <Num value={t.headroom} shown={fixed(t.headroom, 0)} unit="headroom" />
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
