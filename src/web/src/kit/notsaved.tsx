/** What became of one short text: another window's value with its revision, or why it was not saved; nothing where it was saved. */
export type SavedText = { theirs?: string | string[]; revision?: number; problem?: string }

/** Says under a box that its text is not saved, and why, with what can be done. */
export function NotSaved({
  saved,
  what,
  again,
  use,
}: {
  saved: SavedText
  what: string
  again: () => void
  use: (theirs: string) => void
}) {
  if (saved.problem !== undefined)
    return (
      <p className="text-accent text-[13px]" role="alert">
        Not saved: {saved.problem}{' '}
        <button type="button" className="link" onClick={again}>
          Try again
        </button>
      </p>
    )
  if (saved.theirs === undefined) return null
  const theirs = [saved.theirs].flat().join(', ')
  return (
    <p className="text-accent text-[13px]" role="alert" data-testid="text-conflict">
      Another window changed {what} to “{theirs}”.{' '}
      <button type="button" className="link" onClick={again}>
        Keep what is here
      </button>{' '}
      <button type="button" className="link" onClick={() => use(theirs)}>
        Use that
      </button>
    </p>
  )
}
