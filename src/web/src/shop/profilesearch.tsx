import { Words } from './profileinputs'
import { capitals, folds, number, shares, switches, thresholds } from './profilerules'
import type { ProfileDraft } from './useprofile'

/** How a platform's search reads a listing, and where its checks begin. */
export function ProfileSearch({ draft, usual }: { draft: ProfileDraft; usual: Record<string, number> }) {
  const { profile, change } = draft
  const search = profile.search ?? {}
  return (
    <div className="grid grid-cols-2 gap-x-8">
      <div>
        <h3 className="text-[15px] font-semibold mt-4 mb-1">Search treats as equal</h3>
        {(Object.entries(folds) as [keyof typeof folds, string][]).map(([key, name]) => (
          <label key={key} className="flex gap-2 items-center text-[14px] cursor-pointer">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={search.folds?.includes(key) ?? false}
              onChange={(e) =>
                change({
                  search: {
                    ...search,
                    folds: e.target.checked ? [...(search.folds ?? []), key] : search.folds?.filter((x) => x !== key),
                  },
                })
              }
            />
            {name}
          </label>
        ))}
        <label className="flex gap-2 items-center text-[14px] cursor-pointer mt-1">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={search.wordsCombine ?? false}
            onChange={(e) => change({ search: { ...search, wordsCombine: e.target.checked } })}
          />
          The words of a search may be in different fields
        </label>
        <label className="flex gap-2 items-baseline text-[14px] mt-1">
          Search updates after
          <input
            className="inline-input w-12 num"
            inputMode="numeric"
            aria-label="Search updates after (hours)"
            value={search.indexDelayHours ?? 0}
            onChange={(e) => change({ search: { ...search, indexDelayHours: number(e.target.value) ?? 0 } })}
          />
          hours
        </label>
        <Words name="Ignored words" values={search.ignoredWords ?? []} change={(w) => change({ search: { ...search, ignoredWords: w } })} />
        <Words name="Banned phrases" values={profile.banned ?? []} change={(banned) => change({ banned })} />
      </div>
      <div>
        <label className="flex gap-2 items-baseline text-[14px] mt-4">
          Suggested titles have capitals:
          <select
            className="select select-sm w-56"
            aria-label="Suggested titles have capitals"
            value={profile.capitals ?? 'sentence'}
            onChange={(e) => change({ capitals: e.target.value as keyof typeof capitals })}
          >
            {Object.entries(capitals).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <h3 className="text-[15px] font-semibold mt-4 mb-1">Check settings</h3>
        <table className="plain text-[13.5px]">
          <tbody>
            {Object.entries(usual).map(([key, value]) => (
              <tr key={key}>
                <td>{thresholds[key] ?? key}</td>
                <td className="r">
                  <CheckSetting
                    name={key}
                    usual={value}
                    own={profile.checks?.[key] ?? null}
                    put={(own) => {
                      const { [key]: _, ...others } = profile.checks ?? {}
                      change({ checks: own === null ? others : { ...others, [key]: own } })
                    }}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  )
}

/** One setting of the checks: on or off, a part in percent, or a number. Left empty, it is as usual. */
function CheckSetting(p: { name: string; usual: number; own: number | null; put: (own: number | null) => void }) {
  const label = thresholds[p.name] ?? p.name
  if (switches.includes(p.name))
    return (
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        aria-label={label}
        checked={(p.own ?? p.usual) > 0}
        onChange={(e) => p.put(e.target.checked ? 1 : 0)}
      />
    )
  const by = shares.includes(p.name) ? 100 : 1
  const shown = (n: number) => String(Math.round(n * by * 1000) / 1000)
  return (
    <span className="whitespace-nowrap">
      <input
        className="inline-input w-14 num text-right"
        inputMode="decimal"
        aria-label={label}
        placeholder={shown(p.usual)}
        defaultValue={p.own === null ? '' : shown(p.own)}
        onChange={(e) => {
          const own = number(e.target.value)
          p.put(own === null ? null : own / by)
        }}
      />
      {by === 100 && ' %'}
    </span>
  )
}
