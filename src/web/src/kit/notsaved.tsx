import type { Draft, DraftView } from './drafts/draft'

/** Shows under a box that its text is not saved, why, and what can be done. `differs` names each part with what another window wrote. */
export function NotSaved<T>({
  draft,
  view,
  differs,
}: {
  draft: Draft<T>
  view: DraftView<T>
  differs: (theirs: T) => { what: string; theirs: string }[]
}) {
  if (view.state === 'failed' || view.state === 'refused')
    return (
      <p className="text-accent text-[13px]" role="alert">
        Not saved: {view.message}{' '}
        <button type="button" className="link" onClick={() => draft.flush()}>
          Try again
        </button>
      </p>
    )
  if (!view.theirs) return null
  return (
    <div className="text-accent text-[13px]" role="alert" data-testid="text-conflict">
      {differs(view.theirs.value).map((d) => (
        <p key={d.what}>
          Another window changed {d.what} to “{d.theirs}”.
        </p>
      ))}
      <button type="button" className="link" onClick={() => draft.keepMine()}>
        Keep this text
      </button>{' '}
      <button type="button" className="link" onClick={() => draft.takeTheirs()}>
        Use the other text
      </button>
    </div>
  )
}
