<script setup lang="ts">
import { ref } from 'vue'
import { recordProblems, type Finding } from '#core'
import { useSession } from '../../line/session.ts'
import { useJob } from '../../store/job-store.ts'
import { barredFrom, waiverOf } from './waiver.ts'

const props = defineProps<{ finding: Finding }>()
const emit = defineEmits<{ done: [] }>()
const job = useJob()
const session = useSession()
const reason = ref('')
const fault = ref('')
const barred = barredFrom(props.finding, session.person?.role)

function take(): void {
  const record = waiverOf(props.finding, reason.value.trim(), job.fresh())
  fault.value = reason.value.trim() === '' ? 'Write the reason: it is printed at hand-over.' : ''
  if (fault.value !== '') return
  const problems = recordProblems(record)
  fault.value = problems.map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`).join('; ')
  if (problems.length === 0 && job.edit('finding.waive', [{ op: 'add', record }])) emit('done')
}
</script>

<template>
  <div class="form">
    <p v-if="barred" class="quiet">{{ barred }}</p>
    <template v-else>
      <label class="small" :for="`why-${finding.rule}`"
        >Reason, printed at hand-over. It holds for the figures as they are now.</label
      >
      <textarea :id="`why-${finding.rule}`" v-model="reason" rows="2" maxlength="500" />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div class="acts">
        <v-btn size="small" color="primary" class="text-none" @click="take">I take it upon me</v-btn>
        <v-btn size="small" variant="text" class="text-none" @click="emit('done')">Cancel</v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.form {
  margin-top: 6px;
  padding: 10px;
  background: rgb(var(--v-theme-background));
  border-radius: 8px;
}
textarea {
  width: 100%;
  font: inherit;
  color: inherit;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-radius: 5px;
  padding: 5px 8px;
}
.fault {
  color: rgb(var(--v-theme-error));
}
.acts {
  display: flex;
  gap: 6px;
}
.small {
  font-size: 0.8125rem;
}
</style>
