import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { api, ask, type Checked, type Copy, type Finding } from '../kit/api'
import type { Draft } from '../kit/drafts/draft'
import type { Desk } from '../kit/shop'

const Pause = 400

/**
 * The findings of the draft. They are asked for when nothing has been typed for a moment, and the answer to the last question counts. `about`
 * is the text that they are about: a fix made from an older text would lose what was typed since.
 */
export function useCheck(desk: Desk, draft: Draft<Copy>, pictures: Draft<string[]>, when: { copy: Copy; pictures: number; picks: number }) {
  const [checked, setChecked] = useState<Checked | null>(null)
  const [problem, setProblem] = useState('')
  const [round, setRound] = useState(0)
  const asked = useRef(0)
  const about = useRef<{ copy: Copy; pictures: string[] }>(null)
  const check = useCallback(async (): Promise<Finding[]> => {
    const mine = ++asked.current
    try {
      await pictures.flush()
      const text = { copy: draft.snapshot().value, pictures: pictures.snapshot().value }
      const found = await ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: text.copy },
        }),
      )
      if (mine === asked.current) {
        about.current = text
        setChecked(found)
        setRound(mine)
        setProblem('')
      }
      return found.findings
    } catch (e) {
      setProblem((e as Error).message)
      return []
    }
  }, [desk, draft, pictures])
  // biome-ignore lint/correctness/useExhaustiveDependencies: checked again when the text, the alt texts or the picks change
  useEffect(() => {
    const timer = setTimeout(check, Pause)
    return () => clearTimeout(timer)
  }, [when.copy, when.pictures, when.picks, check])

  const open = useMemo(() => (checked?.findings ?? []).filter((f) => !f.aside), [checked])
  const drawn = useRef(new Map<string, Finding[]>())
  const byField = useMemo(() => {
    // The findings of a field stay the same object while they are the same, so that the field is not drawn again.
    const next = Map.groupBy(open, (f) => f.field)
    for (const [key, list] of next) {
      const old = drawn.current.get(key)
      if (old && JSON.stringify(old) === JSON.stringify(list)) next.set(key, old)
    }
    drawn.current = next
    return next
  }, [open])
  return { checked, open, byField, about, check, round, problem }
}
