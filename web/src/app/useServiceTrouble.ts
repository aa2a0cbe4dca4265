import { onUnmounted, ref, watch, type Ref } from 'vue'
import type { ServiceAnswer } from '#core'
import { serviceTroubles } from '../account/service-words.ts'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'

/** How often an owner's page asks how the service is, milliseconds. */
const ASK_MS = 5 * 60_000

/** What an owner must see to about the service, in one sentence; empty for everybody else and when all is well. */
export function useServiceTrouble(): Ref<string> {
  const session = useSession()
  const trouble = ref('')
  const ask = async (): Promise<void> => {
    if (session.person?.role !== 'owner') {
      trouble.value = ''
      return
    }
    const service = await api<ServiceAnswer>('GET', '/api/service').catch(() => null)
    if (service) trouble.value = serviceTroubles(service)[0] ?? ''
  }
  watch(
    () => session.person,
    () => void ask(),
    { immediate: true },
  )
  const timer = setInterval(() => void ask(), ASK_MS)
  onUnmounted(() => clearInterval(timer))
  return trouble
}
