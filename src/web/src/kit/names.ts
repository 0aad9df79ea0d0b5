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
export const factLines: Partial<Record<Facet, Exclude<keyof Facts, 'what' | 'brand'>>> = {
  material: 'materials',
  colour: 'colours',
  size: 'sizes',
  audience: 'audiences',
  occasion: 'occasions',
  property: 'properties',
}

/** What a field is: where it shows, and who reads it. */
const aboutRoles: Record<string, string> = {
  title: 'The listing’s name in results and on its page. Shoppers read it first, and its first words count most.',
  tags: 'Search phrases that shoppers seldom see. Each is one thing that somebody types.',
  bullets: 'Short lines beside the pictures. Shoppers look down them before they read anything else.',
  backend: 'Words that only the search reads. Shoppers never see them.',
  body: 'The long text under the pictures. People who want to buy read it; web search reads it as well.',
  category: 'Where the marketplace puts the listing. The deeper it is, the more filters show it.',
  attributes: 'Facts that shoppers filter by. One left empty hides the listing from its filter.',
  materials: 'What it is made of, as shoppers filter by it. Only what the facts say.',
  brand: 'The maker’s name beside the title. Shoppers who know it search for it.',
  keywords: 'Read by few search engines today; it is kept for shops that use it inside.',
  menu: 'The short name in the shop’s menu. Visitors read it on every page.',
  heading: 'The name at the top of the page. Visitors read it first.',
  meta: 'The two lines under the result in web search. They bring the click, not the rank.',
  slug: 'The end of the page’s address. It shows in web search, and should not change once it is published.',
  short: 'The few lines beside the price or at the top of the category. Visitors read them before the text.',
  productTags: 'Words by which the shop groups products and fills its own search. Web search does not read them.',
}
const onPages: Record<string, string> = {
  title: 'The line in web search and in the browser’s tab. Visitors don’t see it on the page itself.',
  body: 'The text of the page. Visitors and web search read it from the top.',
}

/** One line about a field, by what it is to the job; empty for a field of the seller’s own. */
export const aboutRole = (role: string, isPage: boolean) => (isPage && onPages[role]) || aboutRoles[role] || ''
