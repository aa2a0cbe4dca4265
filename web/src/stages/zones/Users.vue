<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { nextOrder, recordProblems, recordsOf, type Op, type SystemUser } from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellText from '../../shared/CellText.vue'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const name = ref('')
const fault = ref('')
const users = computed(() => recordsOf(job.doc, 'user'))
const choices = computed(() => [
  { title: 'nobody yet', value: null },
  ...users.value.map((user) => ({ title: user.name, value: user.id })),
])
const slotted = computed(() => (job.system?.devices ?? []).filter(({ model }) => model.slot !== 'none'))

function add(): void {
  const record: SystemUser = {
    id: `user:${uuid()}`,
    type: 'user',
    name: name.value.trim(),
    order: nextOrder(job.doc, 'user'),
  }
  const problems = recordProblems(record)
  fault.value = problems.map((problem) => problem.message).join('; ')
  if (problems.length > 0) return
  job.edit('user.add', [{ op: 'add', record }])
  name.value = ''
}

/** A user who leaves takes no fob along: those are unbound first. */
function remove(user: SystemUser): void {
  const bound = (job.system?.devices ?? []).filter(({ device }) => device.user === user.id)
  const ops = bound.map(({ device }): Op => ({
    op: 'set',
    id: device.id,
    field: 'user',
    from: user.id,
    to: null,
  }))
  job.edit('user.remove', [...ops, { op: 'remove', record: user }])
}
</script>

<template>
  <div class="both">
    <section class="sheet pa-4">
      <h2>Fobs, keypads and sirens</h2>
      <p v-if="slotted.length === 0" class="quiet mt-2">None in the kit.</p>
      <table v-else v-stack class="plain mt-2">
        <thead>
          <tr>
            <th>Device</th>
            <th>Slot</th>
            <th>Carried by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ device, model } in slotted" :key="device.id">
            <td>{{ model.name }}{{ device.room ? ` in ${device.room}` : '' }}</td>
            <td>
              <CellText
                :id="device.id"
                field="slot"
                kind="device.set"
                :label="`Slot of ${model.name}`"
                number
                :size="4"
                placeholder="–"
              />
            </td>
            <td>
              <CellChoice
                v-if="model.slot === 'fob'"
                :id="device.id"
                field="user"
                kind="device.set"
                :label="`User of ${model.name}`"
                :items="choices"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section class="sheet pa-4">
      <h2>Users of the system</h2>
      <p class="quiet mb-2">Names only: codes are never kept here.</p>
      <ul class="users">
        <li v-for="user in users" :key="user.id">
          <CellText
            :id="user.id"
            field="name"
            kind="user.set"
            :label="`Name of user ${user.name}`"
            :size="18"
          />
          <v-btn
            size="x-small"
            variant="text"
            class="text-none"
            :aria-label="`Remove user ${user.name}`"
            @click="remove(user)"
            >Remove</v-btn
          >
        </li>
      </ul>
      <form class="d-flex ga-2 mt-2 no-print" @submit.prevent="add">
        <v-text-field v-model="name" label="New user" :error-messages="fault" />
        <v-btn type="submit" variant="tonal">Add user</v-btn>
      </form>
    </section>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 320px), 1fr));
  gap: 16px;
  margin-top: 16px;
}
.users {
  list-style: none;
  padding: 0;
}
</style>
