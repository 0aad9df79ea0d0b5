import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, ask } from '../kit/api'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { Num } from '../kit/num'
import { fixed } from '../kit/numbers'
import { queryKey, refreshAll } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { toast } from '../kit/toast'

/** Products the shop could make: compatible picks with high headroom that no listing is eligible for. */
export function IdeasPart({ desk }: { desk: Desk }) {
  const ideas = useQuery({
    queryKey: queryKey('ideas', desk.market.id),
    queryFn: () => ask(api.GET('/api/ideas/{marketId}', { params: { path: { marketId: desk.market.id } } })),
  }).data
  const cache = useQueryClient()
  const navigate = useNavigate()
  /** A product with the idea’s picks, the whole phrase as its lead. */
  const make = async (text: string, picks: string[]) => {
    try {
      const facts = { what: text, materials: [], colours: [], sizes: [], audiences: [], occasions: [] }
      const made = await ask(
        api.POST('/api/products', {
          body: { name: text, facts, pictures: null, platforms: [desk.market.platformId], picks, isIdea: false },
        }),
      )
      await refreshAll(cache)
      navigate(`/${made.id}/${desk.market.id}/write`)
      toast(messages.madeProduct(text, picks.length))
    } catch (e) {
      toast(messages.notSaved((e as Error).message))
    }
  }
  const first = ideas?.[0]
  useShortcuts({ makeIdea: first && (() => make(first.text, picksOf(first))) })
  return (
    <div data-testid="ideas" data-panel tabIndex={-1} className="outline-none">
      <h3>Product ideas</h3>
      <p className="quiet text-[13px] mb-2">
        Picks from the whole shop with high headroom in {desk.market.platformName}, {desk.market.countryName} that none of your listings is
        eligible for, combined where they can be true of one product.
      </p>
      {ideas?.length === 0 && (
        <p className="quiet text-[13.5px]">
          No ideas yet: no pick of your shop that your listings lack has a known headroom well above 50. Pick terms for things you don’t
          make yet, with their numbers, and save them for later; they appear here.
        </p>
      )}
      {ideas?.map((idea, i) => (
        <section key={idea.text} className="mb-4">
          <h4 className="font-semibold text-[15px]">{idea.text}</h4>
          <p className="quiet text-[13px]">{idea.why}</p>
          <p className="my-1">
            <button type="button" className="pill" onClick={() => make(idea.text, picksOf(idea))}>
              Make it a product {i === 0 && <Key of="makeIdea" />}
            </button>
          </p>
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

/** The whole phrase first, which becomes the lead. */
const picksOf = (idea: { text: string; terms: readonly { text: string }[] }) => [
  idea.text,
  ...idea.terms.map((t) => t.text).filter((t) => t !== idea.text),
]
