import type { QueryClient } from '@tanstack/react-query'
import type { Facts } from '../api'
import { type Changed, turnChange } from '../changes'
import { refresh } from '../queries'
import { changeKnownProduct } from '../shop'
import { toast } from '../toast'
import type { Draft } from './draft'

/** What follows a save: screens that show the text ask again, and what was changed is told and can be undone. Listings and pictures are told of by their own screens. */
export const afterSave = (cache: QueryClient) => (draft: Draft<unknown>, value: unknown, report: Changed | undefined) => {
  const { revision } = draft.snapshot()
  let product: number | undefined
  switch (draft.kind) {
    case 'facts':
      product = Number(draft.id)
      changeKnownProduct(cache, product, { facts: value as Facts, revision })
      refresh(cache, 'picks')
      break
    case 'note':
      product = Number(String(draft.id).split(' ')[0])
      refresh(cache, 'picks')
      break
    case 'profile':
      refresh(cache, 'platforms')
      break
    case 'site':
      refresh(cache, 'pages', 'products')
  }
  if (report?.what) toast(report.what, report.id ? () => turnChange(cache, 'undo', report.id as number) : undefined)
}
