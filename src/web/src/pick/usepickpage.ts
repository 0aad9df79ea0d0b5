import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useAddress } from '../kit/address'
import { listingQuery } from '../kit/listingqueries'
import { messages } from '../kit/messages'
import { usePickActions, usePicks } from '../kit/picks'
import { changed, useSelection } from '../kit/selection'
import type { Desk } from '../kit/shop'
import { sortIn } from '../kit/sort'
import { useTermActions } from '../kit/terms/actions'
import { sortTerms, useTermColumns } from '../kit/terms/termtable'
import { toast } from '../kit/toast'
import { useWeighing } from '../kit/weighing'
import { own, usual } from './columns'
import { folded, type Row } from './rows'

/** What Pick shows and can do: the picks as rows, in groups or not, the current row, the selection, and what is done to them. */
export function usePickPage(desk: Desk) {
  const [params, set] = useAddress()
  const [marked, markRows, clear] = useSelection()
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const picks = usePicks(desk)
  const weighing = useWeighing(desk)
  const actions = usePickActions(desk)
  const listing = useQuery(listingQuery(desk.listingId))
  const families = params.get('families') === '1'
  const side = params.get('side') ?? 'term'
  const language = params.get('language')
  const sort = sortIn(params)

  const all = useMemo(() => {
    const weights = new Map(weighing?.terms.map((t) => [t.key, t]))
    // Picks in another language come together, after those in the listing's own.
    const inOrder = [...(picks.data?.picks ?? [])].sort((a, b) => a.language.localeCompare(b.language))
    return inOrder.map(
      (p): Row => ({ ...p, pick: p, weight: weights.get(p.key), lead: p.key === listing.data?.leadKey, members: [p], under: false }),
    )
  }, [picks.data, weighing, listing.data])
  const columns = useTermColumns<Row>({ desk, table: 'picks', own, usual, fields: weighing?.fields })
  const languages = [...new Set(all.map((p) => p.language))]
  const rows = useMemo(() => {
    const some = sortTerms(
      all.filter((p) => language === null || p.language === language),
      columns,
      sort,
    )
    return families ? folded(some, opened) : some
  }, [all, language, columns, sort, families, opened])
  const wanted = params.get('at')
  const found = rows.findIndex((r) => r.key === wanted || r.members.some((m) => m.key === wanted))
  const at = found >= 0 ? found : rows.length > 0 ? 0 : -1
  const row = rows[at]
  const foldable = all.length - new Set(all.map((p) => p.family)).size

  /** The picks that a key is about: the selected ones, or the current row with its variants. */
  const chosenRows = (): Row[] => {
    const keys = marked.size > 0 ? marked : new Set(row?.members.map((m) => m.key))
    return all.filter((p) => keys.has(p.key))
  }
  const chosen = (): string[] => chosenRows().map((p) => p.text)

  const does = useTermActions(desk, listing.data?.leadKey, 'pick')
  const move = (by: number) => {
    if (!row || sort || families) return toast(messages.clearSorting)
    const keys = all.map((p) => p.key)
    const i = keys.indexOf(row.key)
    const to = i + by
    if (to < 0 || to >= keys.length) return
    keys.splice(to, 0, ...keys.splice(i, 1))
    actions.order(keys)
  }
  const fold = (open: boolean) => row && families && setOpened(changed(opened, [row.family], open))
  const mark = (ids: string[], on: boolean) =>
    markRows(
      ids.flatMap((id) => rows.find((r) => r.key === id)?.members.map((m) => m.key) ?? [id]),
      on,
    )
  const inUse = all.filter((p) => p.home !== 'avoid' && p.home !== 'later')
  const volume = inUse.reduce((sum, p) => sum + (p.numbers.volume ?? 0), 0)
  const unknown = inUse.filter((p) => p.numbers.volume === null).length
  const some = all.filter((p) => marked.has(p.key))
  return {
    set,
    picks,
    actions,
    families,
    side,
    language,
    languages,
    sort,
    all,
    rows,
    at,
    row,
    foldable,
    marked,
    clear,
    mark,
    chosen,
    chosenRows,
    columns,
    some,
    inUse,
    volume,
    unknown,
    does,
    leadKey: listing.data?.leadKey ?? null,
    move,
    fold,
  }
}

export type PickPage = ReturnType<typeof usePickPage>
