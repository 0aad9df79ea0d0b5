import { api, ask, type Copy, type Listing, type Rival, type Value } from '../kit/api'
import type { useChanges } from '../kit/changes'
import { Dialog } from '../kit/dialog'
import { useKept, useSaving } from '../kit/saving'
import type { Desk } from '../kit/shop'

type Draft = Record<string, string>

/** A rival's listing, pasted field by field. */
export function PasteRival(p: {
  desk: Desk
  listing: Listing
  /** The rival whose newer text it is; a new one where undefined. */
  rival: Rival | undefined
  attempt: ReturnType<typeof useChanges>['attempt']
  stale: () => Promise<unknown>
  close: () => void
}) {
  const fields = p.listing.fields.filter(
    (f) => f.indexed && f.shape !== 'choices' && f.shape !== 'path' && f.role !== 'alt' && f.role !== 'slug',
  )
  const [draft, setDraft, clear] = useKept<Draft>(`rival ${p.listing.id} ${p.rival ? `${p.rival.id} ${p.rival.seenAt}` : ''}`, {
    shop: p.rival?.state.shop ?? '',
    price: p.rival?.state.price?.toString() ?? '',
    rating: p.rival?.state.rating?.toString() ?? '',
    ratings: p.rival?.state.ratings?.toString() ?? '',
    sales: p.rival?.state.sales?.toString() ?? '',
    ...Object.fromEntries(fields.map((f) => [`f-${f.key}`, shown((p.rival?.fields as Copy | undefined)?.[f.key])])),
  })
  const saving = useSaving(() => {
    clear()
    p.close()
  })
  const isMany = (shape: string) => shape === 'phrases' || shape === 'lines'
  const save = () => {
    const number = (key: string) => (draft[key]?.trim() ? Number(draft[key].replace(',', '.')) : null)
    const numbers = { price: number('price'), rating: number('rating'), ratings: number('ratings'), sales: number('sales') }
    if (Object.values(numbers).some((n) => n !== null && Number.isNaN(n)))
      return saving.setProblem('Price, stars, ratings and sales are numbers. Leave what you don’t know empty.')
    const copy: Copy = {}
    for (const f of fields) {
      const text = draft[`f-${f.key}`]?.trim()
      if (text)
        copy[f.key] = isMany(f.shape)
          ? text
              .split(f.shape === 'phrases' ? /[\n,;]+/ : /\n+/)
              .map((t) => t.trim())
              .filter(Boolean)
          : text
    }
    if (Object.keys(copy).length === 0) return saving.setProblem('Paste at least the title of the rival’s listing.')
    saving.save(() =>
      p.attempt(
        () =>
          ask(
            api.POST('/api/listings/{id}/rivals/paste', {
              params: { path: { id: p.desk.listingId } },
              body: { marketId: p.desk.market.id, shop: draft.shop, fields: copy, ...numbers, rivalId: p.rival?.id ?? null },
            }),
          ),
        p.stale,
      ),
    )
  }
  const box = (key: string, label: string, size: number) => (
    <label className="text-[13.5px]">
      {label}
      <input
        className="inline-input ml-2"
        size={size}
        maxLength={120}
        value={draft[key]}
        onChange={(e) => setDraft({ ...draft, [key]: e.target.value })}
      />
    </label>
  )
  return (
    <Dialog name="Paste a rival’s listing" close={p.close}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          save()
        }}
      >
        <h2 className="text-[20px] font-bold mb-1">{p.rival ? 'Paste its newer text' : 'Paste a rival’s listing'}</h2>
        <p className="quiet text-[13.5px] mb-2">Copy from its page what it shows. Fields that you leave empty count as unknown.</p>
        <div className="max-h-[52vh] overflow-auto pr-2">
          {fields.map((f, i) => (
            <label key={f.key} className="block text-[13.5px] mb-2">
              {f.label}
              {isMany(f.shape) && <span className="quiet"> {f.shape === 'phrases' ? 'separated by commas or lines' : 'one a line'}</span>}
              <textarea
                className="slot w-full block"
                rows={isMany(f.shape) || f.shape === 'text' || f.shape === 'rich' ? 3 : 1}
                maxLength={20000}
                data-first-focus={i === 0 ? '' : undefined}
                value={draft[`f-${f.key}`]}
                onChange={(e) => setDraft({ ...draft, [`f-${f.key}`]: e.target.value })}
              />
            </label>
          ))}
        </div>
        <div className="flex flex-wrap gap-x-4 gap-y-2 my-2">
          {box('shop', 'Shop', 18)}
          {box('price', `Price (${p.desk.market.currency})`, 6)}
          {box('rating', 'Stars', 4)}
          {box('ratings', 'Ratings', 6)}
          {box('sales', 'Sales/mo', 6)}
        </div>
        {saving.problem && (
          <p className="text-accent text-[14px]" role="alert">
            {saving.problem}
          </p>
        )}
        <button type="submit" className="btn btn-sm btn-primary">
          {p.rival ? 'Save newer text' : 'Save as rival'}
        </button>
      </form>
    </Dialog>
  )
}

const shown = (value: Value | undefined) => (Array.isArray(value) ? value.join('\n') : typeof value === 'string' ? value : '')
