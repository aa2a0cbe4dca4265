<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { lowerFirst, ruleOf, typeOfId, type Finding } from '#core'
import { useSession } from '../../line/session.ts'
import OpsPreview from '../../shared/OpsPreview.vue'
import Remedies from '../../shared/Remedies.vue'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import WaiveForm from './WaiveForm.vue'
import { barredFrom, waiverOf } from './waiver.ts'

/** Findings of a device that does not fit, or not without a loss. */
const fitRules: ReadonlySet<string> = new Set(['no-fit', 'receiver-full', 'fit-loss', 'fit-unknown'])
const props = defineProps<{ finding: Finding; here?: boolean }>()
const emit = defineEmits<{ show: [finding: Finding] }>()
const job = useJob()
const { day } = useWritten()
const session = useSession()
/** Which way out is looked at: 0 the first, 1 and on the others; null for none. */
const open = ref<number | null>(null)
const ways = computed(() => [props.finding.fix, ...props.finding.others].filter((way) => way !== null))
const shown = computed(() => (open.value === null ? null : (ways.value[open.value] ?? null)))
const waiving = ref(false)
/** What lets a device fit is sought when it is asked for: it tries the catalogue. */
const helping = ref(false)
const helpable = computed(
  () =>
    fitRules.has(props.finding.rule) && typeOfId(props.finding.subject) === 'device' && !props.finding.waived,
)
const look = computed(() => severityLook[props.finding.severity])
const rule = computed(() => ruleOf(props.finding.rule))
/** What nobody can take on is not offered to be. */
const never = computed(() => rule.value.waive === 'never')
const barred = computed(() => barredFrom(props.finding, session.person?.role))

function apply(): void {
  if (shown.value) job.edit(`fix.${props.finding.rule}`, shown.value.ops)
  open.value = null
}

/** Taking a waiver back is a record of its own: both stay to be read. */
function takeBack(): void {
  const { waived } = props.finding
  if (!waived) return
  const record = {
    id: `waiver-end:${uuid()}`,
    type: 'waiver-end',
    waiver: waived.id,
    rule: waived.rule,
    subject: waived.subject,
    ...job.fresh(),
  } as const
  job.edit('finding.unwaive', [{ op: 'add', record }])
}

/** A waiver of before is given again, in one's own name and for the facts as they are. */
function renew(): void {
  const { earlier } = props.finding
  if (!earlier) return
  job.edit('finding.waive', [{ op: 'add', record: waiverOf(props.finding, earlier.reason, job.fresh()) }])
}
</script>

<template>
  <article class="finding">
    <div
      class="head"
      :style="finding.waived ? {} : { color: `rgb(var(--v-theme-${look.color}))` }"
      :class="{ quiet: finding.waived }"
    >
      <span aria-hidden="true">{{ finding.waived ? '◇' : look.glyph }}</span>
      {{ finding.waived ? `Taken on (${look.word.toLowerCase()})` : look.word }}: {{ rule.title }}
    </div>
    <p>{{ finding.text }}</p>
    <p v-if="finding.waived" class="small">
      {{ finding.waived.made.name }}, {{ day(finding.waived.at) }}: “{{ finding.waived.reason }}”
    </p>
    <p v-if="finding.earlier" class="small">
      Taken on for an earlier wording by {{ finding.earlier.made.name }}, {{ day(finding.earlier.at) }}: “{{
        finding.earlier.reason
      }}” It counts again once renewed.
    </p>
    <div class="acts">
      <v-btn v-if="finding.earlier && !barred" size="small" variant="tonal" class="text-none" @click="renew"
        >Renew it, in my name</v-btn
      >
      <v-btn v-if="!here" size="small" variant="text" class="text-none" @click="emit('show', finding)"
        >Show</v-btn
      >
      <template v-if="!shown">
        <v-btn
          v-for="(way, index) in ways"
          :key="way.title"
          size="small"
          :variant="index === 0 ? 'tonal' : 'text'"
          class="text-none"
          @click="open = index"
          >{{ index === 0 ? '' : 'Or: ' }}{{ index === 0 ? way.title : lowerFirst(way.title) }}…</v-btn
        >
      </template>
      <v-btn
        v-if="helpable"
        size="small"
        variant="tonal"
        class="text-none"
        :aria-expanded="helping"
        @click="helping = !helping"
        >What would help</v-btn
      >
      <v-btn v-if="finding.waived" size="small" variant="text" class="text-none" @click="takeBack"
        >Take that back</v-btn
      >
      <v-btn
        v-else-if="!waiving && !never"
        size="small"
        variant="text"
        class="text-none"
        @click="waiving = true"
        >Leave it, with a reason…</v-btn
      >
    </div>
    <Remedies v-if="helping && helpable" :device="finding.subject" class="mt-2" />
    <WaiveForm v-if="waiving && !finding.waived" :finding="finding" @done="waiving = false" />
    <div v-if="shown" class="preview">
      <h3>{{ shown.title }}: this would change</h3>
      <OpsPreview :ops="shown.ops" />
      <p class="quiet small">Rule: {{ rule.source }}.</p>
      <div class="acts">
        <v-btn size="small" color="primary" class="text-none" @click="apply">Apply</v-btn>
        <v-btn size="small" variant="text" class="text-none" @click="open = null">Cancel</v-btn>
      </div>
    </div>
    <details v-else class="small quiet">
      <summary>Why this is a rule</summary>
      {{ rule.source }}.<template v-if="never">
        Nobody can take it upon themselves: the panel or physics forbids it.</template
      >
    </details>
  </article>
</template>

<style scoped>
.finding {
  padding: 12px 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.head {
  font-weight: 650;
  font-size: 0.875rem;
}
p {
  margin: 4px 0 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.acts :deep(.v-btn__content) {
  white-space: normal;
}
.acts :deep(.v-btn) {
  height: auto;
  min-height: 28px;
}
.preview {
  margin-top: 8px;
  padding: 10px;
  background: rgb(var(--v-theme-background));
  border-radius: 8px;
}
.small {
  font-size: 0.8125rem;
}
summary {
  cursor: pointer;
}
</style>
