// Makes the digest of WordNet that ships with the program: which words mean the same, and which are broader, narrower or similar.
// Usage: node scripts/alike.mjs OUT.gz. One line a synset: its part of speech, its words, the synsets above it, those like it.
// Then, for each word of several meanings, "=": the word, its part of speech, its synsets, the commonest meaning first.
import { pack, sensesOf, synsetsOf } from './wordnet.mjs'

const files = { noun: 'n', verb: 'v', adj: 'a', adv: 'r' }
const keep = (word) => /^[a-z][a-z'\- ]*$/.test(word)
const synsets = new Map()
for (const [file, pos] of Object.entries(files))
  for (const { id, words: written, pointers } of synsetsOf(file)) {
    const words = written.map((w) => w.replace(/\(\w+\)$/, '')).filter(keep)
    const targets = (sign) => pointers.filter((p) => p[0] === sign).map(([, to, part]) => (part === 's' ? 'a' : part) + to)
    if (words.length > 0) synsets.set(pos + id, { id: synsets.size, pos, words, above: targets('@'), like: targets('&') })
  }
const ids = (keys) =>
  keys
    .map((k) => synsets.get(k)?.id)
    .filter((id) => id !== undefined)
    .join(' ')
const lines = [...synsets.values()].map((s) => [s.pos, s.words.join(','), ids(s.above), ids(s.like)].join('\t'))
for (const [file, pos] of Object.entries(files))
  for (const [word, senses] of sensesOf(file))
    if (keep(word) && senses.length > 1) lines.push(['=', word, pos, ids(senses.map((o) => pos + o))].join('\t'))
pack(process.argv[2], lines)
