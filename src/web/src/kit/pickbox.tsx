import { useQueryClient } from '@tanstack/react-query'
import { useId, useRef } from 'react'
import { Key } from './key'
import { useLead } from './lead'
import { measure } from './measure'
import { messages } from './messages'
import { usePickActions } from './picks'
import { refresh } from './queries'
import { useKept } from './saving'
import { type Desk, useConnected } from './shop'
import { type ShortcutId, useShortcuts } from './shortcuts'
import { toast } from './toast'
import { keyOf, termsIn } from './words'

const most = 500

/**
 * One's own target terms, typed or pasted: they become picks with the fit that their words have by the facts, and are measured where the
 * market can be asked. Shift makes the first one the lead, too.
 */
export function PickBox({ desk, by, leadKey }: { desk: Desk; by: ShortcutId; leadKey: string | null }) {
  const [text, setText] = useKept(`picks ${desk.product.id}`, '')
  const box = useRef<HTMLTextAreaElement>(null)
  const hint = useId()
  const cache = useQueryClient()
  const connected = useConnected()
  const { change } = usePickActions(desk)
  const setLead = useLead(desk)
  useShortcuts({ [by]: () => box.current?.focus() })
  const pick = async (asLead: boolean) => {
    const terms = termsIn(text)
    if (terms.length === 0) return
    if (terms.length > most) return toast(messages.tooManyToPick(terms.length, most))
    setText('')
    // What could not be saved comes back, before what was typed meanwhile.
    if (!(await change(terms, { saidBy: ['typed'] }))) return setText([text, box.current?.value].filter(Boolean).join('\n'))
    if (asLead) await setLead(keyOf(terms[0]), leadKey, messages.leadSet(terms[0]))
    if (!connected) return
    // The picks are there already; their numbers come when the market answers.
    await measure(desk.market.id, terms).catch((e: Error) => toast(messages.notMeasured(e.message)))
    await refresh(cache, 'numbers')
  }
  return (
    <div className="flex items-end gap-2 mb-1.5 flex-1 min-w-0">
      <textarea
        ref={box}
        rows={1}
        className="pick-box"
        aria-label="Terms to pick"
        aria-describedby={hint}
        placeholder="Type or paste terms to pick"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') {
            e.stopPropagation()
            box.current?.blur()
          } else if (e.key === 'Enter' && !e.altKey) {
            e.preventDefault()
            pick(e.shiftKey)
          }
        }}
      />
      {text.trim() ? (
        <>
          <button type="button" className="choice" onClick={() => pick(false)}>
            Pick <kbd>Enter</kbd>
          </button>
          <button type="button" className="choice" onClick={() => pick(true)} title="The first term becomes the lead">
            As lead <kbd>Shift Enter</kbd>
          </button>
        </>
      ) : (
        <Key of={by} />
      )}
      <span id={hint} className="sr-only">
        Separate several by commas or lines. Enter picks them; Shift Enter makes the first one the lead, too.
      </span>
    </div>
  )
}
