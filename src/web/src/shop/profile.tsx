import type { PlatformView, Profile } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { Key } from '../kit/key'
import { counted } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import { LanguageSelect, SpellingSelect } from './countries'
import { ProfileFields } from './profilefields'
import { labelOf } from './profilerules'
import { ProfileSearch } from './profilesearch'
import { useProfile } from './useprofile'

/** One platform's rules, each to be edited; what is wrong, and which listings would no longer fit, shows while one types. */
export function ProfileSheet({
  view,
  usual,
  again,
}: {
  view: PlatformView
  usual: Record<string, number>
  /** Begins anew with what is saved. */
  again: () => void
}) {
  const draft = useProfile(view)
  const { profile, changed, text, general, unfit, change, save } = draft
  const { theirs, state, message } = draft.state
  const discard = () => {
    draft.draft.discard()
    again()
  }
  useShortcuts({ savePlatform: () => changed && save() })
  const fresh = unfit.filter((u) => u.before)
  return (
    <section className="sheet" data-testid="profile">
      <div className="flex flex-wrap gap-x-4 gap-y-1 items-baseline mb-2">
        <input
          className="head text-[24px] font-bold bg-transparent outline-none border-b-2 border-transparent focus:border-(--color-secondary) field-sizing-content min-w-40"
          aria-label="Name"
          value={profile.name}
          onChange={(e) => change({ name: e.target.value })}
        />
        <span className="quiet text-[13px] num">{profile.id}</span>
        <span className="ml-auto flex gap-3 items-baseline text-[13.5px]">
          <button type="button" className="link disabled:opacity-50" disabled={!changed} onClick={discard}>
            Discard changes
          </button>
          <button type="button" className="link" onClick={draft.toggleJson}>
            {text === null ? 'Edit as JSON' : 'Edit as a form'}
          </button>
          <a className="link" href={`/api/platforms/${view.id}/profile.json`}>
            Export JSON
          </a>
          <button type="button" className="btn btn-sm btn-primary" disabled={!changed} onClick={() => save()}>
            Save <Key of="savePlatform" plain />
          </button>
        </span>
      </div>
      {theirs && (
        <ConflictBox
          what={`The platform ${view.name}`}
          savedAt={null}
          rows={(Object.keys({ ...profile, ...theirs.value }) as (keyof Profile)[]).map((key) => ({
            label: key,
            mine: JSON.stringify(profile[key] ?? null),
            theirs: JSON.stringify(theirs.value[key] ?? null),
          }))}
          keepMine={() => draft.draft.keepMine()}
          takeTheirs={() => {
            draft.draft.takeTheirs()
            again()
          }}
        />
      )}
      {(state === 'failed' || state === 'refused') && (
        <p className="text-accent text-[13.5px] mb-2" role="alert">
          Not saved: {message} Your changes are kept in this browser.{' '}
          <button type="button" className="link" onClick={() => draft.draft.flush()}>
            Try again
          </button>
        </p>
      )}
      {general.length > 0 && (
        <div className="text-accent text-[13.5px] mb-2" role="alert" data-testid="problems">
          {general.map(([path, messages]) => (
            <p key={path}>
              <b>{labelOf(path, profile.fields ?? [])}</b>: {messages.join(' ')}
            </p>
          ))}
        </div>
      )}
      {unfit.length > 0 && (
        <div className="text-[13.5px] mb-2" data-testid="unfit">
          <b>
            {fresh.length > 0
              ? `${counted(fresh.length, 'listing')} would no longer fit these rules:`
              : 'Listings that don’t fit these rules, and didn’t before:'}
          </b>
          {unfit.map((u) => (
            <p key={u.listingId} className={u.before ? 'text-accent' : 'quiet'}>
              {u.product}: {u.why.join('; ')}
            </p>
          ))}
        </div>
      )}
      {text !== null ? (
        <textarea
          className="w-full h-[60vh] num text-[12.5px] bg-transparent border border-(--tin-2) rounded p-2"
          aria-label="Platform as JSON"
          spellCheck={false}
          value={text}
          onChange={(e) => draft.edit(e.target.value)}
        />
      ) : (
        <>
          <textarea
            className="inline-input w-full text-[14px] field-sizing-content"
            aria-label="About"
            placeholder="What is special about this platform"
            value={profile.about ?? ''}
            onChange={(e) => change({ about: e.target.value })}
          />
          <label className="block text-[14px] my-2">
            Address of its search, with {'{term}'} where the search goes{' '}
            <input
              className="inline-input w-full"
              placeholder="https://market.example/search?q={term}"
              aria-label="Address of its search"
              value={profile.searchAddress ?? ''}
              onChange={(e) => change({ searchAddress: e.target.value || null })}
            />
          </label>
          <div className="grid grid-cols-2 gap-4 my-1 max-w-xl">
            <LanguageSelect
              name="Language of the listings"
              value={profile.language ?? 'en'}
              change={(language) => change({ language, spelling: null })}
            />
            <SpellingSelect
              language={profile.language ?? 'en'}
              value={profile.spelling ?? null}
              change={(spelling) => change({ spelling })}
            />
          </div>
          <ProfileFields draft={draft} />
          <ProfileSearch draft={draft} usual={usual} />
        </>
      )}
    </section>
  )
}
