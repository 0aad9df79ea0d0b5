import type { Profile } from '../kit/api'

export type FieldRule = Profile['fields'][number]

export type Limit = FieldRule['limit']

export const shapes = {
  line: 'one line',
  text: 'text',
  lines: 'bullet points',
  phrases: 'tags',
  words: 'separate words',
  rich: 'HTML',
  path: 'category',
  choices: 'attributes',
}

export const folds = {
  diacritics: 'accents (pajaros = pájaros)',
  possessive: 'possessives (womens = women’s)',
  plural: 'plurals (box = boxes)',
  compound: 'one word or two (birdhouse = bird house)',
  spelling: 'British and American spelling (grey = gray)',
}

export const capitals = {
  sentence: 'the first letter of the title',
  words: 'the first letter of each word',
  asIs: 'as the picks are typed',
}

export const thresholds: Record<string, string> = {
  unusedShare: 'Allowed unused space',
  whatWithinWords: 'What it is: within the first words of the title',
  shoutingLetters: 'All caps: letters in a word',
  shoutingWords: 'All caps: words in a field',
  descriptionMinWords: 'Min words in the description',
  termPerHundredWords: 'Max uses of a term per 100 words',
  listSentenceWords: 'Keyword list: min words in the sentence',
  listSentenceShare: 'Keyword list: part of the words that are picks',
  openingSentences: 'Opening: sentences that should contain a core pick',
  rivalsFillShare: 'Attributes: part of the listings that fill them',
  shopNameInTags: 'A tag with the shop’s name is recommended',
  titleWordUses: 'Most times one word may come in a title',
  leadWordsMax: 'Most words of a lead',
}

/** Check settings that are a part of a whole, entered in percent. */
export const shares = ['unusedShare', 'listSentenceShare', 'rivalsFillShare']

/** Check settings that are on or off. */
export const switches = ['shopNameInTags']

const columns: Record<string, string> = {
  key: 'Key',
  label: 'Name',
  role: 'Role',
  shape: 'Type',
  'limit.max': 'Limit',
  'limit.unit': 'Unit',
  'limit.maxItems': 'Max items',
  limit: 'Limit',
  shows: 'Cut off at',
  indexed: 'Searched',
  indexedFirst: 'Search reads first',
  weight: 'Weight',
  front: 'Early words count more',
  required: 'Required',
}

const parts: Record<string, string> = {
  name: 'Name',
  id: 'ID',
  about: 'About',
  fields: 'Fields',
  banned: 'Banned phrases',
  'search.folds': 'Search treats as equal',
  'search.ignoredWords': 'Ignored words',
  'search.indexDelayHours': 'Search updates after (hours)',
}

/** What a problem is about, in the words of the form: “Title limit”. */
export function labelOf(path: string, fields: FieldRule[]): string {
  const key = path.replace(/^profile\.?/, '')
  const field = /^fields\[(\d+)\]\.?(.*)$/.exec(key)
  if (field) {
    const rule = fields[Number(field[1])]
    const column = columns[field[2]] ?? columns[field[2].replace(/\[.*$/, '')] ?? field[2]
    return `${rule?.label || rule?.key || `Field ${Number(field[1]) + 1}`} ${column.toLowerCase()}`.trim()
  }
  if (key.startsWith('checks.')) return thresholds[key.slice(7)] ?? key
  return parts[key.replace(/\[.*$/, '')] ?? (key || 'Platform')
}

// What is no number stays as it was typed: the check names it.
export const number = (text: string) =>
  text.trim() === '' ? null : Number.isNaN(Number(text)) ? (text as unknown as number) : Number(text)

/** A name as an id or a key. */
export const idOf = (name: string) =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40)
