import type { Listing, Move } from './api'

/** What a move does, as a sentence without its end. */
export function inWords(m: Pick<Move, 'kind' | 'field' | 'pick' | 'text' | 'before'>, listing: Listing): string {
  const field = listing.fields.find((f) => f.key === m.field)
  const label = field?.label.toLowerCase() ?? m.field
  const pick = `“${m.text}”`
  switch (m.kind) {
    case 'front':
      return `Start the ${label} with ${pick}`
    case 'whole':
      return `Write ${pick} as an exact phrase in ${label}`
    case 'add':
      return field?.role === 'tags' ? `Add the tag ${pick}` : `Add ${pick} to the ${label}`
    case 'exchange':
      return field?.role === 'tags' ? `Replace the tag “${m.before}” with ${pick}` : `Replace a phrase of the ${label} with ${pick}`
    case 'words':
      return `Add ${pick} to ${label}, to be found for “${m.pick}”`
    case 'attribute':
      return `Set ${m.text}, to be found for “${m.pick}”`
    case 'free':
      return `Remove the repeated word ${pick} from the ${label}`
  }
}
