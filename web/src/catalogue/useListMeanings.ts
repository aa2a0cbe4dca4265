import { ref } from 'vue'
import { headingKey } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'

/**
 * What the headings of one kind of list mean: as the firm remembers it and as it is said now. Kinds are remembered apart, for the same
 * word may mean something else in another list.
 */
export function useListMeanings<C extends string>(kind: string) {
  const session = useSession()
  const apart = `${kind}/`
  const remembered = ref<Readonly<Record<string, string>>>({})
  const said = ref<Readonly<Record<string, C | 'nothing'>>>({})

  async function load(): Promise<void> {
    const answer = await api<{ columns: Record<string, string> }>('GET', '/api/list-columns').catch(
      () => null,
    )
    remembered.value = Object.fromEntries(
      Object.entries(answer?.columns ?? {}).flatMap(([key, column]) =>
        key.startsWith(apart) ? [[key.slice(apart.length), column]] : [],
      ),
    )
  }

  function say(heading: string, column: C | 'nothing'): void {
    said.value = { ...said.value, [headingKey(heading)]: column }
  }

  /** Another list is begun: what was said of the one before holds only if it was remembered. */
  function forget(): void {
    said.value = {}
  }

  /** What was said is remembered for the firm's next list, by whoever may. */
  async function remember(): Promise<void> {
    remembered.value = { ...remembered.value, ...said.value }
    const columns = Object.fromEntries(
      Object.entries(said.value).map(([key, column]) => [apart + key, column]),
    )
    if (Object.keys(columns).length > 0 && session.may('columns'))
      await api('PUT', '/api/list-columns', { columns }).catch(() => null)
  }

  const meanings = (): Record<string, string> => ({ ...remembered.value, ...said.value })
  return { load, say, forget, remember, meanings }
}
