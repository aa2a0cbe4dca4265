<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { choiceWords, evidenceOf, recordsOf, schools, type Departure, type SchoolKey } from '#core'
import { useSession } from '../../line/session.ts'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const session = useSession()
const departures = computed(() => new Map(recordsOf(job.doc, 'departure').map((item) => [item.rule, item])))
const fixed = computed(() => evidenceOf(job.doc, 'fixed-rules')[0])
const base = computed(() => fixed.value?.rules ?? session.houseRules)
/** A choice that is made but has no reason yet. */
const asked = ref<SchoolKey | null>(null)
const draft = reactive({ choice: '', reason: '' })
const fault = ref('')

function choose(key: SchoolKey, choice: string): void {
  fault.value = ''
  const there = departures.value.get(key)
  if (choice === base.value.schools[key]) {
    asked.value = null
    if (there) job.edit('departure.end', [{ op: 'remove', record: there }])
    return
  }
  asked.value = key
  Object.assign(draft, { choice, reason: there?.reason ?? '' })
}

/** A departure stands only with its reason. */
function depart(key: SchoolKey): void {
  const reason = draft.reason.trim()
  if (reason === '') {
    fault.value = 'Write the reason: the hand-over shows it.'
    return
  }
  const there = departures.value.get(key)
  const record: Departure = {
    id: `departure:${key}`,
    type: 'departure',
    rule: key,
    choice: draft.choice,
    reason: reason.slice(0, 500),
    made: job.fresh().made,
    at: job.fresh().at,
  }
  job.edit('departure.begin', [
    ...(there ? [{ op: 'remove' as const, record: there }] : []),
    { op: 'add', record },
  ])
  asked.value = null
}
</script>

<template>
  <details class="sheet job-rules">
    <summary>
      House rules of this job
      <span class="quiet small"
        >{{ departures.size === 0 ? 'as the firm' : `${departures.size} other than the firm’s`
        }}{{ fixed ? ', fixed at hand-over' : '' }}</span
      >
    </summary>
    <table v-stack class="plain">
      <thead>
        <tr>
          <th>Question</th>
          <th>{{ fixed ? 'At hand-over' : 'The firm' }}</th>
          <th>This job</th>
          <th>Reason</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="school in schools" :key="school.key">
          <td>{{ school.question }}</td>
          <td class="quiet">{{ choiceWords(school.key, base.schools[school.key]) }}</td>
          <td>
            <select
              :value="asked === school.key ? draft.choice : job.rules.schools[school.key]"
              :aria-label="`${school.question}, this job`"
              @change="choose(school.key, ($event.target as HTMLSelectElement).value)"
            >
              <option v-for="choice in school.choices" :key="choice.key" :value="choice.key">
                {{ choice.name }}
              </option>
            </select>
          </td>
          <td>
            <form v-if="asked === school.key" class="ask" @submit.prevent="depart(school.key)">
              <input
                v-model="draft.reason"
                :aria-label="`Reason: ${school.question}`"
                placeholder="why this job departs"
                maxlength="500"
              />
              <v-btn size="small" type="submit" color="primary" class="text-none">Depart</v-btn>
              <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
            </form>
            <span v-else>{{ departures.get(school.key)?.reason ?? '' }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.job-rules {
  padding: 12px 20px;
}
summary {
  cursor: pointer;
  font-weight: 650;
}
.small {
  font-size: 0.8125rem;
  font-weight: 400;
}
select,
input {
  font: inherit;
  color: inherit;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-theme-on-surface), 0.3);
  border-radius: 5px;
  padding: 3px 6px;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.fault {
  color: rgb(var(--v-theme-error));
}
</style>
