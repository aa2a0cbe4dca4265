import { onMounted, ref } from 'vue'
import { beginDraft, type CatalogueEntry, type DescribedKind, type DraftList } from '#core'
import { api } from '../../line/api.ts'
import { useSession } from '../../line/session.ts'
import { useBeginDraft } from '../../line/useBeginDraft.ts'

/** The firm’s drafts, and how one is begun: from nothing, like an entry, or to correct one. */
export function useDrafts() {
  const session = useSession()
  const drafts = ref<DraftList['drafts']>([])
  const { trouble, start } = useBeginDraft()

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
    await start(beginDraft(kind, { like, corrects }, await session.loadCatalogue()))
  }

  return { drafts, trouble, begin }
}
