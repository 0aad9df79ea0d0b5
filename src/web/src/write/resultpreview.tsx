import type { Field, PageFigures } from '../kit/api'

const Phone = 340

/** How a page's entry in a results page looks, wide and at a phone's width, cut off where it would be; and its browser tab. */
export function ResultPreview({ figures, fields, brand }: { figures: PageFigures | undefined; fields: Field[]; brand: string }) {
  if (!figures) return <p className="quiet text-[14px]">Working…</p>
  const limit = (role: string) => fields.find((f) => f.role === role)?.maxPixels ?? undefined
  return (
    <div className="grid gap-4" style={{ gridTemplateColumns: `minmax(0,1fr) ${Phone}px` }} data-testid="result-preview">
      <Entry figures={figures} title={limit('title')} description={limit('meta')} name="Wide" />
      <Entry figures={figures} title={Phone - 20} description={(Phone - 20) * 3} name="Phone" />
      <p className="col-span-2 text-[13px] flex gap-2 items-center">
        <span className="quiet">Browser tab</span>
        <span className="browser-tab">
          <span aria-hidden="true">▫</span> {figures.title || brand}
        </span>
      </p>
    </div>
  )
}

function Entry({
  figures: f,
  title,
  description,
  name,
}: {
  figures: PageFigures
  title: number | undefined
  description: number | undefined
  name: string
}) {
  const cut = (pixels: number, limit: number | undefined) => (limit !== undefined && pixels > limit ? limit / pixels : 1)
  const [titleShare, descriptionShare] = [cut(f.titlePixels, title), cut(f.descriptionPixels, description)]
  return (
    <div className="result-entry">
      <p className="quiet text-[12px]">{name}</p>
      <p className="result-title">
        <Marked text={f.title} marks={f.titleMarks} share={titleShare} />
      </p>
      <p className="quiet text-[12.5px] truncate">{[f.address.replace(/^https?:\/\//, ''), ...f.crumbs].filter(Boolean).join(' › ')}</p>
      <p className="text-[14px] leading-snug">
        <Marked text={f.description} marks={f.descriptionMarks} share={descriptionShare} />
      </p>
    </div>
  )
}

/** A text with the lead's words marked, cut off after so much of it. */
function Marked({ text, marks, share }: { text: string; marks: readonly { start: number; length: number }[]; share: number }) {
  if (!text) return <span className="quiet">Nothing to show</span>
  // The cut is by width; letters are taken as equally wide, and the last word goes whole.
  const rough = Math.floor(text.length * share)
  const end = share >= 1 ? text.length : Math.max(text.lastIndexOf(' ', rough), 1)
  const parts: React.ReactNode[] = []
  let at = 0
  for (const m of [...marks].sort((a, b) => a.start - b.start)) {
    if (m.start >= end || m.start < at) continue
    parts.push(text.slice(at, m.start))
    at = Math.min(end, m.start + m.length)
    parts.push(<b key={m.start}>{text.slice(m.start, at)}</b>)
  }
  parts.push(text.slice(at, end))
  return (
    <>
      {parts}
      {share < 1 && <span className="quiet"> …</span>}
    </>
  )
}
