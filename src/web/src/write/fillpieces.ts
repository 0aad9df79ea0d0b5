import type { Field, Fill, Value } from '../kit/api'

/** The value with only these pieces of what would be added. */
export function withPieces(field: Field, fill: Fill, chosen: boolean[]): Value {
  const kept = fill.pieces.filter((_, i) => chosen[i])
  if (field.shape === 'phrases') {
    const left = [...fill.pieces].filter((_, i) => !chosen[i])
    return (fill.value as string[]).filter((v) => {
      const at = left.indexOf(v)
      if (at >= 0) left.splice(at, 1)
      return at < 0
    })
  }
  // Separate words are added at the end of one text: the field's, or that of one item.
  const between = field.shape === 'words' ? ' ' : field.shape === 'line' ? field.separator : ', '
  const added = fill.pieces.join(between)
  const shorten = (text: string) => {
    const before = text.slice(0, text.length - added.length)
    return kept.length > 0 ? before + kept.join(between) : before.replace(/[,\s]+$/, '')
  }
  return Array.isArray(fill.value)
    ? (fill.value as string[]).map((t) => (t.endsWith(added) ? shorten(t) : t)).filter(Boolean)
    : shorten(fill.value as string)
}
