import { act, fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, test, vi } from 'vitest'
import { useSelection } from '../../src/web/src/kit/selection'
import { singleKeys, useShortcuts } from '../../src/web/src/kit/shortcuts'
import { type Column, type Sort, Table } from '../../src/web/src/kit/table'
import { NameBox, Walked } from '../../src/web/src/kit/walked'
import { show, text } from './screen'

describe('a list beside the work', () => {
  const rows = ['wren', 'owl', 'bat']

  function put(more: { focus?: boolean } = {}) {
    const done: string[] = []
    const shown = show(
      <>
        <textarea aria-label="Writing" />
        <Walked
          name="Birds"
          testid="birds"
          rows={rows}
          id={(r) => r}
          on={{ Enter: (r) => done.push(`take ${r}`), a: (r) => done.push(`aside ${r}`) }}
          row={(r) => (
            <>
              {r} <button type="button">open {r}</button>
              <input aria-label={`note ${r}`} />
            </>
          )}
          {...more}
        />
      </>,
    )
    return { ...shown, done, here: () => text(document.querySelector('.take.cursor')).split(' ')[0] }
  }

  test('arrows walk and stop at the ends, other keys act on the row one is on', async () => {
    const { hands, done, here } = put({ focus: true })
    expect(here()).toBe('wren')
    await hands.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}')
    expect(here()).toBe('bat')
    await hands.keyboard('{Enter}{ArrowUp}a{ArrowUp}{ArrowUp}{ArrowUp}')
    expect([here(), done]).toEqual(['wren', ['take bat', 'aside owl']])
  })

  test('a click goes to a row; in a box or on a button of it the keys are theirs', async () => {
    const { hands, done, here } = put()
    await hands.click(screen.getByText('open bat'))
    expect(here()).toBe('bat')
    await hands.keyboard('a{ArrowUp}')
    await hands.type(screen.getByLabelText('note owl'), 'a')
    expect([done, (screen.getByLabelText('note owl') as HTMLInputElement).value]).toEqual([[], 'a'])
  })

  test('it takes the keys when asked to, and Escape gives them back', async () => {
    const { hands, again } = put()
    const writing = screen.getByLabelText('Writing')
    writing.focus()
    again(
      <>
        <textarea aria-label="Writing" />
        <Walked name="Birds" testid="birds" rows={rows} id={(r) => r} on={{}} row={(r) => r} focus />
      </>,
    )
    expect(document.activeElement).toBe(screen.getByTestId('birds'))
    await hands.keyboard('{Escape}')
    expect(document.activeElement).toBe(writing)
  })

  test('keys with Ctrl or Alt are left to others', async () => {
    const { hands, done } = put({ focus: true })
    await hands.keyboard('{Alt>}a{/Alt}{Control>}{Enter}{/Control}')
    expect(done).toEqual([])
  })

  test('an empty list takes no key', async () => {
    const did = vi.fn()
    const { hands } = show(<Walked name="None" testid="none" rows={[]} id={String} on={{ Enter: did }} row={() => null} focus />)
    await hands.keyboard('{ArrowDown}{Enter}')
    expect(did).not.toHaveBeenCalled()
  })
})

describe('a box for a name', () => {
  test('it is ready to be written over; Enter takes, Escape leaves it', async () => {
    const done = vi.fn()
    const { hands } = show(<NameBox label="Name" value="old" done={done} />)
    await hands.keyboard('new {Enter}')
    expect(done).toHaveBeenLastCalledWith('new')
    await hands.keyboard('{Escape}')
    expect(done).toHaveBeenLastCalledWith(null)
  })

  test('to leave it is to leave the name', async () => {
    const done = vi.fn()
    const { hands } = show(
      <>
        <NameBox label="Name" value="old" done={done} />
        <button type="button">elsewhere</button>
      </>,
    )
    await hands.click(screen.getByText('elsewhere'))
    expect(done).toHaveBeenLastCalledWith(null)
  })
})

describe('a table', () => {
  type Row = { id: string; volume: number }
  const rows: Row[] = Array.from({ length: 500 }, (_, i) => ({ id: `term ${i}`, volume: 1000 - i }))
  const columns: Column<Row>[] = [
    { key: 'id', head: 'Term', width: '1fr', words: true, value: (r) => r.id, cell: (r) => r.id },
    { key: 'volume', head: 'Searches/mo', width: '80px', right: true, value: (r) => r.volume, cell: (r) => r.volume },
  ]

  function put(list = rows) {
    const log: string[] = []
    function Held() {
      const [at, setAt] = useState(0)
      const [marked, mark] = useSelection()
      const [sort, setSort] = useState<Sort>(null)
      return (
        <>
          <Table
            name="Terms"
            rows={list}
            columns={columns}
            id={(r) => r.id}
            at={at}
            onAt={(i) => setAt(i)}
            onEnter={(r) => log.push(`open ${r.id}`)}
            marked={marked}
            onMark={(ids, on) => {
              log.push(`${on ? 'mark' : 'unmark'} ${ids.join()}`)
              mark(ids, on)
            }}
            sort={sort}
            onSort={(s) => {
              log.push(s ? `${s.key} ${s.down ? 'down' : 'up'}` : 'as it came')
              setSort(s)
            }}
            empty="Nothing here"
          />
          <input aria-label="Filter" />
        </>
      )
    }
    return { ...show(<Held />), log, here: () => document.querySelector('[aria-current=true]')?.getAttribute('data-id') }
  }

  test('keys that come faster than the screen draws all count', () => {
    const { here } = put()
    act(() => {
      for (let i = 0; i < 20; i++)
        for (const key of [' ', 'ArrowDown'])
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key, code: key === ' ' ? 'Space' : key, bubbles: true }))
    })
    expect(here()).toBe('term 20')
    const selected = [...document.querySelectorAll('[role=row][data-id][aria-selected=true]')].map((r) => r.getAttribute('data-id'))
    expect(selected).toEqual(rows.slice(0, 20).map((r) => r.id))
  })

  test('only the rows in sight exist, and all of them are counted', () => {
    put()
    expect(screen.getByRole('grid').getAttribute('aria-rowcount')).toBe('501')
    const drawn = document.querySelectorAll('[data-id]').length
    expect(drawn).toBeGreaterThan(5)
    expect(drawn).toBeLessThan(60)
  })

  test('arrows, Home and End walk it, not past its ends', async () => {
    const { hands, here } = put(rows.slice(0, 4))
    await hands.keyboard('{ArrowDown}{ArrowDown}')
    expect(here()).toBe('term 2')
    await hands.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}')
    expect(here()).toBe('term 3')
    await hands.keyboard('{Home}{ArrowUp}')
    expect(here()).toBe('term 0')
    await hands.keyboard('{End}')
    expect(here()).toBe('term 3')
  })

  test('Enter opens, Space marks, Shift marks as it walks, Ctrl A marks all', async () => {
    const { hands, log } = put(rows.slice(0, 3))
    await hands.keyboard('{Enter} {ArrowDown}{Shift>}{ArrowDown}{/Shift}{Control>}a{/Control}')
    expect(log).toEqual(['open term 0', 'mark term 0', 'mark term 1,term 2', 'mark term 0,term 1,term 2'])
    await hands.keyboard(' ')
    expect(log.at(-1)).toBe('unmark term 2')
  })

  test('a head turns from its natural order to the other and then back to none', async () => {
    const { hands, log } = put(rows.slice(0, 3))
    for (let i = 0; i < 3; i++) await hands.click(screen.getByRole('button', { name: /Searches/ }))
    for (let i = 0; i < 3; i++) await hands.click(screen.getByRole('button', { name: /^Term( [↑↓])?$/ }))
    expect(log).toEqual(['volume down', 'volume up', 'as it came', 'id up', 'id down', 'as it came'])
  })

  test('while one types in a box, its keys are the box’s', async () => {
    const { hands, here, log } = put(rows.slice(0, 3))
    await hands.type(screen.getByLabelText('Filter'), 'ab {ArrowDown}{Enter}')
    expect([here(), log]).toEqual(['term 0', []])
  })

  test('an empty one says so', () => {
    put([])
    expect(screen.getByText('Nothing here')).toBeTruthy()
  })
})

describe('shortcuts', () => {
  function Keyed({ log }: { log: string[] }) {
    useShortcuts({
      pick: () => log.push('pick'),
      undo: () => log.push('undo'),
      fill: () => log.push('fill'),
      select: () => log.push('select'),
    })
    return (
      <>
        <input aria-label="Box" />
        <input type="checkbox" aria-label="Check" />
        <button type="button" onClick={() => log.push('pressed')}>
          Button
        </button>
      </>
    )
  }
  const put = () => {
    const log: string[] = []
    return { ...show(<Keyed log={log} />), log }
  }

  test('letters work outside a text box, some chords inside it too; a box keeps its own', async () => {
    const { hands, log } = put()
    await hands.keyboard('p{Control>}z{/Control}')
    await hands.type(screen.getByLabelText('Box'), 'p{Control>}z{/Control}{Alt>}{Shift>}f{/Shift}{/Alt}')
    expect(log).toEqual(['pick', 'undo', 'fill'])
    expect((screen.getByLabelText('Box') as HTMLInputElement).value).toContain('p')
  })

  test('Space presses the focused button or check box; other keys work while a check box has the focus', async () => {
    const { hands, log } = put()
    screen.getByText('Button').focus()
    await hands.keyboard(' ')
    const check = screen.getByLabelText('Check') as HTMLInputElement
    check.focus()
    await hands.keyboard(' p')
    expect([log, check.checked]).toEqual([['pressed', 'pick'], true])
  })

  test('single letters can be switched off; chords stay', async () => {
    const { hands, log } = put()
    singleKeys.set(false)
    await hands.keyboard('p{Control>}z{/Control}')
    singleKeys.set(true)
    await hands.keyboard('p')
    expect(log).toEqual(['undo', 'pick'])
  })

  test('the position of the key counts where Alt types another character', () => {
    const { log } = put()
    fireEvent.keyDown(document.body, { key: 'Ï', code: 'KeyF', altKey: true, shiftKey: true })
    expect(log).toEqual(['fill'])
  })

  test('what somebody has dealt with is not done again', () => {
    const { log } = put()
    const dealt = new KeyboardEvent('keydown', { key: 'p', bubbles: true, cancelable: true })
    document.body.addEventListener('keydown', (e) => e.preventDefault(), { once: true })
    fireEvent(document.body, dealt)
    expect(log).toEqual([])
  })
})
