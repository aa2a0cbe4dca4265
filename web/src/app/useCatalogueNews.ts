import { useEventListener } from '@vueuse/core'
import { onUnmounted } from 'vue'
import { useSession } from '../line/session.ts'

/** How often a page that is looked at asks whether the catalogue moved, milliseconds. */
const ASK_MS = 60_000

/**
 * Keeps the catalogue of an open page as it is on the server: what a colleague retires is offered no more, what is recalled is said.
 * Asked when the page comes into sight again, and every minute while it is.
 */
export function useCatalogueNews(): void {
  const session = useSession()
  const ask = (): void => {
    if (document.visibilityState === 'visible') void session.catalogueNews()
  }
  useEventListener(window, 'focus', ask)
  useEventListener(document, 'visibilitychange', ask)
  const timer = setInterval(ask, ASK_MS)
  onUnmounted(() => clearInterval(timer))
}
