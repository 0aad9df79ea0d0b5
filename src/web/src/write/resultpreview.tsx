import type { PageFigures } from '../kit/api'

const PhoneWidth = 340

/** How a page's entry in a results page looks, wide and at a phone's width, cut off where it would be; and its browser tab. */
export function ResultPreview({ figures, brand }: { figures: PageFigures | undefined; brand: string }) {
  if (!figures) return <p className="quiet text-[14px]">Working…</p>
  return (
    <div className="grid gap-4" style={{ gridTemplateColumns: `minmax(0,1fr) ${PhoneWidth}px` }} data-testid="result-preview">
      <Entry figures={figures} width="wide" name="Wide" />
      <Entry figures={figures} width="phone" name="Phone" />
      <p className="col-span-2 text-[13px] flex gap-2 items-center">
        <span className="quiet">Browser tab</span>
        <span className="browser-tab">
          <span aria-hidden="true">▫</span> {figures.title.text || brand}
        </span>
      </p>
    </div>
  )
}

function Entry({ figures: f, width, name }: { figures: PageFigures; width: 'wide' | 'phone'; name: string }) {
  return (
    <div className="result-entry">
      <p className="quiet text-[12px]">{name}</p>
      <p className="result-title">
        <Marked of={f.title} end={f.title[width]} />
      </p>
      <p className="quiet text-[12.5px] truncate">{[f.address.replace(/^https?:\/\//, ''), ...f.crumbs].filter(Boolean).join(' › ')}</p>
      <p className="text-[14px] leading-snug">
        <Marked of={f.description} end={f.description[width]} />
      </p>
    </div>
  )
}

/** A text with the lead's words marked, cut off where the width ends. */
function Marked({ of: { text, marks }, end }: { of: PageFigures['title']; end: number }) {
  if (!text) return <span className="quiet">Nothing to show</span>
  const parts: React.ReactNode[] = []
  let at = 0
  for (const m of marks) {
    if (m.start >= end || m.start < at) continue
    parts.push(text.slice(at, m.start))
    at = Math.min(end, m.start + m.length)
    parts.push(<b key={m.start}>{text.slice(m.start, at)}</b>)
  }
  parts.push(text.slice(at, end))
  return (
    <>
      {parts}
      {end < text.length && <span className="quiet"> …</span>}
    </>
  )
}
