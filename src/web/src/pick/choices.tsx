import type { Fit, Home, Pick } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { Key } from '../kit/key'
import { fitAbout, homeName } from '../kit/names'
import { useNote } from '../kit/note'
import { fits, homes } from '../kit/terms/given'

export function Choices({
  fit,
  home,
  fits: onFit,
  homes: onHome,
}: {
  fit: Fit | null
  home: Home | null
  fits: (fit: Fit) => void
  homes: (home: Home) => void
}) {
  return (
    <>
      <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Fit">
        <span className="w-full quiet text-[13px]">
          Fit: how true and central it is <HelpLink to="fit-and-home" about="fit" />
        </span>
        {fits.map(([f, key]) => (
          <button type="button" key={f} title={fitAbout[f]} aria-pressed={fit === f} className="choice" onClick={() => onFit(f)}>
            {f} <Key of={key} />
          </button>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5 mb-2" role="group" aria-label="Home">
        <span className="w-full quiet text-[13px]">
          Home: where to use it <HelpLink to="fit-and-home" about="home" />
        </span>
        {homes.map(([h, key]) => (
          <button type="button" key={h} aria-pressed={home === h} className="choice" onClick={() => onHome(h)}>
            {homeName[h]} <Key of={key} />
          </button>
        ))}
      </div>
    </>
  )
}

export function Note({ productId, pick, box }: { productId: number; pick: Pick; box: React.RefObject<HTMLTextAreaElement | null> }) {
  const { text, setText, leave, state } = useNote(productId, pick)
  return (
    <div>
      <label className="block">
        <span className="quiet text-[13px]">
          {pick.home === 'avoid' ? 'Reason to avoid it (all texts of the shop are checked for it)' : 'Note'} <Key of="note" />
        </span>
        <textarea
          ref={box}
          className="textarea textarea-sm w-full min-h-9 h-9"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={leave}
          onKeyDown={(e) => {
            if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
              e.preventDefault()
              e.currentTarget.blur()
            }
          }}
        />
      </label>
      {state}
    </div>
  )
}
