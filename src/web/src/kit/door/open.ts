import { useEffect, useSyncExternalStore } from 'react'
import { useLocation } from 'react-router'

/** What is brought in through the door: files, or what was pasted. */
export type Brought = {
  files: File[]
  /** What was pasted as HTML has the same as text beside it. */
  text?: string
  /** The term that is looked up. */
  term?: string
  /** Runs once it is imported. */
  done?: () => void
}

let now: Brought | null = null
// What is brought in where one is belongs to this.
let here: Pick<Brought, 'term' | 'done'> = {}
const listeners = new Set<() => void>()
const set = (next: Brought | null) => {
  now = next
  for (const l of listeners) l()
}

/** Opens the door, empty or with something in it. */
export const openDoor = (brought: Partial<Brought> = {}) => set({ files: [], ...here, ...brought })
export const closeDoor = () => set(null)

/** Says what the screen is about, and what follows once something is imported there. */
export function useDoorHere(term: string | undefined, done?: () => void) {
  useEffect(() => {
    here = { term, done }
    return () => {
      here = {}
    }
  })
}

/** The file that the door handed to the import of its own that it needs; null where it did not. */
export const useHandedFile = () => (useLocation().state as { file?: File } | null)?.file ?? null

/** What is in the door; null while it is closed. */
export const useDoor = () =>
  useSyncExternalStore(
    (l) => {
      listeners.add(l)
      return () => listeners.delete(l)
    },
    () => now,
  )

/** What was copied, as files: HTML where there is some, with its text beside it. */
export function copied(data: DataTransfer): Pick<Brought, 'files' | 'text'> {
  if (data.files.length > 0) return { files: [...data.files] }
  const html = data.getData('text/html')
  const text = data.getData('text/plain')
  if (html.trim()) return { files: [new File([html], 'Pasted', { type: 'text/html' })], text: text.trim() ? text : undefined }
  return { files: text.trim() ? [new File([text], 'Pasted', { type: 'text/plain' })] : [] }
}

/** The files of folders that were dropped, with their paths; pictures and other parts of a saved page with them. */
export async function dropped(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].flatMap((i) => i.webkitGetAsEntry?.() ?? [])
  if (!entries.some((e) => e.isDirectory)) return [...data.files]
  const files: File[] = []
  const walk = async (entry: FileSystemEntry): Promise<void> => {
    if (files.length >= 1000) return
    if (entry.isFile) {
      const file = await new Promise<File>((ok, no) => (entry as FileSystemFileEntry).file(ok, no))
      if (readable.test(file.name)) files.push(new File([file], entry.fullPath.replace(/^\//, ''), { type: file.type }))
      return
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader()
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((ok, no) => reader.readEntries(ok, no))
      if (some.length === 0) return
      for (const inner of some) await walk(inner)
    }
  }
  for (const entry of entries) await walk(entry)
  return files
}

// What a saved page consists of beside these is neither read nor sent.
const readable = /\.(html?|mht|mhtml|csv|tsv|txt|xlsx|json|jsonld|zip|jpe?g|png|webp|avif)$/i
