import type { Watch } from '../kit/api'
import { Key } from '../kit/key'
import { dateOf, timeOf } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import { useClock } from './usewatch'

/** The clock of the simulated market, and how to move it on. */
export function Clock({ watch }: { watch: Watch }) {
  const { moving, move, stop } = useClock()
  useShortcuts({ oneDayLater: () => move(1), oneWeekLater: () => move(7) })
  return (
    <span
      className="ml-auto flex flex-wrap items-center gap-2 text-[13.5px] pb-1"
      role="group"
      aria-label="Simulated clock"
      data-testid="clock"
    >
      <span className="quiet" title="The market is simulated, and so is its time. Listings, ranks and figures of your shop follow it.">
        Simulated time: {dateOf(watch.now)}, {timeOf(watch.now)}
      </span>
      {moving ? (
        <span role="status">
          Day {moving.day} of {moving.of}…{' '}
          <button type="button" className="link" onClick={stop}>
            Stop
          </button>
        </span>
      ) : (
        <>
          <button type="button" className="pill" onClick={() => move(1)}>
            One day later <Key of="oneDayLater" />
          </button>
          <button type="button" className="pill" onClick={() => move(7)}>
            One week later <Key of="oneWeekLater" />
          </button>
        </>
      )}
    </span>
  )
}
