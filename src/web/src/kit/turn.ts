// Changes go to the server in the order they were made, one at a time, however fast the keys are.
let last: Promise<unknown> = Promise.resolve()

/** Runs a change after those that were made before it. */
export function inTurn<T>(change: () => Promise<T>): Promise<T> {
  const next = last.then(change, change)
  last = next
  return next
}
