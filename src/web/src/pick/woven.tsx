import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { useKeys } from '../kit/keys'
import { full } from '../kit/numbers'
import type { Change } from '../kit/shop'
import type { Row } from './pick'

/** The shortest phrase that holds all that is marked. */
export function Woven({ picks, known, keep }: { picks: Row[]; known: Row[]; keep: (texts: string[], change: Change) => void }) {
  const terms = picks.map((p) => ({ text: p.text, volume: p.numbers.volume, competition: null, headroom: null, fit: p.fit }))
  const woven = useQuery({
    queryKey: ['weave', terms],
    queryFn: () => ask(api.POST('/api/engine/weave', { body: { terms } as never })),
    staleTime: Infinity,
  }).data
  const take = (text: string) => keep([text], { source: picks[0].source, saidBy: [`woven of ${picks.map((p) => p.text).join(', ')}`] })
  useKeys({ w: () => woven && take(woven.text) })
  if (!woven) return null
  const line = (text: string, about: string, key: boolean) => (
    <div className="mb-2">
      <b className="text-[16px]">{text}</b> <span className="quiet text-[13px]">{about}</span>{' '}
      {known.some((k) => k.text.toLowerCase() === text.toLowerCase()) ? (
        <span className="mark">picked</span>
      ) : (
        <button type="button" className="link" onClick={() => take(text)}>
          Pick it {key && <kbd>W</kbd>}
        </button>
      )}
    </div>
  )
  return (
    <div className="my-2 py-2 border-y border-base-300" data-testid="woven">
      <div className="sub !mt-0">One phrase for them all</div>
      {line(woven.text, `${woven.text.length} characters; each stands whole`, true)}
      {woven.together !== woven.text && line(woven.together, `${woven.together.length} characters; all their words, not each whole`, false)}
      <p className="quiet text-[13px]">
        It serves {full(woven.volume)} searches a month
        {woven.unknownVolume > 0 ? `, ${woven.unknownVolume} of the ${picks.length} unknown` : ''}.
      </p>
    </div>
  )
}
