import { v4 as uuid } from 'uuid'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { beginDraft, DRAFT_SCHEMA, type CatalogueEntry, type DescribedKind, type DraftList } from '#core'
import { api } from '../../line/api.ts'
import { useSession } from '../../line/session.ts'

/** The firm’s drafts, and how one is begun: from nothing, like an entry, or to correct one. */
export function useDrafts() {
  const session = useSession()
  const router = useRouter()
  const drafts = ref<DraftList['drafts']>([])
  const trouble = ref('')

  onMounted(async () => {
    await api<DraftList>('GET', '/api/catalogue/drafts')
      .then((answer) => (drafts.value = answer.drafts))
      .catch((thrown: unknown) => (trouble.value = (thrown as Error).message))
  })

  async function begin(
    kind: DescribedKind,
    like: CatalogueEntry | null = null,
    corrects = false,
  ): Promise<void> {
    const catalogue = await session.loadCatalogue()
    const id = uuid()
    const by = { id: session.person?.id ?? null, name: session.person?.name ?? '' }
    const edit = {
      ...{ id: uuid(), kind: 'draft.begin', schema: DRAFT_SCHEMA, by, madeAt: new Date().toISOString() },
      ops: beginDraft(kind, { like, corrects }, catalogue),
    }
    trouble.value = ''
    try {
      await api('PUT', `/api/catalogue/drafts/${id}`, { edit })
      await router.push(`/catalogue/drafts/${id}`)
    } catch (thrown) {
      trouble.value = (thrown as Error).message
    }
  }

  return { drafts, trouble, begin }
}
