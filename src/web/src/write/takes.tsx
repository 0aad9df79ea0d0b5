import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Copy, type Field, type Take } from '../kit/api'
import { useChanges } from '../kit/changes'
import { wholePercent } from '../kit/demand'
import { NameDialog } from '../kit/dialog'
import { Menu } from '../kit/menu'
import { Num } from '../kit/num'
import { counted, fixed } from '../kit/numbers'
import { Earlier, earlierThan } from '../kit/paging'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { Thread } from '../kit/thread'
import { Walked } from '../kit/walked'
import { wordsOf } from '../kit/words'
import { mixText } from './mix'

/** Every take of the title with its numbers; two or three of them side by side. */
export function Takes({
  desk,
  field,
  copy,
  version,
  use,
  keep,
}: {
  desk: Desk
  field: Field
  copy: () => Copy
  /** Another number when the picks or the other fields have changed. */
  version: number
  use: (text: string) => void
  keep: () => void
}) {
  const [beside, setBeside] = useState<string[]>([])
  const [naming, setNaming] = useState<Take | null>(null)
  const { run } = useChanges()
  const path = { id: desk.listingId }
  const remove = (t: Take) => run(() => ask(api.DELETE('/api/listings/{id}/takes/{take}', { params: { path: { ...path, take: t.id } } })))
  const pages = useInfiniteQuery({
    queryKey: queryKey('takes', desk.listingId, desk.market.id, version),
    queryFn: ({ pageParam }) =>
      ask(
        api.POST('/api/listings/{id}/takes/weighed', {
          params: { path: { id: desk.listingId }, query: { before: pageParam } },
          body: { marketId: desk.market.id, fields: copy() },
        }),
      ),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: earlierThan,
    placeholderData: (before) => before,
  })
  const takes = pages.data?.pages.flat()
  const chosen = (takes ?? []).filter((t) => beside.includes(t.text))
  const toggle = (t: Take) => setBeside(beside.includes(t.text) ? beside.filter((b) => b !== t.text) : [...beside, t.text].slice(-3))
  return (
    <Walked
      name="Takes"
      testid="takes"
      rows={takes ?? []}
      id={(t) => t.text}
      on={{ Enter: (t) => t.inUse || use(t.text), ' ': toggle, Delete: (t) => t.id > 0 && remove(t), F2: (t) => t.id > 0 && setNaming(t) }}
      always={{ k: keep }}
      focus
      before={
        <>
          <p className="flex gap-2 items-baseline text-[13px]">
            <span className="quiet">Reach and grip of the listing with each title.</span>
            <button type="button" className="link ml-auto whitespace-nowrap" onClick={keep}>
              Save this title <kbd>K</kbd>
            </button>
          </p>
          {takes === undefined ? (
            <p className="quiet">Working…</p>
          ) : takes.length === 0 ? (
            <p>No takes yet. Each title that you replace is saved here.</p>
          ) : (
            <p className="quiet text-[13px] mb-1">
              <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>Enter</kbd> uses, <kbd>Space</kbd> compares, <kbd>Esc</kbd> goes back to the text.
            </p>
          )}
          {chosen.length >= 2 && <SideBySide takes={chosen} field={field} use={use} />}
        </>
      }
      row={(t) => (
        <>
          {t.name && <div className="text-[13px] quiet">{t.name}</div>}
          <div className="leading-snug font-semibold">{t.text}</div>
          <p className="quiet text-[13px]">
            <span className={`num ${t.fits ? '' : 'text-accent'}`}>
              {t.used}
              {field.max === null ? '' : ` of ${field.max}`}
            </span>
            ; reach <span className="num">{wholePercent(t.reach)}%</span>, grip <span className="num">{fixed(t.grip, 1)}</span>;{' '}
            {counted(t.holds.length, 'pick')}; competition: {mixText(t.mix)}
          </p>
          <p className="flex gap-3 text-[13px]">
            {t.inUse ? (
              <b>In use</b>
            ) : (
              <button type="button" className="link" onClick={() => use(t.text)}>
                Use this title
              </button>
            )}
            <label className="inline-flex gap-1 items-center cursor-pointer">
              <input type="checkbox" className="checkbox checkbox-xs" checked={beside.includes(t.text)} onChange={() => toggle(t)} />
              Compare
            </label>
            {t.id > 0 && (
              <Menu
                label={`Take “${t.name || t.text}”`}
                items={[
                  { label: 'Rename…', run: () => setNaming(t) },
                  { label: 'Delete', run: () => remove(t) },
                ]}
              />
            )}
          </p>
        </>
      )}
      after={
        <>
          <Earlier pages={pages} />
          {naming && (
            <NameDialog
              title="Rename take"
              label="Name"
              value={naming.name}
              action="Rename"
              done={(name) =>
                run(() =>
                  ask(api.PUT('/api/listings/{id}/takes/{take}/name', { params: { path: { ...path, take: naming.id } }, body: { name } })),
                )
              }
              close={() => setNaming(null)}
            />
          )}
        </>
      }
    />
  )
}

/** Two or three takes: their figures, and the picks that not all of them hold. */
function SideBySide({ takes, field, use }: { takes: Take[]; field: Field; use: (text: string) => void }) {
  const [first, ...others] = takes.map((t) => new Set(wordsOf(t.text)))
  const shared = new Set([...first].filter((w) => others.every((o) => o.has(w))))
  const picks = [...new Map(takes.flatMap((t) => t.holds).map((h) => [h.text, h])).values()].sort(
    (a, b) => (b.volume ?? -1) - (a.volume ?? -1),
  )
  const differ = picks.filter((p) => new Set(takes.map((t) => t.holds.find((h) => h.text === p.text)?.grade ?? 'missing')).size > 1)
  const best = (of: (t: Take) => number) => Math.max(...takes.map(of))
  return (
    <table className="plain text-[13px] mb-3 beside" data-testid="side-by-side">
      <thead>
        <tr>
          <th />
          {takes.map((t) => (
            <th key={t.text} className="font-normal align-top">
              {t.text.split(/([\p{L}\p{M}\p{N}'’]+)/u).map((w, i) =>
                // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place
                wordsOf(w).some((word) => !shared.has(word)) ? <b key={i}>{w}</b> : <span key={i}>{w}</span>,
              )}{' '}
              {!t.inUse && (
                <button type="button" className="link" onClick={() => use(t.text)}>
                  Use this title
                </button>
              )}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(
          [
            ['Length', (t) => t.used, (t) => `${t.used}${field.max === null ? '' : ` of ${field.max}`}`],
            ['Reach', (t) => t.reach, (t) => `${wholePercent(t.reach)}%`],
            ['Grip', (t) => t.grip, (t) => fixed(t.grip, 1)],
            ['Picks', (t) => t.holds.length, (t) => `${t.holds.length}`],
          ] as [string, (t: Take) => number, (t: Take) => string][]
        ).map(([name, of, shown]) => (
          <tr key={name}>
            <td className="quiet">{name}</td>
            {takes.map((t) => (
              <td key={t.text} className={`num ${of(t) === best(of) ? 'font-semibold text-secondary' : ''}`}>
                {shown(t)}
              </td>
            ))}
          </tr>
        ))}
        <tr>
          <td className="quiet">Competition</td>
          {takes.map((t) => (
            <td key={t.text}>{mixText(t.mix)}</td>
          ))}
        </tr>
        {differ.map((p) => (
          <tr key={p.text}>
            <td>
              {p.text} <Num value={p.volume} unit="searches/mo" />
            </td>
            {takes.map((t) => (
              <td key={t.text}>
                <Thread grade={t.holds.find((h) => h.text === p.text)?.grade ?? 'missing'} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
