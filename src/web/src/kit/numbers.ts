/** Compact for reading (48.2k); the full number goes into the title. Unknown is an en dash, never zero. */
export function compact(n: number | null | undefined): string {
  if (n === null || n === undefined) return '–'
  if (n < 1000) return String(Math.round(n))
  const [value, letter] = n < 999_500 ? [n / 1000, 'k'] : [n / 1e6, 'M']
  return `${value < 99.95 ? value.toFixed(1).replace(/\.0$/, '') : Math.round(value)}${letter}`
}

const grouped = new Intl.NumberFormat('en-US')
export const full = (n: number | null | undefined) => (n === null || n === undefined ? 'unknown' : grouped.format(n))

/** So many of something: 1 pick, 2 picks. */
export const counted = (n: number, what: string) => `${full(n)} ${what}${n === 1 ? '' : 's'}`

export const fixed = (n: number | null | undefined, digits: number) => (n === null || n === undefined ? '–' : n.toFixed(digits))

const monthNames = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]
export const monthName = (month: number) => monthNames[month]

/** The months of a history, as year and month (0 = January). */
export function monthsFrom(from: string, count: number): { year: number; month: number }[] {
  const year = Number(from.slice(0, 4))
  const month = Number(from.slice(5, 7)) - 1
  return Array.from({ length: count }, (_, i) => ({ year: year + Math.floor((month + i) / 12), month: (month + i) % 12 }))
}
