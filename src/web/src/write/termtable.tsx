import { compact, full } from '../kit/numbers'

/** Terms with their searches a month, and a word on each where there is one. */
export function TermTable({ terms }: { terms: { text: string; volume: number | null; about?: string }[] }) {
  return (
    <table className="plain text-[14px]">
      <tbody>
        {terms.map((t) => (
          <tr key={t.text}>
            <td>{t.text}</td>
            {t.about !== undefined && <td className="quiet">{t.about}</td>}
            <td className="r num" title={full(t.volume)}>
              {compact(t.volume)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
