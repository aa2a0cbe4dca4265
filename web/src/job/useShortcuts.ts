import { onUnmounted, shallowRef } from 'vue'

/** A key with what it does. */
export interface Shortcut {
  /** As it is shown: `N`, `Ctrl + Z`. */
  readonly keys: string
  readonly title: string
  /** What runs when the single key is pressed outside a text field; absent for keys handled elsewhere. */
  readonly run?: () => void
}

interface Group {
  readonly name: string
  readonly shortcuts: readonly Shortcut[]
}

const groups = shallowRef<readonly Group[]>([])

/** Offers shortcuts while the component is there. */
export function useShortcuts(name: string, shortcuts: readonly Shortcut[]): void {
  const group: Group = { name, shortcuts }
  groups.value = [...groups.value, group]
  onUnmounted(() => (groups.value = groups.value.filter((item) => item !== group)))
}

/** Every shortcut on offer now, by group. */
export function offeredShortcuts(): typeof groups {
  return groups
}

let locks = 0

/** Keeps single keys from acting, as where a scanner types; gives the release. `?` still lists the keys. */
export function lockShortcuts(): () => void {
  let held = true
  locks += 1
  return () => {
    if (held) locks -= 1
    held = false
  }
}

/** Runs the shortcut of a plain key press; true when there was one. */
export function runShortcut(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return false
  // A dialog has the keys to itself.
  if (document.querySelector('.v-dialog.v-overlay--active')) return false
  const key = event.key.toUpperCase()
  if (locks > 0 && key !== '?') return false
  for (const group of [...groups.value].reverse()) {
    const found = group.shortcuts.find((item) => item.run && item.keys.toUpperCase() === key)
    if (!found?.run) continue
    event.preventDefault()
    found.run()
    return true
  }
  return false
}

/** Whether keys belong to a field just now. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ['TEXTAREA', 'SELECT'].includes(target.tagName) ||
      (target instanceof HTMLInputElement && !['checkbox', 'radio', 'button'].includes(target.type)))
  )
}
