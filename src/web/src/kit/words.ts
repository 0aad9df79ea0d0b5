import { useEffect, useState } from 'react'

/** The first letter large. */
export const capital = (text: string) => text && text[0].toUpperCase() + text.slice(1)

/** Words one after the other, with “and” before the last. */
export const listed = (words: readonly string[]) => new Intl.ListFormat('en').format(words)

/** The words of a text, as the engine cuts them: letters, marks and digits; an apostrophe between letters, a point between digits, stays. */
export const wordsOf = (text: string): string[] =>
  text
    .normalize('NFKC')
    .replace(/[’ʼ‘]/g, "'")
    .toLowerCase()
    .match(/[\p{L}\p{M}\p{Nd}]+(?:(?:(?<=\p{L})'(?=\p{L})|(?<=\p{Nd})[.,](?=\p{Nd}))[\p{L}\p{M}\p{Nd}]+)*/gu) ?? []

/** The terms of a text that names several, split by commas, semicolons, tabs or lines; a comma between digits belongs to a number. */
export const termsIn = (text: string) => [
  ...new Map(
    text
      .split(/[;|\t\n\r]|,(?!\d)|(?<!\d),/)
      .map((t) => t.trim())
      .filter((t) => keyOf(t) !== '')
      .map((t) => [keyOf(t), t]),
  ).values(),
]

/** What tells terms apart: their words. */
export const keyOf = (text: string) => wordsOf(text).join(' ')

/** A text without accents and other marks: "pajaros" for "pájaros". */
export const withoutMarks = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .normalize('NFC')

/** The exact-phrase title query to check a term elsewhere, as text. */
export const titleQuery = (key: string) => `intitle:"${key}"`

/** A text once it has stood still for a moment: what is asked for it is not asked for each row that is passed. */
export function useSettled<T>(text: T, wait = 120): T {
  const [settled, setSettled] = useState(text)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), wait)
    return () => clearTimeout(timer)
  }, [text, wait])
  return settled
}
