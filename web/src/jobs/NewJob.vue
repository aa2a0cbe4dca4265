<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import {
  blankJob,
  emptyDocument,
  firmwareWhenChosen,
  firstDelays,
  recordProblems,
  SCHEMA,
  startOps,
  type JobInfo,
  type Region,
} from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import {
  exerciseItems,
  gradeItems,
  kindItems,
  monitoredItems,
  paceItems,
  practiceItems,
  regionItems,
} from './words.ts'

const session = useSession()
const router = useRouter()
const jobId = uuid()
const editId = uuid()
const busy = ref(false)
const error = ref('')
const faults = ref<Record<string, string>>({})
const form = reactive({
  name: '',
  address: '',
  region: 'europe' as Region,
  kind: 'new' as JobInfo['kind'],
  monitored: true,
  grade: 2 as JobInfo['grade'],
  slowest: 'ordinary' as JobInfo['slowest'],
  petKg: '',
  wishes: '',
  panel: null as string | null,
  practice: false,
  exercise: 'plain' as JobInfo['exercise'],
})

onMounted(() => session.loadCatalogue())
const offered = computed(() => session.offered(form))
const panels = computed(() =>
  offered.value
    .all('panel')
    .filter((panel) => form.region === 'own' || panel.regions.includes(form.region))
    .map((panel) => ({ title: `${panel.name} — ${panel.style}`, value: panel.id })),
)
watch(
  () => [form.region, form.practice],
  () => {
    if (!panels.value.some((item) => item.value === form.panel)) form.panel = null
  },
)

function record(): JobInfo {
  const pet = form.petKg.trim().replace(',', '.')
  const panel = offered.value.get('panel', form.panel)
  return {
    ...blankJob,
    id: 'job:main',
    ...form,
    petKg: pet === '' ? null : Number(pet),
    radioFirmware: firmwareWhenChosen(panel, form.kind),
    ...firstDelays(panel, form.region),
    airSeed: Math.floor(Math.random() * 4294967296),
  }
}

async function begin(): Promise<void> {
  const info = record()
  const problems = recordProblems(info)
  faults.value = Object.fromEntries(problems.map((p) => [p.path, p.message]))
  if (problems.length > 0 || !session.catalogue) return
  busy.value = true
  error.value = ''
  try {
    const ops = startOps(emptyDocument, session.catalogue, info)
    const edit = {
      id: editId,
      kind: 'job.start',
      schema: SCHEMA,
      by: { id: session.person?.id ?? null, name: session.person?.name ?? '' },
      madeAt: new Date().toISOString(),
      ops,
    }
    await api('PUT', `/api/jobs/${jobId}`, { edit })
    // The house comes first: uses, delays and the order of the zones follow from it.
    await router.push(`/jobs/${jobId}/survey`)
  } catch (thrown) {
    error.value = (thrown as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-main>
    <form class="page form" @submit.prevent="begin">
      <h1>New job</h1>
      <v-text-field v-model="form.name" v-focus label="Name of the job" :error-messages="faults.name" />
      <v-text-field v-model="form.address" label="Address" :error-messages="faults.address" />
      <div class="pair">
        <v-select
          v-model="form.practice"
          label="Real or practice"
          :items="practiceItems"
          hint="Fixed once the job is begun"
          persistent-hint
        />
        <v-select v-if="form.practice" v-model="form.exercise" label="Exercise" :items="exerciseItems" />
      </div>
      <h2>System</h2>
      <p v-if="session.catalogue && panels.length === 0" class="none">
        {{
          form.practice
            ? 'No panel of this region is in the catalogue.'
            : 'No panel of this region is offered for real work: a job needs one to be planned.'
        }}
        <RouterLink to="/catalogue">Describe your equipment in the catalogue</RouterLink>
      </p>
      <div class="pair">
        <v-select
          v-model="form.region"
          label="Region"
          :items="[...regionItems]"
          hint="Decides legal bands, units and delay limits"
          persistent-hint
        />
        <v-select
          v-model="form.panel"
          label="Panel"
          :items="panels"
          clearable
          hint="May stay open until the kit is known"
          persistent-hint
        />
        <v-select v-model="form.kind" label="New or takeover" :items="kindItems" />
        <v-select v-model="form.monitored" label="Reports" :items="monitoredItems" />
        <v-select
          v-if="form.region !== 'north-america'"
          v-model="form.grade"
          label="Grade"
          :items="gradeItems"
        />
      </div>
      <h2>Who lives there</h2>
      <div class="pair">
        <v-select v-model="form.slowest" label="Slowest person" :items="paceItems" />
        <v-text-field
          v-model="form.petKg"
          label="Heaviest pet"
          suffix="kg"
          inputmode="decimal"
          :error-messages="faults.petKg"
          hint="Empty for none"
          persistent-hint
        />
      </div>
      <v-textarea
        v-model="form.wishes"
        label="Wishes of the customer"
        rows="2"
        auto-grow
        :error-messages="faults.wishes"
      />
      <v-alert v-if="error" type="error" variant="tonal" role="alert">{{ error }}</v-alert>
      <div class="d-flex ga-3">
        <v-btn type="submit" color="primary" size="large" :loading="busy">Begin the job</v-btn>
        <v-btn to="/jobs" variant="text" size="large">Cancel</v-btn>
      </div>
    </form>
  </v-main>
</template>

<style scoped>
.form {
  max-width: 760px;
  display: grid;
  gap: 16px;
}
.none {
  margin: 0;
}
.pair {
  display: grid;
  align-items: start;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 14px 16px;
}
</style>
