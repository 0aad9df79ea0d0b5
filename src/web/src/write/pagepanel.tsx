import { Link } from 'react-router'
import type { Listing, PageFigures } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Num } from '../kit/num'
import { counted, fixed } from '../kit/numbers'
import { changePage, type PageChange } from '../kit/pages'

/** Figures of a page's text, its modifiers, and its place in the shop. */
export function PagePanel({
  listing,
  figures,
  insert,
}: {
  listing: Listing
  figures: PageFigures | undefined
  /** Puts a term at the end of the page title or, where it does not fit, of the meta description. */
  insert: (word: string, head: string) => void
}) {
  const { run } = useChanges()
  const { page } = listing
  if (!page || !figures) return <p className="quiet">Working…</p>
  const change = (what: PageChange) => run(() => changePage(page, what))
  const missing = figures.modifiers.filter((m) => !m.isUsed)
  const used = figures.modifiers.filter((m) => m.isUsed)
  const box = (label: string, on: boolean, run: () => void) => (
    <label className="flex gap-2 items-center text-[14px] cursor-pointer">
      <input type="checkbox" className="checkbox checkbox-xs" checked={on} onChange={run} /> {label}
    </label>
  )
  return (
    <div className="side-part" data-testid="page-panel" tabIndex={-1}>
      <h3 className="!mt-0">Page</h3>
      {box('Published', page.isPublished, () => change({ isPublished: !page.isPublished }))}
      {box('In the menu', page.inMenu, () => change({ inMenu: !page.inMenu }))}
      {box(`Add${page.suffix ? ` “${page.suffix.trim()}”` : ' the site’s addition'} to the title`, page.hasSuffix, () =>
        change({ hasSuffix: !page.hasSuffix }),
      )}
      <p className="text-[13.5px] mt-1 break-all">
        <span className="num">{figures.address}</span>
        {page.liveSlug && page.isPublished && !figures.address.endsWith(`/${page.liveSlug}`) && !page.isHome && (
          <span className="quiet"> The old address /{page.liveSlug} leads here.</span>
        )}
      </p>
      <p className="text-[13.5px]">
        <Link className="link" to={`/pages?at=${page.id}`}>
          Show in the page tree
        </Link>
      </p>
      <h3>Text</h3>
      <p className="text-[14px]">
        {counted(figures.words, 'word')}
        {figures.head && (
          <>
            ; lead used <span className="num">{figures.leadUses}</span> {figures.leadUses === 1 ? 'time' : 'times'} (
            <span className="num">{fixed(figures.leadRate, 1)}</span> per 100 words),{' '}
            {figures.leadInFirst ? 'also in the first paragraph' : 'not in the first paragraph'}
          </>
        )}
        .
      </p>
      {figures.outline.length > 0 && (
        <ul className="text-[13.5px] mt-1" aria-label="Outline">
          {figures.outline.map((h, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a heading is its place
            <li key={i} style={{ paddingLeft: Math.max(0, h.level - 2) * 14 }}>
              <span className="quiet num">H{h.level}</span> {h.text}
            </li>
          ))}
        </ul>
      )}
      <h3>Words before “{figures.head || '…'}”</h3>
      {!figures.head && <p className="quiet text-[14px]">Set a lead to see which words narrow it.</p>}
      {missing.length > 0 && (
        <>
          <p className="quiet text-[13px]">True by the facts and searched, but not on the page:</p>
          <table className="plain text-[14px]">
            <tbody>
              {missing.map((m) => (
                <tr key={m.word}>
                  <td>{m.term}</td>
                  <td className="r">
                    <Num value={m.volume} unit="searches/mo" />
                  </td>
                  <td className="r">
                    <button type="button" className="link" aria-label={`Insert “${m.term}”`} onClick={() => insert(m.word, figures.head)}>
                      Insert
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {used.length > 0 && (
        <>
          <p className="quiet text-[13px] mt-2">On the page:</p>
          <p className="flex flex-wrap gap-x-3 gap-y-1 text-[14px]">
            {used.slice(0, 24).map((m) => (
              <span key={m.word}>
                {m.word} <Num value={m.volume} unit="searches/mo" />
              </span>
            ))}
          </p>
        </>
      )}
    </div>
  )
}
