// Changes go to the server in the order they were made, one at a time, however fast the keys are.
let last: Promise<unknown> = Promise.resolve()

/** Runs a change after those that were made before it. */
export function inTurn<T>(change: () => Promise<T>): Promise<T> {
  const next = last.then(change, change)
  last = next
  return next
}

// A browser has few connections to a server: questions in the background leave most of them to what the seller does.
const MostAtOnce = 2
const waiting: (() => void)[] = []
let running = 0

/** Asks in the background, a few questions at a time; the others wait for their turn. */
export async function inBackground<T>(ask: () => Promise<T>): Promise<T> {
  if (running >= MostAtOnce) await new Promise<void>((start) => waiting.push(start))
  else running++
  try {
    return await ask()
  } finally {
    // Its place goes to the next one, or is free.
    const next = waiting.shift()
    if (next) next()
    else running--
  }
}
