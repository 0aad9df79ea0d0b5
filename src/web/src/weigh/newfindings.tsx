import { queryOptions, useQuery } from '@tanstack/react-query'
import { api, ask, type Copy, type Finding, type Move, type Value } from '../kit/api'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'

/** The findings of a text of the listing. */
export const checkOf = (desk: Desk, fields: Copy) =>
  queryOptions({
    queryKey: queryKey('check', desk.listingId, desk.market.id, fields),
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields },
        }),
      ),
  })

const levels = { must: 'Required', should: 'Recommended' } as const

const isOpen = (f: Finding) => f.level !== 'fine' && !f.aside

/** What a move would bring beside its gain: findings that the text does not have now. */
export function NewFindings({ desk, copy, move }: { desk: Desk; copy: Copy; move: Move }) {
  const now = useQuery(checkOf(desk, copy)).data?.findings
  const then = useQuery(checkOf(desk, { ...copy, [move.field]: move.value as Value })).data?.findings
  if (!now || !then) return null
  // One kind of finding in one field is one: moved along a little, it is the same.
  const fresh = then.filter((f) => isOpen(f) && !now.some((n) => isOpen(n) && n.id === f.id && n.field === f.field))
  return fresh.map((f) => (
    <p key={f.key} className="text-[13px] leading-snug" data-testid="new-finding">
      <b className={f.level === 'must' ? 'text-accent' : ''}>{levels[f.level as keyof typeof levels]}</b> afterwards: {f.why}
    </p>
  ))
}
