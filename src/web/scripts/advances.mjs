// Writes how wide each character of the text font is, in thousandths of the font size: what a page title and a meta description are measured with.
// Use: node scripts/advances.mjs OUTPUT
import { readFileSync, writeFileSync } from 'node:fs'
import * as fontkit from 'fontkit'

const folder = new URL('../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/', import.meta.url)
const advances = new Map()
for (const part of ['latin', 'latin-ext']) {
  const font = fontkit.create(readFileSync(new URL(`atkinson-hyperlegible-next-${part}-wght-normal.woff2`, folder)))
  for (const code of font.characterSet)
    if (!advances.has(code)) advances.set(code, Math.round((font.glyphForCodePoint(code).advanceWidth / font.unitsPerEm) * 1000))
}
const codes = [...advances.keys()].filter((c) => c >= 32).sort((a, b) => a - b)
const usual = Math.round(codes.reduce((sum, c) => sum + advances.get(c), 0) / codes.length)
writeFileSync(
  process.argv[2],
  '# Advance widths of Atkinson Hyperlegible Next, weight 400, in thousandths of the font size: code point, width.\n' +
    `# Made by src/web/scripts/advances.mjs. The first line is the width of a character that the font does not have.\n* ${usual}\n` +
    codes.map((c) => `${c.toString(16)} ${advances.get(c)}\n`).join(''),
)
