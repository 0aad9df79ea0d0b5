import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { Key } from '../kit/key'
import { counted, full, withoutData } from '../kit/numbers'
import type { Change } from '../kit/picks'
import { queryKey } from '../kit/queries'
import { useShortcuts } from '../kit/shortcuts'
import type { Row } from './rows'

/** The shortest phrase that contains all selected picks: their weave. */
export function Woven({ picks, known, keep }: { picks: Row[]; known: Row[]; keep: (texts: string[], change: Change) => void }) {
  const terms = picks.map((p) => ({ text: p.text, volume: p.numbers.volume, competition: null, headroom: null, fit: p.fit }))
  const woven = useQuery({
    queryKey: queryKey('weave', terms),
    queryFn: () => ask(api.POST('/api/engine/weave', { body: { terms } })),
    staleTime: Infinity,
  }).data
  const take = (text: string) => keep([text], { source: picks[0].source, saidBy: [`Combined from ${picks.map((p) => p.text).join(', ')}`] })
  useShortcuts({ weave: () => woven && take(woven.text) })
  if (!woven) return null
  const line = (text: string, about: string, key: boolean) => (
    <div className="mb-2">
      <b className="text-[16px]">{text}</b> <span className="quiet text-[13px]">{about}</span>{' '}
      {known.some((k) => k.text.toLowerCase() === text.toLowerCase()) ? (
        <span className="mark">picked</span>
      ) : (
        <button type="button" className="link" onClick={() => take(text)}>
          Pick {key && <Key of="weave" />}
        </button>
      )}
    </div>
  )
  return (
    <div className="my-2 py-2 border-y border-base-300" data-testid="woven">
      <div className="sub !mt-0">Combined phrase (weave)</div>
      {line(woven.text, `${counted(woven.text.length, 'character')}; contains each term exactly`, true)}
      {woven.together !== woven.text &&
        line(woven.together, `${counted(woven.together.length, 'character')}; contains all words, but not each term exactly`, false)}
      <p className="quiet text-[13px]">
        Covers {full(woven.volume)} searches/mo{withoutData(woven.unknownVolume)}.
      </p>
    </div>
  )
}
