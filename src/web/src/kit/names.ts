import type { Fit, Home } from './api'

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
  body: 'description',
  later: 'later',
  avoid: 'avoid',
}

const sampleSource = 'stand-in market'

/** What a source is called on a screen: made-up numbers are named as such. */
export const sourceName = (source: string) => (source === sampleSource ? 'Sample data' : source)
