import type { Note } from '../kit/api'
import { dateOf } from '../kit/numbers'
import type { Column } from '../kit/table'

const views = (n: Note) => n.effects.find((e) => e.measure === 'views')

/** The columns of change notes: those of the whole shop say what they are about. */
export const noteColumns = (ofShop: boolean): Column<Note>[] => [
  { key: 'day', head: 'Day', width: '104px', value: (n) => n.at, cell: (n) => dateOf(n.at) },
  {
    key: 'text',
    head: 'Change',
    width: 'minmax(180px,1.2fr)',
    words: true,
    value: (n) => n.text,
    cell: (n) => (
      <span className="block truncate" title={n.text}>
        {n.text}
      </span>
    ),
  },
  ...(ofShop
    ? [
        {
          key: 'about',
          head: 'About',
          width: 'minmax(150px,1fr)',
          words: true,
          value: (n: Note) => n.product ?? '',
          cell: (n: Note) => (
            <span className="block truncate quiet" title={`${n.product ?? 'The whole shop'} ${n.platform ?? ''}`}>
              {n.product ?? 'The whole shop'}
              {n.platform && `, ${n.platform}`}
            </span>
          ),
        },
      ]
    : []),
  {
    key: 'effect',
    head: 'Did it help? (views)',
    width: 'minmax(250px,1.6fr)',
    value: (n) => views(n)?.difference,
    cell: (n) => (
      <span className="block truncate" title={views(n)?.says}>
        {views(n)?.verdict === 'up' && (
          <b aria-hidden="true" className="mr-1">
            ▲
          </b>
        )}
        {views(n)?.verdict === 'down' && (
          <b aria-hidden="true" className="mr-1">
            ▼
          </b>
        )}
        {views(n)?.says ?? ''}
      </span>
    ),
  },
]
