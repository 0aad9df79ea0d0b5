/** The result of saving one short text: another window's value with its revision, or why it was not saved; empty where it was saved. */
export type SavedText = { theirs?: string | string[]; revision?: number; problem?: string }

/** Shows under a box that its text is not saved, why, and what can be done. */
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
        Keep this text
      </button>{' '}
      <button type="button" className="link" onClick={() => use(theirs)}>
        Use the other text
      </button>
    </p>
  )
}
