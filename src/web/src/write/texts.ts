import type { Copy, Field, Value } from '../kit/api'
import { wordsOf } from '../kit/words'

/** A field's value as one text; empty for a value of another shape. */
export const asText = (value: Value | undefined) => (typeof value === 'string' ? value : Array.isArray(value) ? value.join(' ') : '')

/** As a list; one text is a list of one. */
export const asList = (value: Value | undefined) => (Array.isArray(value) ? value : typeof value === 'string' && value ? [value] : [])

/** As names with their values; several values of one name have semicolons between them. */
export const asNamed = (value: Value | undefined): [string, string][] =>
  value && typeof value === 'object' && !Array.isArray(value)
    ? Object.entries(value).map(([k, v]) => [k, Array.isArray(v) ? v.join('; ') : v])
    : []

/** The values of an attribute as one types them: several where a semicolon stands between two of them. */
export const valuesIn = (text: string): string | string[] => {
  const values = text.split(';').map((v) => v.trim())
  return values.length > 1 && values.every(Boolean) ? values : text
}

/** Room used, as the platform counts it: Unicode scalar values, bytes of UTF-8, or words. */
export const measure = (text: string, unit: Field['unit']) =>
  unit === 'bytes' ? new TextEncoder().encode(text).length : unit === 'words' ? wordsOf(text).length : [...text].length

/** A bag of words without those that stand in it a second time: once a word is finished, its first place stays. */
export function withoutSeconds(text: string) {
  const seen = new Set<string>()
  const kept = text.split(' ').filter((w) => {
    const key = w.normalize('NFKC').toLowerCase()
    return key === '' || (!seen.has(key) && seen.add(key))
  })
  return kept.join(' ')
}

/** Where a phrase too long for its slot is cut in two: at the last word that fits. */
export function cutOf(text: string, max: number, unit: Field['unit']): [string, string] | null {
  const words = text.trim().split(/\s+/)
  for (let i = words.length - 1; i > 0; i--) {
    const first = words.slice(0, i).join(' ')
    if (measure(first, unit) <= max) return [first, words.slice(i).join(' ')]
  }
  return null
}

/** What a field holds as it is copied out. */
export function oneText(field: Field, value: Value | undefined): string {
  if (value === undefined) return ''
  if (typeof value === 'string') return field.shape === 'words' ? value.trim().replace(/\s+/g, ' ') : value
  if (Array.isArray(value)) return value.filter((v) => v.trim()).join(field.separator)
  return Object.entries(value)
    .map(([k, v]) => `${k}: ${Array.isArray(v) ? v.join(' / ') : v}`)
    .join(field.separator)
}

/** All fields, each under its name. */
export const allText = (fields: Field[], copy: Copy) => fields.map((f) => `${f.label}\n${oneText(f, copy[f.key])}`).join('\n\n')
