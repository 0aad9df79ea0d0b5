import { Num } from '../kit/num'

/** Terms with their searches/mo. */
export function TermTable({ terms }: { terms: { text: string; volume: number | null }[] }) {
  return (
    <table className="plain text-[14px]">
      <tbody>
        {terms.map((t) => (
          <tr key={t.text}>
            <td>{t.text}</td>
            <td className="r">
              <Num value={t.volume} unit="searches/mo" />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
