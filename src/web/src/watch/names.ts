import type { Effect, NoteKind } from '../kit/api'

/** What a change note says was changed, in the order in which it can be chosen. */
export const kindNames: Record<NoteKind, string> = {
  price: 'Price',
  photos: 'Photos',
  promotion: 'Promotion',
  title: 'Title',
  tags: 'Tags',
  bullets: 'Bullet points',
  backend: 'Backend keywords',
  description: 'Description',
  attributes: 'Category and attributes',
  other: 'Other',
}

/** What is counted by day; nights where stays are let. */
export const measureName = (measure: Effect['measure'], nights: boolean) =>
  ({ views: 'Views', clicks: 'Clicks', sales: nights ? 'Nights' : 'Sales' })[measure]

/** A difference in percent with its sign. */
export const signed = (percent: number) => {
  const whole = Math.round(percent)
  return `${whole > 0 ? '+' : whole < 0 ? '−' : ''}${Math.abs(whole).toLocaleString('en')}%`
}
