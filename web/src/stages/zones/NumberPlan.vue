<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { numberAll, printNumber, recordOf, stops, type NumberingPlan } from '#core'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const emit = defineEmits<{ said: [text: string] }>()
const open = ref(false)
const fresh = ref(false)
const plan = computed<NumberingPlan | null>(() => (open.value ? planOf(fresh.value) : null))

function planOf(anew: boolean): NumberingPlan {
  return numberAll(job.doc, job.catalogue, {
    newId: () => `zone:${uuid()}`,
    houseRules: job.rules,
    fresh: anew,
  })
}

/** One press, one edit, one undo. What would move numbers is shown first. */
function press(): void {
  const now = planOf(false)
  if (now.moves.length > 0 || !now.proven) {
    fresh.value = false
    open.value = true
  } else take(now)
}

defineExpose({ press })

function begin(): void {
  fresh.value = true
  open.value = true
}

function take(now: NumberingPlan | null): void {
  if (!now) return
  if (now.ops.length > 0) job.edit('zone.number', now.ops)
  open.value = false
  const left = now.left.map((item) => item.reason)
  const done =
    now.ops.length === 0 && left.length === 0
      ? 'Everything that can be numbered has its number already.'
      : `${now.added} ${now.added === 1 ? 'zone' : 'zones'} added, ${now.moved} moved.`
  emit(
    'said',
    job.system?.devices.length === 0
      ? 'There is nothing to number yet: add devices in the kit first.'
      : [done, ...new Set(left), ...withoutNumber(now)].join(' '),
  )
}

/** Who gets no number whatever is pressed here, and where that is decided. */
function withoutNumber({ without }: NumberingPlan): string[] {
  const { unfit, deferred } = without
  return [
    ...(unfit > 0
      ? [
          `${unfit === 1 ? '1 device does' : `${unfit} devices do`} not fit and ${unfit === 1 ? 'gets' : 'get'} no number: see the kit.`,
        ]
      : []),
    ...(deferred > 0
      ? [`${deferred === 1 ? '1 device waits' : `${deferred} devices wait`} for a place.`]
      : []),
  ]
}

/** Stops about numbers as they are: what is pinned, enrolled or left as programmed does not move. */
const stays = computed(() => job.findings.filter((finding) => finding.field === 'number' && stops(finding)))

const name = (id: string): string => {
  const zone = recordOf(job.doc, 'zone', id)
  const item = zone?.device ? job.system?.byId.get(zone.device) : undefined
  return zone?.label || item?.model.name || 'a zone'
}
const device = (id: string): string => {
  const item = job.system?.byId.get(id)
  return [item?.model.name, item?.device.room].filter(Boolean).join(', ')
}
const print = (number: number): string => printNumber(job.system?.panel ?? null, number)
const costs = computed(() => {
  const now = plan.value
  if (!now) return []
  const { left, split, disorder, room } = now.cost
  return [
    ['devices without a number', left],
    ['zones that move', now.moved],
    ['gaps within a device', split],
    ['pairs against the reading order', disorder],
    [`numbers lacking of ${job.rules.figures.growth} to grow`, room],
  ] as const
})
</script>

<template>
  <v-btn color="primary" class="text-none" :disabled="!job.system?.panel" @click="press"
    >Number everything</v-btn
  >
  <v-btn variant="text" class="text-none" :disabled="!job.system?.panel" @click="begin">Number afresh…</v-btn>
  <v-dialog v-model="open" max-width="760" scrollable>
    <v-card v-if="plan" aria-label="What numbering would change">
      <v-card-title>{{ fresh ? 'Numbered afresh' : 'Numbering, with as few moves as can be' }}</v-card-title>
      <v-card-text>
        <p class="quiet">
          Pinned and enrolled numbers stay. The rest is decided in this order: every device has its numbers,
          few numbers move, a device stays together, people can read it, room is left.
          <router-link to="/house-rules">House rules</router-link> decide the wired block and the room.
        </p>
        <ul class="costs">
          <li v-for="[words, cost] in costs" :key="words">
            <strong class="num">{{ cost }}</strong> {{ words }}
          </li>
        </ul>
        <p v-if="!plan.proven" class="quiet">◇ The search was cut short: a better plan may exist.</p>
        <section v-if="plan.left.length > 0">
          <h3 class="wrong">■ Without a number</h3>
          <ul>
            <li v-for="item in plan.left" :key="item.device">{{ device(item.device) }}: {{ item.reason }}</li>
          </ul>
        </section>
        <section v-if="plan.moves.length > 0">
          <h3>What moves</h3>
          <table class="plain">
            <thead>
              <tr>
                <th>Zone</th>
                <th class="num">From</th>
                <th class="num">To</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="move in plan.moves" :key="move.zone">
                <td>{{ name(move.zone) }}</td>
                <td class="num">{{ print(move.from) }}</td>
                <td class="num">{{ print(move.to) }}</td>
                <td class="quiet">{{ move.why }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <p v-if="plan.added > 0">{{ plan.added }} {{ plan.added === 1 ? 'zone is' : 'zones are' }} added.</p>
        <template v-if="plan.ops.length === 0">
          <p v-if="stays.length === 0">Nothing would change: every number is right as it is.</p>
          <section v-else>
            <h3 class="wrong">■ Numbers that stay wrong</h3>
            <p>
              What is pinned, enrolled or left as programmed does not move by itself. Unpin it, take it out at
              Enrol, or use what the finding offers.
            </p>
            <ul>
              <li v-for="finding in stays" :key="finding.rule + finding.subject">{{ finding.text }}</li>
            </ul>
          </section>
        </template>
        <p v-for="words in withoutNumber(plan)" :key="words" class="quiet">{{ words }}</p>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="open = false">Cancel</v-btn>
        <v-btn class="text-none" @click="fresh = !fresh">{{
          fresh ? 'Rather move few' : 'Rather number afresh'
        }}</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          class="text-none"
          :disabled="plan.ops.length === 0"
          @click="take(plan)"
          >Number so</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.costs {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  padding: 0;
  margin: 8px 0;
}
.wrong {
  color: rgb(var(--v-theme-error));
}
</style>
