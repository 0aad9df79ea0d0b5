/** Kinds of findings as the list of listings names them, by the check and, where it can be about several fields, the field’s role. */
const names: Record<string, string> = {
  'empty title': 'No title',
  'empty tags': 'No tags',
  'empty body': 'No description',
  'unused title': 'Title short',
  'unused tags': 'Tags unused',
  'unused backend': 'Backend words unused',
  'would-fit': 'A missing word would fit',
  'home-missing': 'Not in its home',
  avoided: 'Avoided terms',
  banned: 'Banned phrases',
  claim: 'Not in the facts',
  promise: 'Promises',
  shouting: 'Capitals',
  'lead-long': 'Lead too long',
  'lead-not-whole': 'Lead not in the title',
  'lead-not-shown': 'Lead cut off',
  'what-late': 'What it is comes late',
  'title-repeat': 'Title repeats a word',
  'title-no-fact': 'Title without a fact',
  'same-tag': 'Tag twice',
  'tag-reordered': 'Tag only reordered',
  'shop-name': 'Shop name as a tag',
  'backend-repeat': 'Backend repeats',
  'description-short': 'Description short',
  'description-unfinished': 'Description unfinished',
  'begins-with-title': 'Description begins with the title',
  'list-of-picks': 'Description lists picks',
  'repeated-list': 'Same list twice',
  'opening-no-core': 'Opening without a core pick',
  stuffed: 'A term too often',
  'mixed-spelling': 'Mixed spelling',
  'category-unknown': 'Category unknown',
  'category-deeper': 'Category could be deeper',
  'attribute-empty': 'Attributes empty',
  'attribute-unlisted': 'Attribute value not listed',
  'no-picture': 'No picture',
  'alt-missing': 'Alt text missing',
}

const roles: Record<string, string> = { body: 'description', meta: 'meta description' }

/** What a kind of finding is called. */
export function kindName(kind: string): string {
  const known = names[kind]
  if (known) return known
  const [check, role] = kind.split(' ')
  const field = roles[role ?? ''] ?? role
  if (check === 'required-empty') return `Required and empty: ${field || 'a field'}`
  if (check === 'over-limit' || check === 'over-items') return `Over the limit: ${field || 'a field'}`
  const words = kind.replaceAll('-', ' ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}
