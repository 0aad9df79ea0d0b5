import { messages } from './messages'
import { toast } from './toast'

/** Puts a text on the clipboard, and says so. */
export async function copyText(what: string, text: string) {
  if (!text) return toast(messages.nothingToCopy(what))
  try {
    await navigator.clipboard.writeText(text)
    toast(messages.copied(what, [...text].length))
  } catch {
    toast(messages.copyRefused)
  }
}
