// Makes the digest of WordNet that says which words claim a material, a colour, an audience or an occasion.
// Usage: node scripts/vocabulary.mjs OUT.gz. One line a word: its facet, the word, 1 where its most frequent sense is another one,
// and the words that it implies, from its hypernyms upward ("oak" implies "wood").
import { pack, sensesOf, synsetsOf } from './wordnet.mjs'

const synsets = new Map()
const below = new Map()
for (const { id, kind, words, pointers } of synsetsOf('noun')) {
  const above = pointers.filter(([sign]) => sign === '@').map(([, to]) => to)
  synsets.set(id, { words, above, kind })
  for (const a of above) below.set(a, [...(below.get(a) ?? []), id])
}
const senses = new Map(sensesOf('noun'))

// The synset of a word, by the number of its sense. Its words are checked, so that another WordNet fails loudly.
const root = (name, sense) => {
  const id = senses.get(name)?.[sense - 1]
  if (!id) throw new Error(`WordNet has no sense ${sense} of ${name}.`)
  return id
}
// [word, number of the sense]: what things are made of, not substance as a whole.
const roots = {
  material: [
    ['fabric', 1],
    ['metallic element', 1],
    ['alloy', 1],
    ['wood', 1],
    ['stone', 2],
    ['rock', 2],
    ['gemstone', 1],
    ['ceramic', 1],
    ['ceramic ware', 1],
    ['glass', 1],
    ['plastic', 1],
    ['leather', 1],
    ['fur', 1],
    ['fiber', 1],
    ['paper', 1],
    ['rubber', 1],
    ['rubber', 2],
    ['wax', 1],
    ['resin', 1],
    ['clay', 1],
    ['concrete', 1],
    ['horn', 7],
    ['bone', 2],
    ['ivory', 1],
    ['wicker', 1],
    ['cork', 1],
    ['pearl', 1],
    ['jewel', 2],
    ['vinyl', 2],
    ['shell', 2],
    ['cement', 2],
    ['plaster', 1],
    ['brick', 1],
    ['foam', 2],
    ['feather', 1],
  ],
  colour: [
    ['chromatic color', 1],
    ['achromatic color', 1],
  ],
  audience: [['person', 1]],
  occasion: [
    ['holiday', 2],
    ['religious holiday', 1],
    ['ceremony', 1],
    ['party', 2],
    ['ceremony', 3],
  ],
}
// Parts and shapes that WordNet counts among the materials, and words too general to claim anything.
const without = new Set([
  root('piece of cloth', 1),
  root('sheet of paper', 1),
  root('playing card', 1),
  root('chad', 2),
  root('nerve fiber', 1),
  root('pad', 1),
  root('decal', 1),
  root('confetti', 1),
  root('contour feather', 1),
  root('flight feather', 1),
  root('scapular', 1),
])
const general = new Set(
  (
    'material stuff textile cloth fabric thread yarn string sheet web webbing network net pile print screen screening batting nap rock ' +
    'gravel rubble ore log board plank stock bond roll bill matter card color colour tint shade blend knit weave cover filler packing ' +
    'worker adult person relative professional juvenile child-like man woman guy other one head master expert pro model host hand player ' +
    'plaid paisley tartan camo camouflage khaki herringbone houndstooth gingham mocha russet crush cope coping daub filament grit hone lint ' +
    'hackle chalk solder hair plush blade gaudy formality formalities induction initiation masque at-home pastel drab bleach complementary sanguine scale render medium jean stopping bristle hypha letterhead incense decal ceremony party holiday service rite function affair show set ball lead mixture base black-and-white complexion coloring'
  ).split(' '),
)
// Files of WordNet (its lexicographer's): a material that is also an animal, a food or a person, a person who is also a tool.
const [animal, artifact, body, food, person] = [5, 6, 8, 13, 18]
const otherKinds = {
  material: [animal, food, person, body],
  colour: [animal, food, person],
  audience: [artifact, food, animal],
  occasion: [artifact, food],
}
// Words that describe are no persons: "lovely", "back".
const describing = new Set(['adj', 'adv'].flatMap((part) => sensesOf(part).map(([word]) => word)))
const verbs = new Set(['have', 'can', 'will', 'does'])
const isAmbiguous = (facet, members, word) => {
  const all = senses.get(word) ?? []
  return !members.has(all[0]) || all.some((id) => !members.has(id) && otherKinds[facet].includes(synsets.get(id).kind))
}
const keep = (word) => /^[a-z][a-z'\- ]*$/.test(word) && word.length > 2 && !general.has(word)
const membersOf = (starts) => {
  const members = new Set()
  const queue = starts.map(([name, sense]) => root(name, sense))
  while (queue.length > 0) {
    const id = queue.pop()
    if (members.has(id) || without.has(id)) continue
    members.add(id)
    queue.push(...(below.get(id) ?? []))
  }
  return members
}
const byFacet = Object.entries(roots).map(([facet, starts]) => [facet, membersOf(starts)])
// A word of two facets, such as amber, is no other word.
const any = new Set(byFacet.flatMap(([, members]) => [...members]))
const lines = []
for (const [facet, members] of byFacet) {
  const implied = (id) => {
    const words = new Set(synsets.get(id).words.map((w) => w.toLowerCase()))
    const up = synsets.get(id).above.filter((a) => members.has(a))
    while (up.length > 0) {
      const a = up.pop()
      for (const w of synsets.get(a).words) words.add(w.toLowerCase())
      up.push(...synsets.get(a).above.filter((b) => members.has(b)))
    }
    return words
  }
  const found = new Map()
  for (const id of members)
    for (const written of synsets.get(id).words) {
      const word = written.toLowerCase()
      // Names are kept of holidays alone: "Christmas".
      if (!keep(facet === 'occasion' ? word : written) || (facet === 'audience' && (describing.has(word) || verbs.has(word)))) continue
      const entry = found.get(word) ?? { ambiguous: isAmbiguous(facet, any, word), implies: new Set() }
      for (const w of implied(id)) if (w !== word && keep(w)) entry.implies.add(w)
      found.set(word, entry)
    }
  for (const [word, { ambiguous, implies }] of [...found].sort(([a], [b]) => (a < b ? -1 : 1)))
    if (facet !== 'audience' || !ambiguous) lines.push([facet, word, ambiguous ? 1 : 0, [...implies].join(',')].join('\t'))
}
pack(process.argv[2], lines)
