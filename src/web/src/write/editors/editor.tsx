import { Choices } from './choices'
import { Lines } from './lines'
import { OneText } from './onetext'
import { Path } from './path'
import { Phrases } from './phrases'
import type { EditorProps } from './props'
import { Rich } from './rich'

/** The editor for a field's shape. */
export function Editor(p: EditorProps) {
  switch (p.field.shape) {
    case 'phrases':
      return <Phrases {...p} />
    case 'lines':
      return <Lines {...p} />
    case 'choices':
      return <Choices {...p} />
    case 'rich':
      return <Rich {...p} />
    case 'path':
      return <Path {...p} />
    default:
      return <OneText {...p} />
  }
}
