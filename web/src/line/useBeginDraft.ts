import { v4 as uuid } from 'uuid'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { DRAFT_SCHEMA, type DraftOp } from '#core'
import { api } from './api.ts'
import { useSession } from './session.ts'

/** Begins a draft by these ops and goes to it; what stands against it is said. */
export function useBeginDraft() {
  const session = useSession()
  const router = useRouter()
  const trouble = ref('')

  async function start(ops: readonly DraftOp[]): Promise<void> {
    const id = uuid()
    const by = { id: session.person?.id ?? null, name: session.person?.name ?? '' }
    const edit = {
      ...{ id: uuid(), kind: 'draft.begin', schema: DRAFT_SCHEMA, by, madeAt: new Date().toISOString() },
      ops,
    }
    trouble.value = ''
    try {
      await api('PUT', `/api/catalogue/drafts/${id}`, { edit })
      await router.push(`/catalogue/drafts/${id}`)
    } catch (thrown) {
      trouble.value = (thrown as Error).message
    }
  }

  return { trouble, start }
}
