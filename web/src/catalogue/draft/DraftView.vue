<script setup lang="ts">
import { mdiRedoVariant, mdiUndoVariant } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import {
  ASSUMED,
  answerFrom,
  answerOps,
  answerTo,
  draftEntry,
  draftInfo,
  questionsOf,
  sourceOps,
  toldOps,
  type Answer,
  type LeafletWire,
  type PublishedDraft,
  type Question,
  type Told,
} from '#core'
import { api, ApiError } from '../../line/api.ts'
import LeafletList from '../../leaflets/LeafletList.vue'
import LeafletPages from '../../leaflets/LeafletPages.vue'
import { useSession } from '../../line/session.ts'
import UnofferedNeeds from '../UnofferedNeeds.vue'
import QuestionField from './QuestionField.vue'
import RackPicture from './RackPicture.vue'
import SourceField from './SourceField.vue'
import TryOut from './TryOut.vue'
import { answerWords, kindWords } from './words.ts'
import { useDraft } from './useDraft.ts'

/** A catalogue entry is described in the order of a leaflet; beside it stands what is missing and what it does. */
const session = useSession()
const router = useRouter()
const id = String(useRoute().params.draft)
const draft = useDraft(id)
const { doc, state, closed, notice, canUndo, canRedo, unsaved, revision } = draft
const trouble = ref('')
const why = ref('')
const busy = ref(false)
/** Whether this person may only look on. */
const looksOn = computed(() => session.person?.role === 'viewer')
onMounted(() =>
  draft.open().catch((thrown: unknown) => {
    trouble.value = (thrown as Error).message
  }),
)

const catalogue = computed(() => session.catalogue)
const info = computed(() => draftInfo(doc.value))
const questions = computed(() => (catalogue.value ? questionsOf(doc.value, catalogue.value) : []))
/** An entry of fewer parts is seen at a glance; of more of them it is shown what is open where. */
const MOST_UNLED = 7
/** Asked one by one: what is told at the panel is asked there. */
const single = computed(() =>
  questions.value.filter(({ path, form }) => form.is !== 'at-panel' || path === 'start'),
)
const sections = computed(() => {
  const names = [...new Set(single.value.map(({ section }) => section))]
  return names.map((name) => {
    const of = single.value.filter(({ section }) => section === name)
    const all = questions.value.filter(({ section }) => section === name)
    const owed = all.filter(({ path }) => result.value.missing.includes(path) || fault(path) !== '').length
    return { name, questions: of, owed }
  })
})
const result = computed(() =>
  catalogue.value ? draftEntry(doc.value, catalogue.value) : { kept: null, problems: [], missing: [] },
)
const like = computed(() => {
  const from = info.value?.corrects ?? info.value?.like
  return catalogue.value?.entries.find((entry) => entry.id === from) ?? null
})
/** The leaflet that is read beside the questions; a correction has those of its entry, too. */
const reading = shallowRef<LeafletWire | null>(null)
const leafletsOf = computed(() => [`draft/${id}`, ...(info.value?.corrects ? [info.value.corrects] : [])])
const name = computed(() => {
  const value = answerTo(doc.value, 'name')?.value
  return typeof value === 'string' ? value : ''
})
const title = computed(() => {
  if (!info.value) return 'Draft'
  const what = kindWords[info.value.kind] ?? 'entry'
  return info.value.corrects ? `Correct ${like.value?.name ?? what}` : name.value || `New ${what}`
})
const asked = computed(() => new Map(questions.value.map((one) => [one.path, one])))
const assumed = computed(
  () => questions.value.filter(({ path }) => answerTo(doc.value, path)?.source === ASSUMED).length,
)
const done = computed(() => single.value.filter(({ path }) => answerTo(doc.value, path) !== null).length)
const saved = computed(
  () =>
    ({
      loading: 'Loading',
      saved: 'All saved',
      saving: 'Saving',
      away: `Not sent: ${unsaved.value}. The server is not reached.`,
    })[state.value],
)

function value(path: string): Answer['value'] | undefined {
  return answerTo(doc.value, path)?.value
}
/** Where a question stands on this page: what is told at the panel stands there. */
const placed = (path: string): string => (asked.value.get(path)?.form.is === 'at-panel' ? 'start' : path)
function fault(path: string): string {
  return result.value.problems
    .filter((one) => one.path === path)
    .map(({ message }) => message)
    .join('; ')
}
/** The first time of a panel that is described: others often take the same values. */
function timeBefore(path: string) {
  const first = questions.value.find(
    (one) => one.form.is === 'delay' && one.path !== path && value(one.path) != null,
  )
  return first ? { label: first.ask, value: value(first.path) ?? null } : null
}
/** What the entry that it began from says, where this says something else. */
function unlike({ path, unless }: Question): string | null {
  if (!like.value || like.value.kind !== info.value?.kind) return null
  const was = answerFrom(like.value, path)
  return JSON.stringify(was ?? null) === JSON.stringify(value(path) ?? null) || !catalogue.value
    ? null
    : answerWords(was, unless, catalogue.value)
}
function answer(path: string, to: Answer['value'] | undefined): void {
  draft.edit('draft.answer', answerOps(doc.value, path, to))
}

/** What was told at the panel, all of it at once: one step to take back. */
function tell(told: readonly Told[]): void {
  draft.edit('draft.answer', [...toldOps(doc.value, told)])
}

async function publish(): Promise<void> {
  busy.value = true
  trouble.value = ''
  try {
    const published = await api<PublishedDraft>('POST', `/api/catalogue/drafts/${id}/published`, {
      ...{ revision: revision.value, why: why.value },
    })
    await session.reloadCatalogue()
    await router.push({ path: '/catalogue', query: { show: published.entryId } })
  } catch (thrown) {
    const problems = thrown instanceof ApiError ? thrown.problems : []
    trouble.value = [
      (thrown as Error).message,
      ...problems.map(({ path, message }) => `${asked.value.get(path)?.ask ?? path} ${message}`),
    ].join(' ')
    await draft.look().catch(() => undefined)
  } finally {
    busy.value = false
  }
}

async function drop(): Promise<void> {
  trouble.value = ''
  await api('DELETE', `/api/catalogue/drafts/${id}`).catch((thrown: unknown) => {
    trouble.value = (thrown as Error).message
  })
  if (trouble.value === '') await router.push('/catalogue')
}
/** What was not sent yet would be lost with the page: whoever leaves is kept until it is sent. */
onBeforeRouteLeave(() => {
  if (unsaved.value === 0) return true
  trouble.value = `${unsaved.value === 1 ? '1 answer is' : `${unsaved.value} answers are`} not sent yet: stay here until the server has ${unsaved.value === 1 ? 'it' : 'them'}.`
  return false
})
function stay(event: BeforeUnloadEvent): void {
  if (unsaved.value > 0) event.preventDefault()
}
onMounted(() => addEventListener('beforeunload', stay))
onBeforeUnmount(() => removeEventListener('beforeunload', stay))
watch(unsaved, (now) => now === 0 && (trouble.value = ''))
const asideAsked = ref(false)
watch(title, (now) => (document.title = `${now} · Kapelle`))
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head">
        <h1>{{ title }}</h1>
        <span v-if="like && !info?.corrects" class="quiet">begun like {{ like.name }}</span>
        <span class="quiet" role="status">{{ saved }}</span>
        <span class="grow" />
        <v-btn
          :icon="mdiUndoVariant"
          variant="text"
          size="48"
          :disabled="!canUndo"
          aria-label="Undo"
          @click="draft.back('undo')"
        />
        <v-btn
          :icon="mdiRedoVariant"
          variant="text"
          size="48"
          :disabled="!canRedo"
          aria-label="Redo"
          @click="draft.back('redo')"
        />
        <v-btn variant="text" to="/catalogue">Catalogue</v-btn>
      </div>
      <v-alert v-if="notice" type="warning" variant="tonal" class="mb-3">{{ notice }}</v-alert>
      <v-alert v-if="trouble" type="error" variant="tonal" class="mb-3">{{ trouble }}</v-alert>
      <v-alert v-if="closed" type="info" variant="tonal" class="mb-3">
        {{
          closed === 'published'
            ? 'This draft was published. To change the entry, begin its correction in the catalogue.'
            : 'This draft was put aside.'
        }}
      </v-alert>
      <v-progress-linear
        v-if="state === 'loading' && !trouble"
        indeterminate
        aria-label="Loading the draft"
      />
      <div v-else-if="info && catalogue" class="both" :class="{ reading: reading !== null }">
        <nav v-if="sections.length > MOST_UNLED" class="parts" aria-label="Parts of this entry">
          <a v-for="part in sections" :key="part.name" :href="`#part-${sections.indexOf(part)}`" class="part">
            {{ part.owed === 0 ? '✓' : '○' }} {{ part.name }}
            <span v-if="part.owed > 0" class="quiet">{{ part.owed }} needed</span>
          </a>
        </nav>
        <div class="sections">
          <section
            v-for="(part, index) in sections"
            :id="`part-${index}`"
            :key="part.name"
            class="sheet"
            :aria-label="part.name"
          >
            <h2>{{ part.name }}</h2>
            <div v-for="one in part.questions" :id="`q-${one.path}`" :key="one.path" class="question">
              <h3>
                {{ one.ask }}
                <span v-if="result.missing.includes(one.path)" class="needed">needed</span>
              </h3>
              <p class="why">
                {{ one.why }} <span class="leaflet">On a leaflet: {{ one.leaflet }}.</span>
              </p>
              <fieldset :disabled="closed !== null || looksOn" class="answer">
                <QuestionField
                  :question="one"
                  :value="value(one.path)"
                  :fault="fault(one.path)"
                  :catalogue="catalogue"
                  :doc="doc"
                  :before="timeBefore(one.path)"
                  :locked="closed !== null || looksOn"
                  @answer="answer(one.path, $event)"
                  @tell="tell"
                />
                <v-btn
                  v-if="one.unless !== ''"
                  :variant="value(one.path) === null ? 'flat' : 'text'"
                  :aria-pressed="value(one.path) === null"
                  :aria-label="`${one.ask} ${one.unless}`"
                  size="small"
                  height="40"
                  @click="answer(one.path, value(one.path) === null ? undefined : null)"
                  >{{ value(one.path) === null ? '✓ ' : '' }}{{ one.unless }}</v-btn
                >
                <SourceField
                  v-if="value(one.path) != null && one.form.is !== 'at-panel'"
                  :source="answerTo(doc, one.path)?.source ?? ''"
                  :label="one.ask"
                  @said="draft.edit('draft.source', sourceOps(doc, one.path, $event))"
                />
                <RackPicture v-if="one.path === 'blocks'" :value="value(one.path)" />
              </fieldset>
              <p v-if="unlike(one) !== null" class="unlike">≠ {{ like?.name }}: {{ unlike(one) }}</p>
            </div>
          </section>
        </div>
        <aside v-if="!closed" class="beside">
          <LeafletList :about="leafletsOf" :shown="reading?.id ?? null" @show="reading = $event" />
          <div v-if="reading" class="sheet pa-4"><LeafletPages :leaflet="reading" /></div>
          <div class="sheet pa-4">
            <h2>{{ result.kept ? 'Ready to publish' : 'Still needed' }}</h2>
            <p class="quiet">
              {{ done }} of {{ single.length }} questions answered. What is left open counts as not stated,
              never as a guess.
            </p>
            <p v-if="assumed > 0" class="text-warning">
              ▲ {{ assumed === 1 ? '1 answer is assumed' : `${assumed} answers are assumed` }}: a risk in
              every job that has it, until somebody sees it.
            </p>
            <ul v-if="result.missing.length + result.problems.length > 0" class="owed">
              <li v-for="path in result.missing" :key="path">
                <a :href="`#q-${placed(path)}`">○ {{ asked.get(path)?.ask }}</a>
              </li>
              <li v-for="problem in result.problems" :key="problem.path + problem.message">
                <a v-if="problem.path" :href="`#q-${placed(problem.path)}`"
                  >■ {{ asked.get(problem.path)?.ask }}</a
                >
                <span v-else>■ This entry</span>
                {{ ' ' }}<span class="quiet">{{ problem.message }}</span>
              </li>
            </ul>
            <UnofferedNeeds v-if="result.kept" :kept="result.kept" />
            <template v-if="!looksOn">
              <v-text-field
                v-if="result.kept"
                v-model="why"
                :label="info.corrects ? 'What was wrong, and how you know' : 'Where it comes from'"
                placeholder="leaflet, seen at a panel"
                maxlength="300"
                hide-details
                class="my-2"
              />
              <v-btn
                v-if="session.may('catalogue')"
                block
                color="primary"
                variant="flat"
                height="48"
                :disabled="!result.kept || unsaved > 0"
                :loading="busy"
                @click="publish"
                >Publish it</v-btn
              >
              <p v-else class="quiet">An entry is published by the owner, or by whoever the owner lets.</p>
              <v-btn v-if="!asideAsked" block variant="text" class="mt-2" @click="asideAsked = true"
                >Put this draft aside…</v-btn
              >
              <div v-else class="aside">
                <p>It leaves the list for good. The catalogue stays as it is.</p>
                <v-btn variant="tonal" color="error" @click="drop">Put it aside</v-btn>
                <v-btn variant="text" @click="asideAsked = false">Keep it</v-btn>
              </div>
            </template>
          </div>
          <div v-if="result.kept" class="sheet pa-4">
            <TryOut
              :entry="result.kept.entry"
              :catalogue="catalogue"
              :panel="typeof value('panel') === 'string' ? String(value('panel')) : null"
            />
          </div>
        </aside>
      </div>
    </div>
  </v-main>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 16px;
  align-items: start;
}
.both.reading {
  grid-template-columns: minmax(0, 1fr) minmax(380px, 48%);
}
.parts {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.part {
  padding: 8px 12px;
  border-radius: 8px;
  text-decoration: none;
  color: inherit;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.sections > .sheet {
  scroll-margin-top: 70px;
}
.sections,
.beside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
.beside {
  position: sticky;
  top: 60px;
  max-height: calc(100vh - 76px);
  overflow-y: auto;
}
.sections > .sheet {
  padding: 16px 20px;
}
.question {
  padding: 12px 0;
  border-top: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  scroll-margin-top: 70px;
}
.question:first-of-type {
  border-top: 0;
}
h3 {
  font-size: 1rem;
  font-weight: 650;
  margin: 0;
}
.needed {
  font-size: 0.75rem;
  font-weight: 500;
  margin-left: 6px;
  padding: 1px 6px;
  border-radius: 4px;
  border: 1px solid currentcolor;
}
.why {
  margin: 2px 0 8px;
  font-size: 0.875rem;
}
.leaflet {
  color: rgba(var(--v-theme-on-surface), var(--v-medium-emphasis-opacity));
}
.answer {
  /* A fieldset would be as wide as its widest part. */
  min-width: 0;
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.answer > :deep(.v-input) {
  flex: 1 1 220px;
}
.answer > :deep(.rows),
.answer > :deep(.ids) {
  flex: 1 1 100%;
}
.unlike {
  margin: 6px 0 0;
  font-size: 0.875rem;
  font-weight: 650;
  color: rgb(var(--v-theme-info));
}
.owed {
  padding-left: 0;
  list-style: none;
  display: grid;
  gap: 4px;
  margin: 8px 0;
  max-height: 240px;
  overflow-y: auto;
}
.aside p {
  margin: 6px 0;
}
@media (max-width: 960px) {
  .both,
  .both.reading {
    grid-template-columns: minmax(0, 1fr);
  }
  .beside {
    position: static;
    max-height: none;
  }
}
</style>
