import type { Copy, Field } from '../kit/api'

/** A preview of the title in search results: cut off where the platform says, with the first picture's alt text. */
export function Tile({ picture, fields, copy, platform }: { picture: string | undefined; fields: Field[]; copy: Copy; platform: string }) {
  const field = fields.find((f) => f.role === 'title')
  const title = field ? String(copy[field.key] ?? '') : ''
  const shown = [...title]
  const cut = field?.shows && shown.length > field.shows ? shown.slice(0, field.shows).join('') : title
  // A word that the cut falls within is not read: what is hidden begins with all of it.
  const hidden = /\s/.test(title[cut.length] ?? ' ') ? cut.length : cut.search(/\S*$/)
  return (
    <div className="tile" data-testid="tile">
      <div className="tile-picture">{picture || 'No alt text yet'}</div>
      <p className="leading-snug text-[14.5px]">
        {cut ? (
          <>
            {cut}
            {cut !== title && <span className="quiet">…</span>}
          </>
        ) : (
          <span className="quiet">No title</span>
        )}
      </p>
      <p className="quiet text-[12.5px]">
        {cut === title
          ? `${platform} shows the whole title`
          : `Cut off after ${field?.shows} characters; hidden: “${title.slice(hidden).trim()}”`}
      </p>
    </div>
  )
}
