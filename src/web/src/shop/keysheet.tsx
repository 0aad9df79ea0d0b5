import { Legend } from '../kit/thread'
import { Dialog } from './dialog'

const sheets: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Alt 1 – 4', 'Dig, Pick, Write, Weigh'],
      ['Ctrl K', 'Find anything: a product, a pick, a place, a term to dig'],
      ['U or Ctrl Z', 'Undo the last change to the picks'],
      ['?', 'This sheet'],
    ],
  ],
  [
    'Tables',
    [
      ['↑ ↓ PgUp PgDn', 'Walk'],
      ['Space', 'Mark; Shift ↑ ↓ marks as it walks, Ctrl A all'],
      ['P', 'Pick, or drop again'],
      ['X', 'Avoid, or stop avoiding; N says why'],
      ['Enter', 'Dig: look this term up'],
    ],
  ],
  [
    'Dig',
    [
      ['/', 'Type a head term'],
      ['F', 'Filter'],
      ['V', 'Paste a column of terms'],
      ['I', 'Import a CSV or XLSX file'],
      ['G S', 'As a grid; as a scatter'],
      ['C', 'Correct a term’s numbers'],
      ['Q', 'Copy exact-phrase title queries'],
      ['Esc', 'Stop what is being looked up; unmark'],
    ],
  ],
  [
    'Pick',
    [
      ['1 2 3', 'Fit: core, good, stretch'],
      ['T G B K D', 'Home: title, tags, bullets, backend, description'],
      ['A', 'Home: anywhere'],
      ['L', 'Keep for later'],
      ['E', 'Make it the lead of this listing'],
      ['N', 'Note'],
      ['Alt ↑ ↓', 'Move up or down'],
      ['W', 'One phrase that holds two to six marked picks'],
      ['O', 'Families as one row; → opens one, ← closes it'],
      ['F I S', 'Facts, ideas for products, a second language'],
      ['Delete', 'Drop'],
    ],
  ],
  [
    'Write',
    [
      ['Tab', 'Next field'],
      ['Enter in a tag', 'Next tag; Alt ← → moves it, Alt S splits a long one'],
      ['Alt F', 'A fill for the field one is in; Enter takes it'],
      ['Alt N', 'The next finding; Alt Enter fixes, Alt A puts aside'],
      ['Alt P T R V M', 'Picks, takes, the title read, versions, send'],
      ['Alt C', 'Copy the field one is in'],
      ['Ctrl Z', 'Undo what was typed'],
    ],
  ],
]

export function KeySheet({ close }: { close: () => void }) {
  return (
    <Dialog name="Keys" close={close} width={1120}>
      <h2 className="text-[20px] font-bold mb-3">Keys</h2>
      <div className="columns-3 gap-7">
        {sheets.map(([name, keys]) => (
          <section key={name} className="break-inside-avoid mb-4">
            <div className="sub !mt-0">{name}</div>
            <table className="plain">
              <tbody>
                {keys.map(([key, what]) => (
                  <tr key={key}>
                    <td className="w-24 whitespace-nowrap">
                      <kbd>{key}</kbd>
                    </td>
                    <td>{what}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </div>
      <div className="sub">Thread: how firmly the listing holds a term</div>
      <Legend />
      <p className="mt-4 text-right">
        <button type="button" className="btn btn-sm" onClick={close}>
          Close <kbd>Esc</kbd>
        </button>
      </p>
    </Dialog>
  )
}
