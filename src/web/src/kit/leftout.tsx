import { api, ask, type Home, type LeftOut } from './api'
import { useChanges } from './changes'
import { useFacts } from './facts'
import { messages } from './messages'
import { factLines, homeName } from './names'
import { counted } from './numbers'
import { usePickActions, usePicks } from './picks'
import type { Desk } from './shop'
import { toast } from './toast'

/** Picks that a suggestion does not use, by the reason, each with the way to change that. */
export function LeftOutPicks({ desk, leftOut, changed }: { desk: Desk; leftOut: LeftOut[]; changed: () => void }) {
  const actions = usePickActions(desk)
  const facts = useFacts(desk.product)
  const { run } = useChanges()
  const homes = new Map(usePicks(desk).data?.picks.map((p): [string, Home] => [p.text, p.home]))
  if (leftOut.length === 0) return null
  // One line for each word that the facts lack, not one for each pick: a word that is true is added once.
  const byWord = new Map<string, (LeftOut['claims'][number] & { pick: string })[]>()
  for (const l of leftOut)
    for (const claim of l.claims) {
      const word = claim.word.toLowerCase()
      byWord.set(word, [...(byWord.get(word) ?? []), { ...claim, pick: l.text }])
    }
  const of = (reason: LeftOut['reason']) => leftOut.filter((l) => l.reason === reason).map((l) => l.text)
  const add = async (claim: LeftOut['claims'][number]) => {
    const line = factLines[claim.facet]
    if (!line) return
    const problem = await facts.add(line, claim.word.toLowerCase())
    if (problem) return toast(messages.notAdded(problem))
    changed()
  }
  const noClaim = (word: string) => run(() => ask(api.POST('/api/shop/words', { body: { word, facet: null, forget: false } })), changed)
  const move = async (text: string) => {
    await actions.change([text], { home: 'anywhere' })
    changed()
  }
  return (
    <div data-testid="left-out">
      <h3>{counted(leftOut.length, 'pick')} left out</h3>
      {[...byWord].map(([word, claims]) => (
        <p key={word} className="text-[13.5px] leading-snug mb-1.5">
          “{word}” isn’t in the facts ({claims[0].facet}): {named(claims.map((c) => c.pick))}.{' '}
          {factLines[claims[0].facet] && (
            <button type="button" className="link mr-2" onClick={() => add(claims[0])}>
              Add “{word}” to facts
            </button>
          )}
          <button type="button" className="link quiet" onClick={() => noClaim(word)} title="In every product of this shop">
            Not a claim
          </button>
        </p>
      ))}
      {of('home').map((text) => (
        <p key={text} className="text-[13.5px] leading-snug mb-1.5">
          “{text}” has its home elsewhere{homes.get(text) ? `: ${homeName[homes.get(text) as Home]}` : ''}.{' '}
          <button type="button" className="link" onClick={() => move(text)}>
            Allow it anywhere
          </button>
        </p>
      ))}
      {of('long').length > 0 && <p className="text-[13.5px] leading-snug mb-1.5">Longer than the field allows: {named(of('long'))}.</p>}
      {of('avoided').length > 0 && (
        <p className="text-[13.5px] leading-snug mb-1.5">They contain a term to avoid: {named(of('avoided'))}.</p>
      )}
    </div>
  )
}

const shown = 4

const named = (texts: string[]) => {
  const some = [...new Set(texts)]
  const first = some.slice(0, shown).map((t) => `“${t}”`)
  return some.length > shown ? `${first.join(', ')} and ${some.length - shown} more` : first.join(', ')
}
