import { counted, dateTimeOf, full } from './numbers'

/** What the screens report after a key or a click: in one place, to be read through. The server words its own reports. */
export const messages = {
  // Errors
  answered: (status: number) => `The server answered ${status}.`,
  notSaved: (why: string) => `Not saved: ${why}`,
  notAdded: (why: string) => `Not added: ${why}`,
  notUndone: (why: string) => `Not undone: ${why}`,
  notBackedUp: (why: string) => `Not backed up: ${why}`,
  notRestored: (why: string) => `Not restored: ${why}`,
  noPagesInFolder: (megabytes: number) =>
    `No saved web page (.html) was found in this folder, or it holds more than ${megabytes} MB. Nothing was imported.`,
  notImported: (why: string) => `${why} Nothing was imported.`,
  notPasted: (why: string) => `${why} Nothing was added; your text is still here.`,
  textNotSaved: 'Your latest text isn’t saved yet, so nothing was done. Try again once it is saved.',
  renamedElsewhere: 'Another window renamed it.',
  copyRefused: 'The browser didn’t allow copying. Select the text and copy it by hand.',
  notJson: (file: string, why: string) => `${file} isn’t valid JSON: ${why}`,
  enterNumber: (field: string) => `${field}: enter a number, or leave it empty if you don’t know it.`,

  // Undo
  undone: (what: string) => `Undone: ${what}`,
  redone: (what: string) => `Made again: ${what}`,
  passwordChanged: 'The password is changed. Every other session has ended.',
  nothingToUndo: 'Nothing to undo',
  nothingToUndoHere: 'Nothing to undo here. Other changes are in History (H).',
  nothingToRedoHere: 'Nothing to make again here. Other changes are in History (H).',
  asksFirst: (to: 'undo' | 'redo', what: string) => `${to === 'undo' ? 'Undo' : 'Make again'}: ${what}?`,

  // Terms
  rowsCopied: (count: number) => `${counted(count, 'row')} copied`,
  checkLater: (when: string) => `Check it after ${when}: the search results have updated then`,
  madeProduct: (name: string, picks: number) => `Made the product “${name}” with ${counted(picks, 'pick')}; undo in History removes it`,
  ideaNumber: (number: number) => `Idea ${number}`,
  columnsSaved: (name: string) => `Saved the columns as “${name}”`,
  nameIsTaken: (name: string) => `Something else is saved as “${name}” already. Choose another name.`,
  nextIsOld: 'The text has just changed. What comes next is being worked out anew.',
  placed: (terms: string[], where: string) =>
    `Added ${terms.length === 1 ? `“${terms[0]}”` : counted(terms.length, 'term')}: ${where.charAt(0).toLowerCase()}${where.slice(1)}`,
  filtersSaved: (name: string) => `Saved the filters as “${name}”`,
  searchesCopied: (count: number) => `${counted(count, 'exact-title search', 'exact-title searches')} copied`,
  listedSome: (listed: number, all: number) => `Listed the first ${full(listed)} of ${full(all)} terms: an address holds no more.`,
  corrected: (term: string) => `Corrected “${term}”. The old reading is kept.`,
  otherReading: (term: string) => `Using the other reading of “${term}”. Both are kept.`,
  chooseNumbers: 'First choose what the numbers at the end of the lines are.',
  importStopped: 'Stopped. Nothing was imported.',
  pasted: (taken: number, fresh: number, skipped: number) =>
    `${counted(taken, 'term')} added${fresh === 0 ? ', known already' : fresh < taken ? `, ${full(fresh)} of them new` : ''}.` +
    (skipped > 0 ? ` ${counted(skipped, 'line')} skipped; fix ${skipped === 1 ? 'it' : 'them'} above.` : ''),

  // Picks
  nothingNew: 'Nothing new: all of it is here already',
  tooManyToPick: (count: number, most: number) => `${count} terms; at most ${most} can be picked at once. They are still in the box.`,
  notMeasured: (why: string) => `Picked, but the market gave no numbers: ${why}`,
  leadSet: (term: string) => `Set “${term}” as lead`,
  leadRemoved: (term: string) => `Removed “${term}” as lead`,
  clearSorting: 'To move picks by hand, first clear the sorting (press the sorted heading again) and ungroup variants',
  selectToCombine: 'Select two to six picks with Space to see the shortest phrase that contains them all',

  // Writing
  otherText: 'Using the other window’s text',
  filled: (field: string) => `Filled ${field}`,
  fillUpdated: (field: string) => `You edited ${field} meanwhile. The fill has been updated.`,
  fixDone: (fix: string) => `Done: ${fix}`,
  fixedAlready: 'Your latest text has fixed this already',
  noFindings: 'No findings',
  noFix: 'No fix for this field',
  noClaim: 'No claim to add in this field',
  restored: 'Restored',
  dismissed: 'Dismissed until the text changes',
  dismissedWord: (word: string) => `Dismissed for “${word}”`,
  copied: (what: string, characters: number) => `${what} copied (${counted(characters, 'character')})`,
  nothingToCopy: (what: string) => `${what} is empty, nothing to copy`,
  takeSaved: 'Saved as a take',
  versionSaved: 'Saved as a version',
  versionNotNeeded: 'Nothing to save: the listing is empty or unchanged since the last version',
  published: 'Marked as published',
  sent: (platform: string, noticedAt: string) =>
    `Sent to the simulated ${platform} (sample data). Search results update about ${dateTimeOf(noticedAt)}.`,

  // Weigh
  moved: (what: string) => `Applied: ${what}`,
  passed: (moves: number, shop: string) => `Applied ${counted(moves, 'move')} to pass ${shop}`,
  broughtOver: (fields: number, platform: string) => `Brought ${counted(fields, 'field')} over from ${platform}`,
  filledAttribute: (value: string) => `Filled ${value}`,
  noFacts: (value: string) => `“${value}” isn’t in this product’s facts. Add it to the facts first, if it is true.`,
  attributeClosed: 'This listing’s category doesn’t have this attribute.',
  refreshed: (seen: number, changed: number, gone: number) =>
    seen === 0 && gone === 0
      ? 'None of these rivals can be looked up. Paste or import them again to see what has changed.'
      : `Looked up ${counted(seen, 'rival')}: ${changed === 0 ? 'no changes since you saved them' : `${full(changed)} changed since you saved ${changed === 1 ? 'it' : 'them'}`}` +
        (gone > 0 ? `, ${full(gone)} no longer in the market` : ''),
  reviewsThere: (mine: number, theirs: number) => `No new reviews: ${full(mine)} of yours and ${full(theirs)} of rivals’ are here`,
  reviewsNone: 'The market has no reviews of these listings.',
  pickedPhrase: (term: string, volume: number | null) =>
    `Picked “${term}”: ${volume === null ? 'no search data' : `${full(volume)} searches/mo`}`,
  pickedBefore: (term: string) => `“${term}” is a pick already`,

  // Watch
  clockMoved: (now: string) => `The simulated clock is at ${dateTimeOf(now)}`,
  clockStopped: (now: string) => `Stopped. The simulated clock is at ${dateTimeOf(now)}`,
  pageSize: (most: number) => `Enter a number of results from 1 to ${most}.`,
  noTerms: 'There is no term in your list.',
  profileChanged: (platform: string) => `Changed the profile of ${platform}`,
  profileElsewhere: 'The profile was changed in another window meanwhile. Look at what it says now, then decide again.',

  // All listings
  selectFirst: 'Select listings with Space first',
  editSkipped: (count: number) =>
    `${counted(count, 'listing')} changed in another window meanwhile and ${count === 1 ? 'was' : 'were'} left alone.`,

  // Web shop
  derivedUsed: 'Wrote out the derived text',

  // Shop and platforms
  renamed: (name: string) => `Renamed to “${name}”`,
  duplicated: (name: string) => `Duplicated “${name}”`,
  backedUp: (size: string) => `Backed up and verified, ${size}`,
  fixErrors: 'Fix the marked errors before saving',
  fixJson: 'Fix the JSON first',
  fixField: (field: string) => `Fix this first: ${field}`,
  imported: (name: string) => `Imported ${name}`,
}
