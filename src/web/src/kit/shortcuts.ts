import { useEffect, useRef, useSyncExternalStore } from 'react'
import { matchKeyBindingPress, parseKeybinding, tinykeys } from 'tinykeys'

/** A shortcut: the keys that run it, as tinykeys writes them, and what the sheet says of it. */
type Shortcut = {
  group: Group
  label: string
  keys: string[]
  /** Whether it runs while the focus is in a text box. */
  typing?: true
}

export const groups = [
  'Everywhere',
  'Tables and lists',
  'Terms',
  'Listings',
  'Dig',
  'Pick',
  'Write',
  'Weigh',
  'Watch',
  'Web shop',
  'Platforms',
] as const
type Group = (typeof groups)[number]

/** Every shortcut of the application: what handles the keys and what the sheet prints are this one list. */
export const shortcuts = {
  search: { group: 'Everywhere', label: 'Search or jump to…', keys: ['$mod+k'], typing: true },
  undo: { group: 'Everywhere', label: 'Undo the last change made here', keys: ['$mod+z', 'u'] },
  redo: { group: 'Everywhere', label: 'Make again what was undone', keys: ['$mod+Shift+z', 'Shift+u'] },
  history: { group: 'Everywhere', label: 'History of changes', keys: ['h'] },
  sheet: { group: 'Everywhere', label: 'Keyboard shortcuts', keys: ['Shift+?', '?'] },
  door: { group: 'Everywhere', label: 'Paste or drop anything: pages, text, tables', keys: ['v'] },
  // Alt with a letter or a digit types a character on some keyboards: the position of the key counts there.
  next: { group: 'Everywhere', label: 'Do what comes next for the listing', keys: ['Alt+Shift+KeyJ'], typing: true },
  dig: { group: 'Everywhere', label: 'Go to Dig', keys: ['Alt+Shift+Digit1'], typing: true },
  pickStep: { group: 'Everywhere', label: 'Go to Pick', keys: ['Alt+Shift+Digit2'], typing: true },
  write: { group: 'Everywhere', label: 'Go to Write', keys: ['Alt+Shift+Digit3'], typing: true },
  weigh: { group: 'Everywhere', label: 'Go to Weigh', keys: ['Alt+Shift+Digit4'], typing: true },
  watch: { group: 'Everywhere', label: 'Go to Watch', keys: ['Alt+Shift+Digit5'], typing: true },

  down: { group: 'Tables and lists', label: 'Next row', keys: ['ArrowDown'] },
  up: { group: 'Tables and lists', label: 'Previous row', keys: ['ArrowUp'] },
  pageDown: { group: 'Tables and lists', label: 'Page down', keys: ['PageDown'] },
  pageUp: { group: 'Tables and lists', label: 'Page up', keys: ['PageUp'] },
  first: { group: 'Tables and lists', label: 'First row', keys: ['Home'] },
  last: { group: 'Tables and lists', label: 'Last row', keys: ['End'] },
  select: { group: 'Tables and lists', label: 'Select the row', keys: ['Space'] },
  extendDown: { group: 'Tables and lists', label: 'Extend the selection down', keys: ['Shift+ArrowDown', 'Shift+PageDown'] },
  extendUp: { group: 'Tables and lists', label: 'Extend the selection up', keys: ['Shift+ArrowUp', 'Shift+PageUp'] },
  selectAll: { group: 'Tables and lists', label: 'Select all', keys: ['$mod+a'] },
  open: { group: 'Tables and lists', label: 'Open the row; in Dig, search for its term', keys: ['Enter'] },
  exportTable: { group: 'Tables and lists', label: 'Export what the table shows, as CSV', keys: ['Shift+e'] },
  close: { group: 'Tables and lists', label: 'Stop, clear the selection or close the panel', keys: ['Escape'] },

  pick: { group: 'Terms', label: 'Pick the term, or remove the pick', keys: ['p'] },
  avoid: { group: 'Terms', label: 'Mark as avoid, or stop avoiding', keys: ['x'] },
  lead: { group: 'Terms', label: 'Set as lead', keys: ['e'] },
  place: { group: 'Terms', label: 'Add to a field of the listing', keys: ['+', 'Shift++', '='] },
  fitCore: { group: 'Terms', label: 'Fit: core', keys: ['1'] },
  fitGood: { group: 'Terms', label: 'Fit: good', keys: ['2'] },
  fitStretch: { group: 'Terms', label: 'Fit: stretch', keys: ['3'] },
  homeTitle: { group: 'Terms', label: 'Home: title', keys: ['t'] },
  homeTags: { group: 'Terms', label: 'Home: tags', keys: ['g'] },
  homeBullets: { group: 'Terms', label: 'Home: bullets', keys: ['b'] },
  homeBackend: { group: 'Terms', label: 'Home: backend', keys: ['k'] },
  homeBody: { group: 'Terms', label: 'Home: description', keys: ['d'] },
  homeAnywhere: { group: 'Terms', label: 'Home: anywhere', keys: ['a'] },
  homeLater: { group: 'Terms', label: 'Save for later', keys: ['l'] },
  openAtMarket: { group: 'Terms', label: 'Open the term’s search at the marketplace', keys: ['o'] },
  filterTerms: { group: 'Terms', label: 'Filter the terms', keys: ['Shift+f'] },
  chooseColumns: { group: 'Terms', label: 'Choose the columns', keys: ['Shift+c'] },

  reason: { group: 'Dig', label: 'Say why a term is avoided', keys: ['n'] },
  searchTerm: { group: 'Dig', label: 'Search for a term', keys: ['/', 'Shift+/'] },
  filter: { group: 'Dig', label: 'Filter', keys: ['f'] },
  paste: { group: 'Dig', label: 'Add terms: type or paste them', keys: ['Shift+v'] },
  importFile: { group: 'Dig', label: 'Add terms: import a file', keys: ['i'] },
  grid: { group: 'Dig', label: 'Show as a grid', keys: ['Shift+g'] },
  scatter: { group: 'Dig', label: 'Show as a scatter plot', keys: ['s'] },
  titleQueries: { group: 'Dig', label: 'Copy exact-title searches', keys: ['q'] },
  correct: { group: 'Dig', label: 'Correct a term’s numbers', keys: ['c'] },
  deleteTerm: { group: 'Dig', label: 'Delete from the shelf', keys: ['Delete'] },
  renameTerm: { group: 'Dig', label: 'Rename the term', keys: ['F2'] },
  chooseFile: { group: 'Dig', label: 'Import: choose a file', keys: ['o'] },
  runImport: {
    group: 'Everywhere',
    label: 'Start an import; in Watch, check or add the terms in the box',
    keys: ['$mod+Enter'],
    typing: true,
  },

  pickTerms: { group: 'Pick', label: 'Type or paste terms to pick', keys: ['/', 'Shift+/'] },
  note: { group: 'Pick', label: 'Edit the note', keys: ['n'] },
  removePick: { group: 'Pick', label: 'Remove the pick', keys: ['Delete'] },
  moveUp: { group: 'Pick', label: 'Move up', keys: ['Alt+ArrowUp'] },
  moveDown: { group: 'Pick', label: 'Move down', keys: ['Alt+ArrowDown'] },
  weave: { group: 'Pick', label: 'Add the combined phrase of the selected picks', keys: ['w'] },
  variants: { group: 'Pick', label: 'Group variants', keys: ['m'] },
  expand: { group: 'Pick', label: 'Show a group’s variants', keys: ['ArrowRight'] },
  collapse: { group: 'Pick', label: 'Hide them', keys: ['ArrowLeft'] },
  facts: { group: 'Pick', label: 'Facts', keys: ['f'] },
  ideas: { group: 'Pick', label: 'Product ideas', keys: ['i'] },
  makeIdea: { group: 'Pick', label: 'Ideas: make the first one a product', keys: ['Shift+i'] },
  language: { group: 'Pick', label: 'Another language', keys: ['s'] },

  nextFinding: { group: 'Write', label: 'Next finding', keys: ['F8'], typing: true },
  previousFinding: { group: 'Write', label: 'Previous finding', keys: ['Shift+F8'], typing: true },
  applyFix: { group: 'Write', label: 'Apply the finding’s fix', keys: ['$mod+Enter'], typing: true },
  dismiss: { group: 'Write', label: 'Dismiss the finding', keys: ['$mod+Shift+Enter'], typing: true },
  addToFacts: { group: 'Write', label: 'Add the claim to the facts', keys: ['Alt+Shift+KeyA'], typing: true },
  fill: { group: 'Write', label: 'Fill the field', keys: ['Alt+Shift+KeyF'], typing: true },
  copyField: { group: 'Write', label: 'Copy the field', keys: ['Alt+Shift+KeyC'], typing: true },
  pickTermsHere: { group: 'Write', label: 'Type or paste terms to pick', keys: ['Alt+Shift+KeyT'], typing: true },
  picksPanel: { group: 'Write', label: 'Picks', keys: ['Alt+Shift+KeyP'], typing: true },
  wordsPanel: { group: 'Write', label: 'Words', keys: ['Alt+Shift+KeyW'], typing: true },
  findingsPanel: { group: 'Write', label: 'Findings', keys: ['Alt+Shift+KeyN'], typing: true },
  takesPanel: { group: 'Write', label: 'Takes', keys: ['Alt+Shift+KeyK'], typing: true },
  readPanel: { group: 'Write', label: 'Read the title', keys: ['Alt+Shift+KeyR'], typing: true },
  versionsPanel: { group: 'Write', label: 'Versions', keys: ['Alt+Shift+KeyV'], typing: true },
  pagePanel: { group: 'Write', label: 'Page', keys: ['Alt+Shift+KeyG'], typing: true },
  previewPage: { group: 'Write', label: 'A page as a visitor sees it', keys: ['Alt+Shift+KeyO'], typing: true },
  sendPanel: { group: 'Write', label: 'Publish or export', keys: ['Alt+Shift+KeyS'], typing: true },
  nextTag: { group: 'Write', label: 'In a tag: next tag', keys: ['Enter', ','] },
  moveTagBack: { group: 'Write', label: 'In a tag: move it back', keys: ['Alt+ArrowUp'] },
  moveTagOn: { group: 'Write', label: 'In a tag: move it on', keys: ['Alt+ArrowDown'] },
  splitTag: { group: 'Write', label: 'In a tag: split a long one', keys: ['Alt+Shift+KeyX'] },
  saveTake: { group: 'Write', label: 'In a title fill: save as a take', keys: ['k'] },

  fieldsView: { group: 'Weigh', label: 'Picks by field', keys: ['Shift+Digit1'] },
  rivalsView: { group: 'Weigh', label: 'Rivals', keys: ['Shift+Digit2'] },
  buyersView: { group: 'Weigh', label: 'What buyers say', keys: ['Shift+Digit3'] },
  topView: { group: 'Weigh', label: 'Top 100', keys: ['Shift+Digit4'] },
  placesView: { group: 'Weigh', label: 'Platforms', keys: ['Shift+Digit5'] },
  movesPanel: { group: 'Weigh', label: 'Moves', keys: ['m'] },
  pickPanel: { group: 'Weigh', label: 'The pick’s figures', keys: ['Shift+p'] },

  detailPanel: { group: 'Weigh', label: 'The details of the row', keys: ['Shift+d'] },
  chooseRivals: { group: 'Weigh', label: 'Rivals: choose from search results', keys: ['c'] },
  pasteRival: { group: 'Weigh', label: 'Rivals: type one in', keys: ['Shift+v'] },
  refreshRivals: { group: 'Weigh', label: 'Rivals: look them up again', keys: ['r'] },
  readRival: { group: 'Weigh', label: 'Rivals: a result’s text and terms', keys: ['Shift+r'] },
  removeRival: { group: 'Weigh', label: 'Rivals: remove', keys: ['Delete'] },
  passRival: { group: 'Weigh', label: 'Rivals: moves to pass it', keys: ['Shift+t'] },
  fetchReviews: { group: 'Weigh', label: 'Buyers: get reviews', keys: ['r'] },
  pickPhrase: { group: 'Weigh', label: 'Buyers: pick the phrase and measure it', keys: ['p'] },

  foundView: { group: 'Watch', label: 'Found', keys: ['Shift+Digit1'] },
  daysView: { group: 'Watch', label: 'By day', keys: ['Shift+Digit2'] },
  notesView: { group: 'Watch', label: 'Changes', keys: ['Shift+Digit3'] },
  rulesView: { group: 'Watch', label: 'Search rules', keys: ['Shift+Digit4'] },
  checkNow: { group: 'Watch', label: 'Check now', keys: ['c'] },
  checkOther: { group: 'Watch', label: 'Check other terms', keys: ['Shift+o'] },
  pasteFound: { group: 'Watch', label: 'Type what you found', keys: ['Shift+v'] },
  writeListed: { group: 'Watch', label: 'Open Write with the selected terms listed', keys: ['w'] },
  filterFound: { group: 'Watch', label: 'Next filter of the terms', keys: ['f'] },
  unfollow: { group: 'Watch', label: 'Stop checking the term', keys: ['Delete'] },
  addNote: { group: 'Watch', label: 'Add a change note', keys: ['n'] },
  deleteNote: { group: 'Watch', label: 'Delete the note', keys: ['Delete'] },
  nextMeasure: { group: 'Watch', label: 'By day: next measure', keys: ['m'] },
  dayBefore: { group: 'Watch', label: 'By day: one day back', keys: ['ArrowLeft'] },
  dayAfter: { group: 'Watch', label: 'By day: one day on', keys: ['ArrowRight'] },
  panBack: { group: 'Watch', label: 'By day: move the chart back', keys: ['Shift+ArrowLeft'] },
  panOn: { group: 'Watch', label: 'By day: move the chart on', keys: ['Shift+ArrowRight'] },
  zoomIn: { group: 'Watch', label: 'By day: zoom in', keys: ['+', 'Shift++', '='] },
  zoomOut: { group: 'Watch', label: 'By day: zoom out', keys: ['-'] },
  zoomAll: { group: 'Watch', label: 'By day: show all days', keys: ['0'] },
  nextPin: { group: 'Watch', label: 'By day: next change', keys: ['.'] },
  previousPin: { group: 'Watch', label: 'By day: change before', keys: [','] },
  oneDayLater: { group: 'Watch', label: 'Simulated clock: one day later', keys: ['Shift+d'] },
  oneWeekLater: { group: 'Watch', label: 'Simulated clock: one week later', keys: ['Shift+w'] },

  research: { group: 'Everywhere', label: 'Research before there is a product', keys: ['Alt+Shift+KeyB'], typing: true },
  shopWatch: { group: 'Everywhere', label: 'Go to the journal and the largest movers', keys: ['Alt+Shift+Digit8'], typing: true },
  listings: { group: 'Everywhere', label: 'Go to all listings', keys: ['Alt+Shift+Digit9'], typing: true },
  filterListings: { group: 'Listings', label: 'Filter', keys: ['f'] },
  findReplace: { group: 'Listings', label: 'Find and replace in the selected', keys: ['r'] },
  tagMany: { group: 'Listings', label: 'Add or remove a tag in the selected', keys: ['t'] },
  archive: { group: 'Listings', label: 'Archive the selected, or restore them', keys: ['a'] },
  gridOfPlatforms: { group: 'Listings', label: 'Products by platform', keys: ['g'] },

  webShop: { group: 'Everywhere', label: 'Go to the web shop', keys: ['Alt+Shift+Digit0'], typing: true },
  addPage: { group: 'Web shop', label: 'Add a page', keys: ['n'] },
  outline: { group: 'Web shop', label: 'Paste an outline', keys: ['o'] },
  moveIn: { group: 'Web shop', label: 'Move into the page above', keys: ['Shift+ArrowRight'] },
  moveOut: { group: 'Web shop', label: 'Move out one level', keys: ['Shift+ArrowLeft'] },
  inMenu: { group: 'Web shop', label: 'Show in the menu, or hide', keys: ['m'] },
  publishPage: { group: 'Web shop', label: 'Publish, or change to draft', keys: ['b'] },
  deletePage: { group: 'Web shop', label: 'Delete the page', keys: ['Delete'] },
  lockAlt: { group: 'Web shop', label: 'Alt text: lock it, or unlock', keys: ['l'] },
  fillAlt: { group: 'Web shop', label: 'Alt text: fill by a pattern', keys: ['f'] },

  savePlatform: { group: 'Platforms', label: 'Save', keys: ['$mod+s'], typing: true },
} satisfies Record<string, Shortcut>

export type ShortcutId = keyof typeof shortcuts

const of = (id: ShortcutId): Shortcut => shortcuts[id]

// Single letters and digits can be switched off, for speech input and for keyboards where they are pressed by accident.
const setting = 'single-keys'
const listeners = new Set<() => void>()
export const singleKeys = {
  on: () => localStorage.getItem(setting) !== 'off',
  set: (on: boolean) => {
    localStorage.setItem(setting, on ? 'on' : 'off')
    for (const l of listeners) l()
  },
  subscribe: (l: () => void) => {
    listeners.add(l)
    return () => listeners.delete(l)
  },
}
export const useSingleKeys = () => useSyncExternalStore(singleKeys.subscribe, singleKeys.on)
const isSingle = (key: string) => /^(Shift\+)?([a-z0-9?/,.+=-]|Digit\d)$/.test(key)

const mac = /Mac|iP(hone|ad|od)/.test(navigator.platform)
const names: Record<string, string> = {
  $mod: mac ? '⌘' : 'Ctrl',
  Alt: mac ? '⌥' : 'Alt',
  ArrowDown: '↓',
  ArrowUp: '↑',
  ArrowLeft: '←',
  ArrowRight: '→',
  PageDown: 'PgDn',
  PageUp: 'PgUp',
  Escape: 'Esc',
}

/** One way to press a shortcut, as people write it: Ctrl K. */
const written = (key: string) => {
  const parts = key.replace(/\+$/, 'plus').split('+')
  return parts
    .filter((p) => !(p === 'Shift' && parts.length === 2 && /^[^a-zA-Z]$/.test(parts[1])))
    .map((p) => (p === 'plus' ? '+' : names[p]) ?? (/^(Key|Digit)./.test(p) ? p.slice(-1) : p.length === 1 ? p.toUpperCase() : p))
    .join(' ')
}

/** The ways to press a shortcut, as people write them; those with a single key only while these are on. */
export const keysOf = (id: ShortcutId): string[] => [
  ...new Set(
    of(id)
      .keys.filter((k) => singleKeys.on() || !isSingle(k))
      .map(written),
  ),
]

/** What kind of box takes what is typed for itself. */
const takesText = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.matches('textarea, select, input:not([type=checkbox], [type=radio], [type=button], [type=submit], [type=file])'))

/** Whether the key presses what has the focus: a button, a link, a check box. */
const pressesFocused = (e: KeyboardEvent) =>
  e.target instanceof HTMLElement &&
  !e.ctrlKey &&
  !e.metaKey &&
  !e.altKey &&
  ((e.key === ' ' && e.target.closest('button, summary, [role=button], [role=option], input[type=checkbox], input[type=radio]')) ||
    (e.key === 'Enter' && e.target.closest('button, summary, a[href], [role=button], [role=option]')))

/** Whether an event presses a shortcut; for parts that handle their own keys. */
export const pressed = (e: KeyboardEvent | React.KeyboardEvent, id: ShortcutId) => {
  const native = 'nativeEvent' in e ? e.nativeEvent : e
  return of(id).keys.some((k) => matchKeyBindingPress(native, parseKeybinding(k)[0]))
}

/**
 * Runs shortcuts while the component is there. The one that comes first and takes the key keeps it from the others; those of the frame
 * around every screen come last.
 */
export function useShortcuts(
  actions: Partial<Record<ShortcutId, ((e: KeyboardEvent) => void) | false | undefined>>,
  level: 'screen' | 'frame' = 'screen',
) {
  const latest = useRef(actions)
  latest.current = actions
  const ids = Object.keys(actions).sort().join(' ')
  useEffect(() => {
    const run = (id: ShortcutId, key: string) => (e: KeyboardEvent) => {
      const action = latest.current[id]
      if (!action || e.defaultPrevented || (isSingle(key) && !singleKeys.on())) return
      if ((takesText(e.target) && !of(id).typing) || pressesFocused(e)) return
      e.preventDefault()
      action(e)
    }
    const bindings = (ids.split(' ').filter(Boolean) as ShortcutId[]).flatMap((id) =>
      of(id).keys.map((key) => [key, run(id, key)] as const),
    )
    // A key comes up to the window last.
    return tinykeys(level === 'frame' ? window : document.documentElement, Object.fromEntries(bindings))
  }, [ids, level])
}
