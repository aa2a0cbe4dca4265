<script setup lang="ts">
import { computed } from 'vue'
import { recordOf, recordsOf, servedAreas, serveOps, type Device } from '#core'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const areas = computed(() => recordsOf(job.doc, 'area'))
/** Fobs with zone numbers set the areas of their zones. */
const byZones = computed(() => job.system?.panel?.slots.fobs.by === 'numbers')
const rows = computed(() =>
  (job.system?.devices ?? []).flatMap(({ device, model }) => {
    if (model.class !== 'keypad' && (model.slot !== 'fob' || byZones.value)) return []
    const user = recordOf(job.doc, 'user', device.user)
    const where = user ? `of ${user.name}` : device.room ? `in ${device.room}` : ''
    const served = servedAreas(job.doc, job.system?.panel ?? null, device)
    return [{ device, name: `${model.name} ${where}`.trim(), served: served ?? all.value }]
  }),
)
const all = computed<ReadonlySet<string>>(() => new Set(areas.value.map((area) => area.id)))

/** One that sets nothing is no keypad: its last area stays. */
function turn(device: Device, served: ReadonlySet<string>, area: string, on: boolean): void {
  const next = new Set(served)
  if (on) next.add(area)
  else next.delete(area)
  if (next.size > 0) job.edit('keypad.areas', serveOps(job.doc, device, next))
}
</script>

<template>
  <div v-if="job.system?.panel?.couplings?.keypadAreas && rows.length > 0" class="who">
    <h3>Who sets which</h3>
    <p class="quiet small">
      A keypad {{ byZones ? '' : 'or fob ' }}sets and unsets only its own areas; the entry delay counts to a
      keypad that does.
      <template v-if="byZones">A fob sets the areas of its own zones.</template>
    </p>
    <table v-stack class="plain">
      <thead>
        <tr>
          <th>{{ byZones ? 'Keypad' : 'Keypad or fob' }}</th>
          <th v-for="area in areas" :key="area.id">{{ area.number }} {{ area.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.device.id">
          <td>{{ row.name }}</td>
          <td v-for="area in areas" :key="area.id">
            <input
              type="checkbox"
              :checked="row.served.has(area.id)"
              :disabled="row.served.has(area.id) && row.served.size === 1"
              :title="
                row.served.has(area.id) && row.served.size === 1
                  ? 'Its last area: tick another first'
                  : `${row.name} sets ${area.name}`
              "
              :aria-label="`${row.name} sets ${area.name}`"
              @change="turn(row.device, row.served, area.id, ($event.target as HTMLInputElement).checked)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.who {
  margin-top: 14px;
}
.small {
  font-size: 0.8125rem;
}
table {
  width: auto;
  min-width: min(420px, 100%);
}
input {
  width: 20px;
  height: 20px;
}
</style>
