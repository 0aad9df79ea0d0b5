import type { Field, Value } from '../../kit/api'
import type { Piece } from '../segments'

export type EditorProps = {
  field: Field
  value: Value | undefined
  weighedValue: Value | undefined
  change: (value: Value) => void
  pieces: Piece[][]
  pointed: string | undefined
  /** Ids of what describes the boxes, and whether something there is required to be fixed. */
  describedBy?: string
  invalid?: boolean
  /** Shown in an empty box: what would stand there. */
  placeholder?: string
  /** What comes after the text by itself, and the width in pixels of both. */
  width?: { pixels: number; suffix: string }
  /** For a category and attributes, which depend on each other. */
  fields?: Field[]
  category?: Value
}

export const none: never[] = []
