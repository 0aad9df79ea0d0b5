import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, ask, type Market } from './api'
import { messages } from './messages'
import { refresh } from './queries'
import { useShop } from './shop'
import { toast } from './toast'

/** Opens a list of picks that no product has yet, in a market: the last one, or a new one. */
export function useResearch() {
  const shop = useShop().data
  const cache = useQueryClient()
  const navigate = useNavigate()
  return async (market: Market | undefined, isNew = false) => {
    if (!shop || !market) return
    const ideas = shop.products.filter((p) => p.isIdea)
    const last = isNew ? undefined : ideas.findLast((p) => p.listings[market.platformId] !== undefined)
    if (last) return navigate(`/${last.id}/${market.id}/dig`)
    try {
      const made = await ask(
        api.POST('/api/products', {
          body: {
            name: messages.ideaNumber(ideas.length + 1),
            facts: null,
            pictures: null,
            platforms: [market.platformId],
            picks: null,
            isIdea: true,
          },
        }),
      )
      await refresh(cache, 'products')
      navigate(`/${made.id}/${market.id}/dig`)
    } catch (e) {
      toast(messages.notSaved((e as Error).message))
    }
  }
}
