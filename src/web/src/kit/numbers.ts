/** The interface is in English: numbers and dates follow the reader's own kind of English. */
export const locale = globalThis.navigator?.language?.startsWith('en') ? navigator.language : 'en-US'

/** What stands where a number is unknown: never zero, never a bare dash. */
export const noData = 'No data'

const short = new Intl.NumberFormat(locale, {
  notation: 'compact',
  maximumFractionDigits: 1,
  maximumSignificantDigits: 3,
  roundingPriority: 'lessPrecision',
})
const grouped = new Intl.NumberFormat(locale, { maximumFractionDigits: 0 })

/** Compact for reading (48.2k); the full number goes into the title. */
export const compact = (n: number | null | undefined) =>
  n === null || n === undefined ? '–' : short.format(Math.abs(n) < 1000 ? Math.round(n) : n).replace('K', 'k')

/** The whole number, grouped. */
export const full = (n: number | null | undefined) => (n === null || n === undefined ? noData : grouped.format(n))

/** A number of things: 1 pick, 2 picks. */
export const counted = (n: number, one: string, many = `${one}s`) => `${full(n)} ${n === 1 ? one : many}`

/** A number with so many digits after the point. */
export const fixed = (n: number | null | undefined, digits: number) =>
  n === null || n === undefined
    ? noData
    : n.toLocaleString(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits, useGrouping: false })

/** A number with at most so many digits after the point. */
export const upTo = (n: number, digits: number) => n.toLocaleString(locale, { maximumFractionDigits: digits, useGrouping: false })

/** A share from 0 to 1, as a percentage. */
export const percent = (share: number | null | undefined) =>
  share === null || share === undefined ? noData : share.toLocaleString(locale, { style: 'percent' })

/** An amount in a market's currency; without cents where those say nothing. */
export const money = (n: number | null | undefined, currency: string, cents = true) =>
  n === null || n === undefined
    ? noData
    : n.toLocaleString(locale, {
        style: 'currency',
        currency,
        currencyDisplay: 'narrowSymbol',
        minimumFractionDigits: cents ? 2 : 0,
        maximumFractionDigits: cents ? 2 : 0,
      })

/** A pick's grip is 0–1 in the engine; on every screen grip is 0–100. */
export const gripOf = (grip: number | null | undefined) => (grip === null || grip === undefined ? null : grip * 100)

/** What a number of picks without data adds to a sentence. */
export const withoutData = (n: number) => (n > 0 ? ` (${full(n)} without data)` : '')

const month = new Intl.DateTimeFormat(locale, { month: 'long', timeZone: 'UTC' })
const dayAndMonth = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'long', timeZone: 'UTC' })
const shortDayAndMonth = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short' })
const shortMonthAndYear = new Intl.DateTimeFormat(locale, { month: 'short', year: 'numeric' })
const dateAlone = new Intl.DateTimeFormat(locale, { dateStyle: 'medium' })
const dateAndTime = new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'short' })
const timeAlone = new Intl.DateTimeFormat(locale, { timeStyle: 'short' })

/** The name of a month, 0 being January. */
export const monthName = (number: number) => month.format(Date.UTC(2024, number, 1))

/** A day of some year, from its ISO date. */
export const dayName = (date: string) => dayAndMonth.format(new Date(`${date.slice(0, 10)}T00:00:00Z`))

/** A day of this year as “Sep 22”, another as “Sep 2025”. */
export function shortDay(at: string) {
  const day = new Date(at.length === 10 ? `${at}T00:00:00` : at)
  return (day.getFullYear() === new Date().getFullYear() ? shortDayAndMonth : shortMonthAndYear).format(day)
}

export const dateOf = (at: string) => dateAlone.format(new Date(at))
export const dateTimeOf = (at: string) => dateAndTime.format(new Date(at))
export const timeOf = (at: string) => timeAlone.format(new Date(at))

/** Today, as a box for a date takes it. */
export const today = () => new Date().toISOString().slice(0, 10)

/** The months of a history, as year and month (0 = January). */
export function monthsFrom(from: string, count: number): { year: number; month: number }[] {
  const year = Number(from.slice(0, 4))
  const month = Number(from.slice(5, 7)) - 1
  return Array.from({ length: count }, (_, i) => ({ year: year + Math.floor((month + i) / 12), month: (month + i) % 12 }))
}
