import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { api, ask } from './api'
import { counted, full } from './numbers'
import { queryKey, refresh } from './queries'

const whileRunning = 1000
const whileIdle = 20_000
const shownAtOnce = 1000

/** How far terms without numbers are measured in the background, with a way to stop, and what is left of the source's lookups today. */
export function Measuring() {
  const cache = useQueryClient()
  const query = useQuery({
    queryKey: queryKey('measuring'),
    queryFn: () => ask(api.GET('/api/measuring')),
    refetchInterval: (q) => (q.state.data?.isRunning ? whileRunning : whileIdle),
  })
  const data = query.data
  // What was measured shows when all is done, and in a long run from time to time.
  const measured = data && (data.isRunning ? data.measured - (data.measured % shownAtOnce) : data.measured)
  const shown = useRef(measured)
  useEffect(() => {
    if (shown.current !== undefined && shown.current !== measured) refresh(cache, 'measured')
    shown.current = measured
  }, [cache, measured])
  if (!data) return null
  const change = async (to: 'stop' | 'resume') => {
    await ask(to === 'stop' ? api.POST('/api/measuring/stop') : api.POST('/api/measuring/resume'))
    await query.refetch()
  }
  const waiting = data.all - data.done
  const isWorking = data.isRunning && waiting > 0
  if (waiting === 0 && data.left === null && !data.isStopped && !data.problem) return null
  return (
    <p className="flex flex-wrap gap-x-2 items-center text-[13px] quiet" role="status" data-testid="measuring">
      {isWorking && (
        <>
          <progress className="progress progress-primary w-24 h-1.5" value={data.done} max={data.all} aria-label="Terms looked up" />
          Looking up {counted(data.all, 'term')} without numbers
          <button type="button" className="link" onClick={() => change('stop')}>
            Stop
          </button>
        </>
      )}
      {data.isStopped && (
        <>
          Terms without numbers are not looked up
          <button type="button" className="link" onClick={() => change('resume')}>
            Resume
          </button>
        </>
      )}
      {data.problem}
      {!isWorking &&
        !data.isStopped &&
        !data.problem &&
        waiting > 0 &&
        `${counted(waiting, 'term')} without numbers ${waiting === 1 ? 'waits' : 'wait'} until tomorrow.`}
      {data.left !== null && data.perDay !== null && (
        <span title="How many terms a day your source of numbers answers. Half of them are left for your own searches.">
          {full(data.left)} of {full(data.perDay)} lookups left today
        </span>
      )}
    </p>
  )
}
