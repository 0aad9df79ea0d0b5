import type { Facet, Facts, Fit, Home } from './api'

/** What each fit means and counts. */
export const fitAbout: Record<Fit, string> = {
  core: 'What the product is. Counts 1.',
  good: 'True of the product. Counts 0.7.',
  stretch: 'Not wrong, but not central. Counts 0.4.',
}

/** What a home is called on a screen. */
export const homeName: Record<Home, string> = {
  anywhere: 'anywhere',
  title: 'title',
  tags: 'tags',
  bullets: 'bullets',
  backend: 'backend',
  description: 'description',
  later: 'later',
  avoid: 'avoid',
}

/** The line of the facts for each kind of claim; style claims nothing. */
export const factLines: Partial<Record<Facet, Exclude<keyof Facts, 'what'>>> = {
  material: 'materials',
  colour: 'colours',
  size: 'sizes',
  audience: 'audiences',
  occasion: 'occasions',
  property: 'properties',
}
