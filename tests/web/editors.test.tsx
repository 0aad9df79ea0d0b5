import { cleanup, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, test } from 'vitest'
import type { Field, Value } from '../../src/web/src/kit/api'
import { Editor } from '../../src/web/src/write/editors/editor'
import { Threaded } from '../../src/web/src/write/threaded'
import { show, text } from './screen'

const field = (shape: Field['shape'], more: Partial<Field> = {}) =>
  ({
    key: shape,
    label: 'Field',
    role: '',
    shape,
    indexed: true,
    indexedFirst: null,
    weight: 0.5,
    max: null,
    maxItems: null,
    unit: 'characters',
    shows: null,
    separator: ', ',
    tree: [],
    attributes: [],
    ...more,
  }) as unknown as Field

/** An editor whose value lives here; `now` tells it. */
function put(f: Field, first: Value, more: { fields?: Field[]; category?: Value } = {}) {
  let value = first
  function Held() {
    const [held, setHeld] = useState(first)
    return (
      <Editor
        field={f}
        value={held}
        weighedValue={held}
        change={(next) => {
          value = next
          setHeld(next)
        }}
        pieces={[]}
        pointed={undefined}
        {...more}
      />
    )
  }
  return { ...show(<Held />), now: () => value }
}

const box = (label: string) => screen.getByLabelText(label) as HTMLTextAreaElement | HTMLInputElement
const focused = () => document.activeElement?.getAttribute('aria-label')
const settled = () => new Promise((done) => setTimeout(done, 5))

describe('tags', () => {
  const tags = field('phrases', { role: 'tags', max: 20, maxItems: 6 })

  test('every slot shows; a comma and Enter go to the next one', async () => {
    const { hands, now } = put(tags, ['bird house'])
    expect(screen.getAllByRole('textbox')).toHaveLength(6)
    await hands.click(box('Field 2'))
    await hands.keyboard('owl box,')
    await settled()
    expect(focused()).toBe('Field 3')
    await hands.keyboard('bat box{Enter}')
    await settled()
    expect([focused(), now()]).toEqual(['Field 4', ['bird house', 'owl box', 'bat box']])
  })

  test('a pasted list spreads over the slots, whatever stands between', async () => {
    const { hands, now } = put(tags, ['first', 'last'])
    await hands.click(box('Field 2'))
    await hands.paste('owl box; bat box\nwren house, ,')
    expect(now()).toEqual(['first', 'owl box', 'bat box', 'wren house'])
    await hands.click(box('Field 1'))
    await hands.paste(' one')
    expect(now()).toEqual(['first one', 'owl box', 'bat box', 'wren house'])
  })

  test('Backspace in an empty one takes it out and goes back', async () => {
    const { hands, now } = put(tags, ['one', '', 'three'])
    await hands.click(box('Field 2'))
    await hands.keyboard('{Backspace}')
    await settled()
    expect([focused(), now()]).toEqual(['Field 1', ['one', 'three']])
  })

  test('Alt with an arrow moves it, not past the ends', async () => {
    const { hands, now } = put(tags, ['one', 'two', 'three'])
    await hands.click(box('Field 1'))
    await hands.keyboard('{Alt>}{ArrowDown}{/Alt}')
    await settled()
    expect([focused(), now()]).toEqual(['Field 2', ['two', 'one', 'three']])
    await hands.keyboard('{Alt>}{ArrowUp}{ArrowUp}{/Alt}')
    await settled()
    expect(now()).toEqual(['one', 'two', 'three'])
  })

  test('one that is too long says by how much and is split by key or click', async () => {
    const { hands, now, root } = put(tags, ['cedar bird house with camera'])
    expect(text(root)).toContain('8 too long')
    await hands.click(box('Field 1'))
    await hands.keyboard('{Alt>}{Shift>}x{/Shift}{/Alt}')
    expect(now()).toEqual(['cedar bird house', 'with camera'])
    expect(text(root)).not.toContain('too long')
  })

  test('what no space cuts is not split', async () => {
    const { hands, now } = put(tags, ['x'.repeat(25)])
    expect(screen.queryByText('Split')).toBeNull()
    await hands.click(box('Field 1'))
    await hands.keyboard('{Alt>}{Shift>}x{/Shift}{/Alt}')
    expect(now()).toEqual(['x'.repeat(25)])
  })

  test('those beyond the limit are there still and say that they are too many', () => {
    for (const max of [null, 9])
      expect(text(put(field('phrases', { max, maxItems: 2 }), ['a', 'b', 'c']).root).match(/over the limit/g)).toHaveLength(1)
  })

  test('empty ones at the end are dropped, between others they stay', async () => {
    const { hands, now } = put(tags, ['a', 'b', 'c'])
    await hands.clear(box('Field 3'))
    expect(now()).toEqual(['a', 'b'])
    await hands.clear(box('Field 1'))
    expect(now()).toEqual(['', 'b'])
  })
})

describe('bullet points', () => {
  test('each has its own tape, and Enter goes on to the next', async () => {
    const { hands, now } = put(field('lines', { max: 40, maxItems: 3 }), ['Warm and dry.'])
    expect(screen.getAllByTestId('tape')).toHaveLength(1)
    await hands.click(box('Field 1'))
    await hands.keyboard('{Enter}Easy to clean.')
    expect([focused(), now()]).toEqual(['Field 2', ['Warm and dry.', 'Easy to clean.']])
    expect(screen.getAllByTestId('tape')).toHaveLength(2)
  })

  test('without a limit there is always one more', () => {
    put(field('lines'), ['a', 'b'])
    expect(screen.getAllByRole('textbox')).toHaveLength(3)
  })
})

describe('one text', () => {
  test('a line takes no line break, a text does', async () => {
    const line = put(field('line'), '')
    await line.hands.click(box('Field'))
    await line.hands.paste('a\nb')
    expect(line.now()).toBe('a b')
    cleanup()
    const long = put(field('text', { label: 'Long' }), '')
    await long.hands.click(box('Long'))
    await long.hands.keyboard('a{Enter}b')
    expect(long.now()).toBe('a\nb')
  })

  test('the tape counts in the platform’s unit and turns at the limit', async () => {
    const { hands, root } = put(field('line', { max: 10, unit: 'bytes' }), 'pájaro')
    expect(text(root)).toContain('7 of 10 bytes')
    await hands.type(box('Field'), ' ñáé')
    expect(text(root)).toContain('4 bytes too long')
  })

  test('loose words stand once, as soon as a word is finished', async () => {
    const { hands, now } = put(field('words', { max: 99 }), 'owl box')
    await hands.type(box('Field'), ' OWL')
    expect(now()).toBe('owl box OWL')
    await hands.keyboard(' ')
    expect(now()).toBe('owl box ')
  })
})

describe('a category', () => {
  const tree = [['Garden'], ['Garden', 'Birds'], ['Garden', 'Bats'], ['Home']].map((path) => ({ path }))
  const path = field('path', { tree: tree as Field['tree'] })
  const fields = [field('choices', { attributes: [{ name: 'Perch', options: [], category: 'Birds' }] as unknown as Field['attributes'] })]

  test('the next level offers what is under the one before, and says what it opens', async () => {
    const { hands, now, root } = put(path, ['Garden'], { fields })
    const second = box('Field, level 2') as unknown as HTMLSelectElement
    expect([...second.options].map((o) => o.text)).toEqual(['More specific…', 'Birds: adds Perch', 'Bats'])
    await hands.selectOptions(second, 'Birds')
    expect(now()).toEqual(['Garden', 'Birds'])
    expect(text(root)).toContain('adds Perch')
    // Nothing is deeper than that.
    expect(screen.queryByLabelText('Field, level 3')).toBeNull()
  })

  test('choosing another at the top leaves what was under the old one', async () => {
    const { hands, now } = put(path, ['Garden', 'Birds'], { fields })
    await hands.selectOptions(box('Field, level 1'), 'Home')
    expect(now()).toEqual(['Home'])
    await hands.selectOptions(box('Field, level 1'), '')
    expect(now()).toEqual([])
  })

  test('one that the tree does not know is shown as that', () => {
    put(path, ['Kitchen'], { fields })
    expect([...(box('Field, level 1') as unknown as HTMLSelectElement).options].map((o) => o.text)).toContain('Kitchen (not in the list)')
  })

  test('where there is no tree, any may be typed', async () => {
    const { hands, now } = put(field('path'), ['Garden'])
    await hands.type(box('Field, level 2'), 'B')
    expect(now()).toEqual(['Garden', 'B'])
    await hands.clear(box('Field, level 1'))
    expect(now()).toEqual(['B'])
  })
})

describe('attributes', () => {
  const choices = field('choices', {
    attributes: [
      { name: 'Colour', options: ['red'], category: null },
      { name: 'Perch', options: [], category: 'Birds' },
    ] as unknown as Field['attributes'],
  })

  test('those of the category are there, empty ones take nothing up', async () => {
    const { hands, now } = put(choices, {}, { category: ['Garden', 'birds'] })
    await hands.type(box('Field: Perch'), 'rope')
    expect(now()).toEqual({ Perch: 'rope' })
    await hands.clear(box('Field: Perch'))
    expect(now()).toEqual({})
  })

  test('another category hides its own, and what stood there stays', () => {
    put(choices, { Perch: 'rope' }, { category: ['Home'] })
    expect(box('Field: Perch').value).toBe('rope')
    expect(screen.getByLabelText('Delete Perch')).toBeTruthy()
  })

  test('another is named, filled and taken out', async () => {
    const { hands, now } = put(choices, { Size: ['S', 'M'] }, { category: [] })
    expect(box('Field: Size').value).toBe('S; M')
    await hands.type(box('Field: name of a new one'), 'Weight{Enter}')
    await hands.type(box('Field: Weight'), '1 kg')
    expect(now()).toEqual({ Size: ['S', 'M'], Weight: '1 kg' })
    await hands.type(box('Field: Size'), '; L')
    expect(now()).toEqual({ Size: ['S', 'M', 'L'], Weight: '1 kg' })
    await hands.click(screen.getByLabelText('Delete Size'))
    expect(now()).toEqual({ Weight: '1 kg' })
  })
})

describe('a text box with threads', () => {
  test('shows another placeholder as soon as there is one, as when a page’s title is derived', () => {
    const box = (placeholder: string) => (
      <Threaded label="Title" value="" change={() => {}} pieces={[]} weighed="" placeholder={placeholder} />
    )
    const { again } = show(box('Start with what it is'))
    again(box('Bird houses'))
    expect((screen.getByLabelText('Title') as HTMLTextAreaElement).placeholder).toBe('Bird houses')
  })
})
