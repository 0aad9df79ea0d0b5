import { Marked } from 'marked'
import { useEffect, useMemo, useState } from 'react'
import { useLocation } from 'react-router'
import model from '../../../../docs/model.md?raw'
import { ShortcutList } from '../kit/keysheet'
import { ShopHead } from '../kit/shophead'
import { ToastLine } from '../kit/toast'

/** A heading as the part of an address after #. */
export const slugOf = (heading: string) =>
  heading
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')

type Section = { heading: string; slug: string; html: string; words: string }

/** The text of the help, one section for each of its headings. */
export function sectionsOf(markdown: string): Section[] {
  const marked = new Marked({ async: false, gfm: true })
  return markdown
    .split(/^## /m)
    .slice(1)
    .map((part) => {
      const [heading, ...body] = part.split('\n')
      const text = body.join('\n')
      return {
        heading: heading.trim(),
        slug: slugOf(heading),
        // Wide tables scroll in a box of their own, which the keyboard reaches too.
        html: (marked.parse(text) as string)
          .replaceAll('<table>', '<div class="help-table" tabindex="0" role="region" aria-label="Table"><table>')
          .replaceAll('</table>', '</table></div>'),
        words: `${heading} ${text}`.toLowerCase(),
      }
    })
}

const keysHeading = 'Keyboard shortcuts'

/** How the numbers work with examples, the glossary and the shortcuts; searchable. */
export function Help() {
  const { hash } = useLocation()
  const [text, setText] = useState('')
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean)
  const sections = useMemo(() => sectionsOf(model), [])
  const shown = sections.filter((s) => wanted.every((w) => s.words.includes(w)))
  const keys = wanted.every((w) => 'keyboard shortcuts keys'.includes(w))
  useEffect(() => {
    const target = hash && document.getElementById(hash.slice(1))
    if (!target) return
    target.scrollIntoView()
    target.focus({ preventScroll: true })
  }, [hash])
  return (
    <div className="frame of-shop">
      <ShopHead name="Help" />
      <main className="work" style={{ gridTemplateColumns: '250px minmax(0,1fr)' }}>
        <nav className="side !border-l-0" aria-label="Sections" style={{ borderRight: '1px solid var(--tin-2)' }}>
          <input
            className="input input-sm w-full mb-3"
            type="search"
            placeholder="Search the help"
            aria-label="Search the help"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          {shown.map((s) => (
            <a key={s.slug} className="help-nav" href={`#${s.slug}`}>
              {s.heading}
            </a>
          ))}
          {keys && (
            <a className="help-nav" href={`#${slugOf(keysHeading)}`}>
              {keysHeading}
            </a>
          )}
          {shown.length === 0 && !keys && <p className="quiet text-[14px]">No section contains these words.</p>}
        </nav>
        <section className="sheet help" data-testid="help" aria-label="Help">
          {shown.map((s) => (
            <section key={s.slug} className="mb-6">
              <h2 id={s.slug} tabIndex={-1}>
                {s.heading}
              </h2>
              {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own text, which ships with the program */}
              <div dangerouslySetInnerHTML={{ __html: s.html }} />
            </section>
          ))}
          {keys && (
            <section>
              <h2 id={slugOf(keysHeading)} tabIndex={-1}>
                {keysHeading}
              </h2>
              <ShortcutList />
            </section>
          )}
        </section>
      </main>
      <ToastLine />
    </div>
  )
}
