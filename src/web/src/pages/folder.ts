import { zipSync } from 'fflate'

const read = /\.(html?|json|jsonld|csv|png|jpe?g|webp|avif)$/i

/** The most that a folder may hold, in bytes: the browser keeps all of it in memory. */
export const MostInFolder = 200 << 20

/** A folder of saved pages as one ZIP file; null where it holds no page, or too much. */
export async function zipOfFolder(files: readonly File[]): Promise<File | null> {
  const wanted = files.filter((f) => read.test(f.name))
  if (!wanted.some((f) => /\.html?$/i.test(f.name)) || wanted.reduce((sum, f) => sum + f.size, 0) > MostInFolder) return null
  const entries: Record<string, Uint8Array> = {}
  for (const f of wanted) entries[f.webkitRelativePath || f.name] = new Uint8Array(await f.arrayBuffer())
  // In this thread: the page's content policy allows no worker from a text.
  const bytes = zipSync(entries, { level: 1 })
  const name = wanted[0].webkitRelativePath.split('/')[0] || 'pages'
  return new File([bytes], `${name}.zip`)
}
