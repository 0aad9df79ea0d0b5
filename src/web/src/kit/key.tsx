import { keysOf, type ShortcutId, useSingleKeys } from './shortcuts'

/** The key of a shortcut, beside the button that does the same; nothing where it is switched off. */
export function Key({ of: id, plain = false }: { of: ShortcutId; plain?: boolean }) {
  useSingleKeys()
  const [key] = keysOf(id)
  return key ? <kbd className={plain ? '!text-inherit !bg-transparent' : undefined}>{key}</kbd> : null
}
