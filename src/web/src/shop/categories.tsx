import { useState } from 'react'
import { counted } from '../kit/numbers'
import type { FieldRule } from './profilerules'

type Category = NonNullable<FieldRule['tree']>[number]
type AttributeRule = NonNullable<FieldRule['attributes']>[number]

const step = 4

/** The tree as an outline: one category per line, subcategories indented. */
export function outlineOf(tree: Category[], depth = 0): string[] {
  return tree.flatMap((c) => [' '.repeat(depth * step) + c.name, ...outlineOf(c.under ?? [], depth + 1)])
}

/** The tree of an outline: an indented line is a subcategory of the one above it; a tab counts as one step. */
export function treeOf(outline: string): Category[] {
  const top: Category[] = []
  const open: { indent: number; under: Category[] }[] = [{ indent: -1, under: top }]
  for (const line of outline.split('\n')) {
    const text = line.replaceAll('\t', ' '.repeat(step))
    const name = text.trim()
    if (!name) continue
    const indent = text.length - text.trimStart().length
    while (open[open.length - 1].indent >= indent) open.pop()
    const category: Category = { name, under: [] }
    open[open.length - 1].under.push(category)
    open.push({ indent, under: category.under as Category[] })
  }
  return bare(top)
}

// A category without subcategories has no such list.
const bare = (tree: Category[]): Category[] =>
  tree.map((c) => (c.under && c.under.length > 0 ? { name: c.name, under: bare(c.under) } : { name: c.name }))

/** Every category's name. */
export const namesOf = (tree: Category[]): string[] => tree.flatMap((c) => [c.name, ...namesOf(c.under ?? [])])

/** The category tree, typed or pasted as an outline. */
export function Categories({ name, tree, change }: { name: string; tree: Category[]; change: (tree: Category[]) => void }) {
  const [text, setText] = useState(outlineOf(tree).join('\n'))
  const count = namesOf(tree).length
  return (
    <details className="mt-2">
      <summary className="text-[15px] font-semibold cursor-pointer">
        {name} <small className="quiet font-normal">{count > 0 ? counted(count, 'category', 'categories') : 'any category'}</small>
      </summary>
      <p className="quiet text-[13px]">One per line; indent a subcategory by a few spaces. You can paste a list.</p>
      <textarea
        className="w-full min-h-24 max-h-72 field-sizing-content text-[14px] bg-transparent border border-(--tin-2) rounded p-2"
        aria-label={`Categories of ${name}`}
        spellCheck={false}
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          change(treeOf(e.target.value))
        }}
      />
    </details>
  )
}

/** The attributes that a platform asks for, each with its values and the category that opens it. */
export function Attributes({
  name,
  rules,
  categories,
  change,
}: {
  name: string
  rules: AttributeRule[]
  categories: string[]
  change: (rules: AttributeRule[]) => void
}) {
  const put = (i: number, next: Partial<AttributeRule>) =>
    change(
      rules.map((r, k) => {
        const { category, ...rest } = { ...r, ...next }
        return k !== i ? r : category ? { ...rest, category } : rest
      }),
    )
  return (
    <details className="mt-2">
      <summary className="text-[15px] font-semibold cursor-pointer">
        {name} <small className="quiet font-normal">{rules.length > 0 ? counted(rules.length, 'attribute') : 'any attribute'}</small>
      </summary>
      <table className="plain text-[13.5px]">
        <thead>
          <tr>
            <th>Attribute</th>
            <th>Values, separated with commas (empty: any)</th>
            <th>For category</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rules.map((r, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: an attribute is its place
            <tr key={i}>
              <td>
                <input
                  className="inline-input w-36"
                  aria-label={`Attribute ${i + 1}`}
                  value={r.name}
                  onChange={(e) => put(i, { name: e.target.value })}
                />
              </td>
              <td>
                <input
                  className="inline-input w-full"
                  aria-label={`Values of ${r.name}`}
                  defaultValue={(r.options ?? []).join(', ')}
                  onChange={(e) =>
                    put(i, {
                      options: e.target.value
                        .split(',')
                        .map((o) => o.trim())
                        .filter(Boolean),
                    })
                  }
                />
              </td>
              <td>
                <select
                  className="inline-input"
                  aria-label={`Category of ${r.name}`}
                  value={r.category ?? ''}
                  onChange={(e) => put(i, { category: e.target.value })}
                >
                  <option value="">every category</option>
                  {r.category && !categories.includes(r.category) && <option>{r.category}</option>}
                  {[...new Set(categories)].map((c) => (
                    <option key={c}>{c}</option>
                  ))}
                </select>
              </td>
              <td>
                <button
                  type="button"
                  className="px-1 cursor-pointer quiet"
                  aria-label={`Delete ${r.name}`}
                  onClick={() => change(rules.filter((_, k) => k !== i))}
                >
                  ×
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <input
        className="inline-input w-56 mt-1"
        placeholder="New attribute, then Enter"
        aria-label="Name of the new attribute"
        onKeyDown={(e) => {
          const name = e.currentTarget.value.trim()
          if (e.key !== 'Enter' || !name) return
          e.preventDefault()
          change([...rules, { name, options: [] }])
          e.currentTarget.value = ''
        }}
      />
    </details>
  )
}
