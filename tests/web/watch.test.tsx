import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, test } from 'vitest'
import type { Effect, FoundTerm, Note, Rules, Watch } from '../../src/web/src/kit/api'
import type { Desk } from '../../src/web/src/kit/shop'
import { ToastLine } from '../../src/web/src/kit/toast'
import { viewIn } from '../../src/web/src/kit/views'
import { EffectPart } from '../../src/web/src/watch/effect'
import { FoundView } from '../../src/web/src/watch/found'
import { FoundDetail } from '../../src/web/src/watch/founddetail'
import { measureName, signed } from '../../src/web/src/watch/names'
import { NoteDialog } from '../../src/web/src/watch/notedialog'
import { PasteFound } from '../../src/web/src/watch/pastefound'
import { RulesView } from '../../src/web/src/watch/rules'
import { useClock } from '../../src/web/src/watch/usewatch'
import { views } from '../../src/web/src/watch/views'
import { show, text } from './screen'
import { type Asked, json, serve } from './server'

const desk = {
  product: { id: 1, name: 'Feeder', listings: {} },
  market: { id: 'fair-us', platformId: 'fair', platformName: 'The fair', simulated: true, currency: 'USD' },
  listingId: 7,
  base: '/1/fair-us',
} as unknown as Desk

const watch = (more: Partial<Watch> = {}): Watch => ({
  now: '2026-11-26T10:00:00Z',
  canMoveClock: true,
  isConnected: true,
  sentAt: '2026-11-01T10:00:00Z',
  indexUpdatesAt: null,
  hasChanged: false,
  checksDaily: true,
  pageSize: 48,
  nights: false,
  ...more,
})

const term = (id: number, name: string, more: Partial<FoundTerm> = {}): FoundTerm => ({
  id,
  key: name,
  text: name,
  volume: 100 - id,
  isPick: false,
  at: '2026-11-26T06:00:00Z',
  found: true,
  rank: 10,
  page: 1,
  results: 500,
  before: null,
  flip: 'none',
  predicted: true,
  isComparable: true,
  isUnexpected: false,
  why: null,
  because: [],
  near: [],
  isInDraft: true,
  ...more,
})

let asked: Asked[]
let answers: Record<string, (asked: Asked) => unknown>

beforeEach(() => {
  asked = []
  answers = {}
  serve(async (a) => {
    asked.push(a)
    const how = Object.entries(answers).find(([path]) => a.url.endsWith(path))?.[1]
    const body = await how?.(a)
    return body instanceof Response ? body : how ? json(body) : new Response(null, { status: 404 })
  })
})

const found = (terms: FoundTerm[], checks: unknown[] = []) => ({ terms, checks })
const rows = () => [...document.querySelectorAll('[role=row][data-id]')].map((r) => text(r))

describe('what is found', () => {
  const terms = [
    term(1, 'bird house', {
      found: false,
      rank: null,
      page: null,
      flip: 'disappeared',
      before: { at: '', found: true, rank: 3 },
      why: 'wordMissing',
      because: ['house'],
    }),
    term(2, 'nest box', { rank: 60, page: 2, before: { at: '', found: true, rank: 70 } }),
    term(3, 'wren box', { found: null, rank: null, page: null, at: null }),
    term(4, 'bird houses', { isUnexpected: true }),
  ]

  test('counts, filters and tells what flipped', async () => {
    answers['/checks'] = () =>
      found(terms, [{ id: 1, at: '2026-11-26T06:00:00Z', source: 'Sample data', state: 'finished', done: 4, all: 4 }])
    const { hands } = show(<FoundView desk={desk} watch={watch()} head={null} save={() => {}} />)
    await waitFor(() => expect(rows().length).toBe(4))
    expect(text(screen.getByTestId('found-of'))).toContain('Found for 2 of 3 terms, 1 on the first page')
    expect(text(screen.getByTestId('found-state'))).toContain('0 terms found again or newly, 1 no longer found')
    expect(rows()[0]).toContain('No longer')
    expect(rows()[1]).toContain('▲up 10')
    await hands.click(screen.getByText('Not found (1)'))
    await waitFor(() => expect(rows()).toHaveLength(1))
    await hands.keyboard('f')
    await waitFor(() => expect(rows()[0]).toContain('bird house'))
    await hands.keyboard('f')
    await waitFor(() => expect(rows()[0]).toContain('Unexpected'))
  })

  test('a check is begun by key and followed to its end', async () => {
    let state = 'running'
    answers['/checks'] = (a) => (a.method === 'POST' ? { id: 5, state: 'running', done: 0, all: 4 } : found(terms))
    answers['/checks/5'] = () => ({ id: 5, state, done: state === 'running' ? 2 : 4, all: 4 })
    const { hands } = show(<FoundView desk={desk} watch={watch()} head={null} save={() => {}} />)
    await waitFor(() => expect(rows().length).toBe(4))
    await hands.keyboard('c')
    await waitFor(() => expect(text(screen.getByTestId('checking'))).toContain('Checking 2 of 4'))
    state = 'finished'
    await waitFor(() => expect(screen.queryByTestId('checking')).toBeNull())
    expect(asked.filter((a) => a.method === 'POST' && a.url.endsWith('/checks')).map((a) => a.body)).toEqual([
      { marketId: 'fair-us', terms: null },
    ])
  })

  test('a market that does not know the listing is not asked', async () => {
    answers['/checks'] = () => found([])
    const { hands } = show(<FoundView desk={desk} watch={watch({ sentAt: null })} head={null} save={() => {}} />)
    await screen.findByText('Not sent to this market yet')
    await hands.keyboard('c')
    expect(screen.getByText('Check now').closest('button')?.disabled).toBe(true)
    expect(asked.some((a) => a.method === 'POST' && a.url.endsWith('/checks'))).toBe(false)
  })

  test('a stopped check offers to go on', async () => {
    answers['/checks'] = () =>
      found(terms, [{ id: 9, at: '2026-11-26T06:00:00Z', source: 'Sample data', state: 'stopped', done: 2, all: 4, problem: null }])
    answers['/checks/9/resume'] = () => ({ id: 9, state: 'finished', done: 4, all: 4 })
    const { hands } = show(<FoundView desk={desk} watch={watch()} head={null} save={() => {}} />)
    await screen.findByText('Resume')
    expect(text(screen.getByRole('status'))).toContain('Stopped at 2 of 4.')
    await hands.click(screen.getByText('Resume'))
    await waitFor(() => expect(asked.some((a) => a.url.endsWith('/9/resume'))).toBe(true))
  })

  const why = (t: FoundTerm, w = watch()) =>
    text(
      show(<FoundDetail desk={desk} watch={w} term={t} checks={[]} save={() => {}} remove={() => {}} />).root.querySelector(
        '[data-testid=why]',
      ),
    )

  test('why: a missing word with its near form, the index, the rules', () => {
    const missing = term(1, 'bird houses', { found: false, rank: null, why: 'wordMissing', because: ['houses'], isInDraft: false })
    expect(why({ ...missing, near: [{ needs: 'houses', has: 'house', fold: 'plural' }] })).toContain(
      'Missing: houses.Has house, needs houses.',
    )
    expect(why({ ...missing, isInDraft: true })).toContain('Your text now holds it. Send the listing')
    expect(why({ ...missing, why: 'indexDelay' }, watch({ indexUpdatesAt: '2026-11-26T14:00:00Z' }))).toContain('until ')
    expect(why({ ...missing, why: 'rulesDiffer' })).toContain('Every word is there, so the rules of The fair may differ')
    expect(why(term(2, 'nest box', { isUnexpected: true }))).toContain('doesn’t predict this')
  })

  test('what somebody found is pasted line by line', async () => {
    const added: [Blob, string][] = []
    let problem: string | null = 'Row 1: “12th” isn’t a rank.'
    let closed = 0
    const add = async (file: Blob, name: string) => {
      added.push([file, name])
      return problem
    }
    const dialog = (key: string) => <PasteFound key={key} listingId={7} add={add} close={() => closed++} />
    const { hands, again } = show(dialog('first'))
    const box = () => screen.getByLabelText<HTMLTextAreaElement>('Terms and what you found')
    await hands.click(screen.getByText('Add check'))
    expect(text(screen.getByRole('alert'))).toBe('There is no term in your list.')
    await hands.type(box(), 'bird house, 12{Enter}nest box, small, no')
    await hands.click(screen.getByText('Add check'))
    expect(await added[0][0].text()).toBe('bird house\t12\nnest box, small\tno')

    // What was refused stays, also for the next time the dialog is opened; what was taken is gone.
    expect(text(screen.getByRole('alert'))).toBe(problem)
    again(dialog('second'))
    expect([box().value, closed]).toEqual(['bird house, 12\nnest box, small, no', 0])
    problem = null
    await hands.click(screen.getByText('Add check'))
    await waitFor(() => expect(closed).toBe(1))
    again(dialog('third'))
    expect(box().value).toBe('')
  })
})

describe('before and after', () => {
  const effect = (more: Partial<Effect> = {}): Effect => ({
    measure: 'views',
    dailyBefore: 10,
    dailyAfter: 20,
    difference: 100,
    low: 20,
    high: 230,
    verdict: 'up',
    days: 28,
    daysNeeded: null,
    from: '2026-09-01',
    to: '2026-10-28',
    demand: null,
    controls: 0,
    says: 'Views rose by 100% (between +20% and +230%)',
    ...more,
  })

  test('says what was compared, and when nothing could be taken off', () => {
    const { root } = show(<EffectPart effect={effect()} nights={false} />)
    expect(text(root)).toContain('28 days on each side, September 1 to October 28')
    expect(text(root)).toContain('No untouched listing to compare with')
    expect(text(root)).toContain('+300%')
  })

  test('counts without a percentage draw no interval, and say what was taken off', () => {
    const { root } = show(
      <EffectPart
        effect={effect({ difference: null, low: null, high: null, controls: 2, says: 'Views rose from 0 to 12 a day' })}
        nights={false}
      />,
    )
    expect(root.querySelector('svg')).toBeNull()
    expect(text(root)).toContain('What happened to 2 untouched listings is taken off.')
  })

  test('nothing compared draws nothing', () => {
    const { root } = show(
      <EffectPart
        effect={effect({
          dailyBefore: null,
          dailyAfter: null,
          difference: null,
          low: null,
          high: null,
          days: 0,
          from: null,
          to: null,
          says: 'Can’t tell yet: about 3 more days',
        })}
        nights={false}
      />,
    )
    expect(root.querySelector('svg')).toBeNull()
    expect(text(screen.getByTestId('verdict'))).toBe('Can’t tell yet: about 3 more days')
  })

  test('a note needs words or a kind, and keeps what a send did', async () => {
    const saved: unknown[] = []
    let [closed, answer] = [0, (_: string | null) => {}]
    const save = (n: unknown) => {
      saved.push(n)
      return new Promise<string | null>((done) => (answer = done))
    }
    const { hands, again } = show(
      <NoteDialog name="a" today="2026-11-26" product="Feeder" platform="The fair" save={save} close={() => closed++} />,
    )
    await hands.click(screen.getByText('Save'))
    expect(text(screen.getByRole('alert'))).toBe('Say what was changed.')
    await hands.click(screen.getByText('Price'))
    await hands.type(screen.getByPlaceholderText(/Raised the price/), 'To $24')
    // Two presses save once.
    await hands.dblClick(screen.getByText('Save'))
    expect(closed).toBe(0)
    answer(null)
    await waitFor(() => expect(closed).toBe(1))
    expect(saved).toEqual([{ text: 'To $24', kinds: ['price'], day: '2026-11-26', about: 'listing', term: '' }])
    const sent = { text: 'Changed title', kinds: ['title'], at: '2026-11-20T10:00:00Z', isAutomatic: true, term: null } as unknown as Note
    again(<NoteDialog key="2" name="b" note={sent} today="2026-11-26" product="Feeder" platform="The fair" save={save} close={() => {}} />)
    expect(screen.queryByText('Price')).toBeNull()
  })

  test('names', () => {
    expect([signed(12.4), signed(-3), signed(0.2), signed(1234)]).toEqual(['+12%', '−3%', '0%', '+1,234%'])
    expect([measureName('sales', true), measureName('sales', false)]).toEqual(['Nights', 'Sales'])
    expect([viewIn(views, null), viewIn(views, 'days'), viewIn(views, 'nowhere')]).toEqual(['found', 'days', 'found'])
  })
})

describe('the simulated clock', () => {
  function Hands() {
    const { moving, move, stop } = useClock()
    return (
      <>
        <button type="button" onClick={() => move(7)}>
          week
        </button>
        <button type="button" onClick={stop}>
          stop
        </button>
        <output>{moving ? `${moving.day} of ${moving.of}` : 'still'}</output>
        <ToastLine />
      </>
    )
  }

  test('goes day by day and stops between two', async () => {
    let answer: (v: unknown) => void = () => {}
    answers['/api/clock'] = () => new Promise((done) => (answer = done))
    const { hands } = show(<Hands />)
    await hands.click(screen.getByText('week'))
    await screen.findByText('1 of 7')
    answer({ now: '2026-11-27T10:00:00Z', problems: [] })
    await screen.findByText('2 of 7')
    await hands.click(screen.getByText('stop'))
    answer({ now: '2026-11-28T10:00:00Z', problems: [] })
    await screen.findByText('still')
    expect(asked.filter((a) => a.url === '/api/clock').map((a) => a.body)).toEqual([{ days: 1 }, { days: 1 }])
    await screen.findByText(/Stopped\. The simulated clock is at/)
  })
})

describe('search rules', () => {
  const rules = (more: Partial<Rules> = {}): Rules => ({
    checked: 24,
    surprises: [{ text: 'bird houses', found: true, missing: ['houses'] }],
    change: {
      says: 'The fair seems to treat singular and plural as the same word',
      remaining: 0,
      new: 0,
      profile: { id: 'fair', changed: true },
      revision: 3,
    },
    count: 16,
    rho: null,
    low: null,
    high: null,
    least: 20,
    ranked: [{ text: 'nest box', grip: 50, rank: 4 }],
    ...more,
  })

  test('a change is offered, applied only when asked, and undone', async () => {
    answers['/rules'] = () => rules()
    answers['/api/platforms'] = () => ({ platforms: [{ id: 'fair', profile: { id: 'fair' } }] })
    answers['/api/platforms/fair'] = () => ({ unfit: [], revision: 4 })
    const { hands } = show(
      <>
        <RulesView desk={desk} watch={watch()} head={null} />
        <ToastLine />
      </>,
    )
    await screen.findByText('Change the profile')
    expect(text(screen.getByTestId('rules-of'))).toBe('The profile of The fair is wrong for 1 of 24 terms')
    expect(text(screen.getByTestId('grip-and-rank'))).toContain('Too few to say: 16 of at least 20 found terms')
    expect(asked.some((a) => a.method === 'PUT')).toBe(false)
    await hands.click(screen.getByText('Change the profile'))
    await screen.findByText('Changed the profile of The fair')
    await hands.click(screen.getByText('Undo'))
    await waitFor(() =>
      expect(asked.filter((a) => a.method === 'PUT').map((a) => a.body)).toEqual([
        { profile: { id: 'fair', changed: true }, revision: 3, like: null },
        { profile: { id: 'fair' }, revision: 4, like: null },
      ]),
    )
  })

  test('says in words how well grip predicts rank', async () => {
    answers['/rules'] = () => rules({ change: null, surprises: [], count: 30, rho: 0.6, low: 0.3, high: 0.8 })
    show(<RulesView desk={desk} watch={watch()} head={null} />)
    await screen.findByText('The profile of The fair explains all 24 terms')
    expect(text(screen.getByTestId('grip-and-rank'))).toContain(
      'Yes: terms with more grip rank better. Rank correlation 0.60, between 0.30 and 0.80, of 30 terms.',
    )
  })
})
