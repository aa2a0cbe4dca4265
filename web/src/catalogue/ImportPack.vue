<script setup lang="ts">
import { mdiFileUploadOutline } from '@mdi/js'
import { computed, ref, useTemplateRef } from 'vue'
import {
  comparePack,
  differingFacts,
  PACK_LIMIT,
  proposedChoices,
  readPack,
  restingOn,
  signatureOf,
  takeChoices,
  type PackChange,
  type PackSignatureAnswer,
  type Problem,
  type TakeChoice,
} from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import FoldedLines from '../shared/FoldedLines.vue'
import PackSignature from './PackSignature.vue'

const session = useSession()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const name = ref('')
const pack = ref<unknown>(null)
const changes = ref<readonly PackChange[]>([])
const choices = ref<Record<string, TakeChoice>>({})
const signature = ref<PackSignatureAnswer | null>(null)
const problems = ref<readonly Problem[]>([])
const trouble = ref('')
const open = ref(false)
const busy = ref(false)
const words = { new: '+ new', changed: '≠ changed', same: '= same' } as const
const titles: Readonly<Record<TakeChoice, string>> = { theirs: 'Theirs', mine: 'Mine', both: 'Both' }
const counts = computed(() => ({
  new: changes.value.filter((change) => change.state === 'new').length,
  changed: changes.value.filter((change) => change.state === 'changed').length,
  same: changes.value.filter((change) => change.state === 'same').length,
}))
const resting = computed(() => restingOn(changes.value))
const differing = computed(() => changes.value.filter((item) => item.state !== 'same'))
const mine = computed(() => Object.values(choices.value).filter((choice) => choice === 'mine').length)
const coming = computed(() => counts.value.new + counts.value.changed - mine.value)
const mark = computed(() => signatureOf(pack.value)?.by ?? 'pack')

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  name.value = file.name
  changes.value = []
  problems.value = []
  trouble.value = ''
  signature.value = null
  open.value = true
  if (file.size > PACK_LIMIT) {
    trouble.value = `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; a catalogue pack may have at most ${PACK_LIMIT / 1e6} MB. Nothing was sent.`
    return
  }
  await preview(await file.text())
}

/** Reads the pack here, as the server will: entry by entry, what is new, changed or the same by its hash. Its signature is tried there. */
async function preview(text: string): Promise<void> {
  const catalogue = session.catalogue
  if (!catalogue) return
  try {
    pack.value = JSON.parse(text) as unknown
  } catch {
    trouble.value = `${name.value} is not valid JSON, so it is no catalogue pack. Nothing was changed.`
    return
  }
  const read = readPack(pack.value, catalogue.entries)
  if (!read.ok) {
    trouble.value = 'This pack cannot be taken; all of it comes in or nothing.'
    problems.value = read.problems
    return
  }
  try {
    signature.value = await api('POST', '/api/catalogue/pack/signature', { pack: pack.value })
  } catch (thrown) {
    trouble.value = (thrown as Error).message
    return
  }
  if (signature.value?.state === 'broken') return
  changes.value = comparePack(read.entries, catalogue)
  choices.value = { ...proposedChoices(changes.value) }
}

function chooseAll(choice: TakeChoice): void {
  choices.value = Object.fromEntries(Object.keys(choices.value).map((id) => [id, choice]))
}

/** What differs, and what the choice means. */
function about({ entry: { entry } }: PackChange): readonly string[] {
  const { catalogue } = session
  const own = catalogue?.entries.find(({ id }) => id === entry.id)
  if (!catalogue || !own) return []
  const facts = differingFacts(own, entry, catalogue)
  const rest = resting.value.get(entry.id) ?? []
  const names =
    rest.length > 3 ? `${rest.slice(0, 3).join(', ')} and ${rest.length - 3} more` : rest.join(', ')
  const means = {
    theirs: 'New work gets theirs; jobs keep what they were planned with.',
    both: `Theirs comes beside yours, as “${entry.name} (${mark.value})”.`,
    mine:
      rest.length > 0
        ? `▲ ${names} of this pack would be read by yours, not by theirs.`
        : 'Yours stays; theirs is not taken.',
  }
  return [
    `Differs in: ${facts.length > 0 ? facts.join(', ') : 'what is not told of here'}.`,
    ...(rest.length > 0 && choices.value[entry.id] !== 'mine' ? [`${names} of this pack rests on it.`] : []),
    means[choices.value[entry.id] ?? 'mine'],
  ]
}

async function take(): Promise<void> {
  busy.value = true
  try {
    await api('POST', '/api/catalogue/pack', { pack: pack.value, choices: choices.value })
    await session.reloadCatalogue()
    open.value = false
  } catch (thrown) {
    trouble.value = (thrown as Error).message
    problems.value = thrown instanceof ApiError ? thrown.problems : []
    // What was changed meanwhile is compared anew when the pack is chosen again.
    changes.value = []
    await session.reloadCatalogue().catch(() => null)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    accept=".json,application/json"
    class="sr-only"
    aria-label="Catalogue pack file"
    tabindex="-1"
    @change="choose"
  />
  <v-btn
    v-if="session.may('catalogue')"
    variant="tonal"
    class="text-none"
    :prepend-icon="mdiFileUploadOutline"
    @click="chooser?.click()"
    >Import a pack</v-btn
  >
  <span v-else class="quiet">Packs are taken in by the owner, or by whoever the owner lets.</span>
  <v-dialog v-model="open" max-width="860" scrollable>
    <v-card aria-label="Catalogue pack">
      <v-card-title>Catalogue pack: {{ name }}</v-card-title>
      <v-card-text>
        <v-alert v-if="trouble" type="error" variant="tonal">{{ trouble }}</v-alert>
        <FoldedLines
          v-if="problems.length > 0"
          v-slot="{ line }"
          :lines="problems"
          :most="30"
          class="problems"
          ><strong>{{ line.path }}</strong> {{ line.message }}</FoldedLines
        >
        <PackSignature v-if="signature" :signature="signature" />
        <template v-if="changes.length > 0">
          <p class="mt-3">
            <strong>{{ counts.new }} new, {{ counts.changed }} changed, {{ counts.same }} the same.</strong>
            Jobs keep the entries they were planned with; they show where a newer one exists.
          </p>
          <div v-if="counts.changed > 0" class="all">
            <p>
              <strong
                >{{ counts.changed === 1 ? 'One is' : `${counts.changed} are` }} in your catalogue with other
                content.</strong
              >
              Another firm may have given one id to another thing: nothing of yours is replaced unless you say
              so.
            </p>
            <v-btn
              v-for="choice in counts.changed > 1 ? takeChoices : []"
              :key="choice"
              size="small"
              variant="tonal"
              class="text-none"
              @click="chooseAll(choice)"
              >{{ titles[choice] }} for all</v-btn
            >
          </div>
          <FoldedLines
            v-slot="{ line: change }"
            :lines="differing"
            :most="60"
            class="rows"
            aria-label="What it brings"
          >
            <div class="row">
              <span class="state">{{ words[change.state] }}</span>
              <span class="what">
                <strong>{{ change.entry.entry.name }}</strong>
                <span class="quiet maker"
                  >{{ change.entry.entry.maker }} · {{ change.entry.entry.kind }}</span
                >
                <template v-if="change.state === 'changed'">
                  <span v-for="line in about(change)" :key="line" class="about">{{ line }}</span>
                </template>
              </span>
              <v-btn-toggle
                v-if="change.state === 'changed'"
                v-model="choices[change.entry.entry.id]"
                mandatory
                density="compact"
                variant="outlined"
                :aria-label="`What becomes of ${change.entry.entry.name}`"
              >
                <v-btn
                  v-for="choice in takeChoices"
                  :key="choice"
                  :value="choice"
                  size="small"
                  class="text-none"
                  >{{ titles[choice] }}</v-btn
                >
              </v-btn-toggle>
            </div>
          </FoldedLines>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="open = false">Cancel</v-btn>
        <v-btn
          v-if="changes.length > 0 && coming > 0"
          color="primary"
          variant="flat"
          class="text-none"
          :loading="busy"
          @click="take"
          >Take {{ coming }} {{ coming === 1 ? 'entry' : 'entries' }}</v-btn
        >
        <span v-else-if="changes.length > 0" class="quiet">Nothing of it would change your catalogue.</span>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.all {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}
.all > p {
  flex: 1 1 100%;
}
.rows {
  list-style: none;
  padding: 0;
  margin-top: 8px;
}
.row {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  padding: 8px 0;
  border-top: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.state {
  white-space: nowrap;
}
.maker {
  margin-left: 8px;
}
.about {
  display: block;
  font-size: 0.8125rem;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
}
.problems {
  padding-left: 18px;
  margin-top: 8px;
}
</style>
