import { Num } from '../kit/num'

/** Terms with their searches/mo, and a remark on each where there is one. */
export function TermTable({ terms }: { terms: { text: string; volume: number | null; about?: string }[] }) {
  return (
    <table className="plain text-[14px]">
      <tbody>
        {terms.map((t) => (
          <tr key={t.text}>
            <td>{t.text}</td>
            {t.about !== undefined && <td className="quiet">{t.about}</td>}
            <td className="r">
              <Num value={t.volume} unit="searches/mo" />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
