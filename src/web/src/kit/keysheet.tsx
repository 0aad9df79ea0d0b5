import { Dialog } from './dialog'
import { groups, keysOf, type ShortcutId, shortcuts, singleKeys, useSingleKeys } from './shortcuts'
import { Legend } from './thread'

/** Every shortcut, by screen. */
export function ShortcutList() {
  const on = useSingleKeys()
  return (
    <>
      <label className="flex gap-2 items-center text-[14px] mb-3 cursor-pointer w-fit">
        <input type="checkbox" className="checkbox checkbox-sm" checked={on} onChange={(e) => singleKeys.set(e.target.checked)} />
        Use single-letter shortcuts
      </label>
      <div className="columns-1 md:columns-2 lg:columns-3 gap-7">
        {groups.map((group) => (
          <section key={group} className="break-inside-avoid mb-4">
            <h3 className="sub !mt-0">{group}</h3>
            <table className="plain">
              <tbody>
                {(Object.keys(shortcuts) as ShortcutId[])
                  .filter((id) => shortcuts[id].group === group && keysOf(id).length > 0)
                  .map((id) => (
                    <tr key={id}>
                      <td className="w-28 whitespace-nowrap !pr-3">
                        {keysOf(id).map((key, i) => (
                          <span key={key}>
                            {i > 0 && ' or '}
                            <kbd>{key}</kbd>
                          </span>
                        ))}
                      </td>
                      <td>{shortcuts[id].label}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </section>
        ))}
      </div>
    </>
  )
}

export function KeySheet({ close }: { close: () => void }) {
  return (
    <Dialog name="Keyboard shortcuts" close={close} width={1120}>
      <h2 className="text-[20px] font-bold mb-3">Keyboard shortcuts</h2>
      <ShortcutList />
      <h3 className="sub">Threads: how firmly the listing holds a term</h3>
      <Legend />
    </Dialog>
  )
}
