<script setup lang="ts">
import { mdiAccountPlusOutline, mdiContentCopy } from '@mdi/js'
import { computed, onMounted, reactive, ref } from 'vue'
import { rights, type PeopleAnswer, type Right } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { dayTime } from './when.ts'
import { useFaults } from './useFaults.ts'
import { useLeftEdits } from './useLeftEdits.ts'
import { vStack } from '../shared/stack.ts'

type Person = PeopleAnswer['people'][number]

const session = useSession()
const { error, faults, busy, run } = useFaults()
const answer = ref<PeopleAnswer>({ people: [], invitations: [] })
const invited = reactive({ name: '', role: 'installer' })
/** A link just made, shown until another is. */
const made = ref<{ words: string; url: string } | null>(null)
const copied = ref(false)
const leaving = ref<Person | null>(null)
const said = ref('')

const here = computed(() => answer.value.people.filter((person) => person.removedAt === null))
const gone = computed(() => answer.value.people.filter((person) => person.removedAt !== null))
const rightWords: Readonly<Record<Right, string>> = {
  catalogue: 'catalogue',
  rules: 'house rules',
  columns: 'list headings',
}

const unsent = useLeftEdits(() => session.person?.firmId ?? '')
const throwing = ref<Person | null>(null)

onMounted(() => run(load))

async function load(): Promise<void> {
  answer.value = await api<PeopleAnswer>('GET', '/api/people')
  await lookForUnsent()
}

function lookForUnsent(): Promise<void> {
  return unsent.look(gone.value.map((person) => person.id))
}

function waitingWords(person: Person): string {
  const count = unsent.countOf(person.id)
  return count === 1 ? `1 change of ${person.name} waits` : `${count} changes of ${person.name} wait`
}

async function handIn(person: Person): Promise<void> {
  await run(() => unsent.handIn(person.id))
  said.value = unsent.said.value
  await lookForUnsent()
}

async function throwAway(): Promise<void> {
  const person = throwing.value
  throwing.value = null
  if (!person) return
  await unsent.discard(person.id)
  said.value = unsent.said.value
  await lookForUnsent()
}

async function change(work: () => Promise<PeopleAnswer>, done = ''): Promise<void> {
  said.value = ''
  if (await run(async () => (answer.value = await work()))) said.value = done
  // What was shown as chosen is not so: show again what is.
  else await load().catch(() => undefined)
}

function setRole(person: Person, role: string, given: readonly Right[]): Promise<void> {
  return change(
    () => api<PeopleAnswer>('PUT', `/api/people/${person.id}`, { role, rights: given }),
    `${person.name} is ${role === 'viewer' ? 'a viewer' : `an ${role}`} now.`,
  )
}

function turn(person: Person, right: Right, on: boolean): Promise<void> {
  const given = rights.filter((one) => (one === right ? on : person.rights.includes(one)))
  return setRole(person, person.role, given)
}

async function invite(): Promise<void> {
  const name = invited.name.trim()
  await run(async () => {
    const { token } = await api<{ token: string }>('POST', '/api/invitations', invited)
    show(`Send this to ${name || 'whom you invite'}. It works once, within three days.`, token)
    invited.name = ''
    await load()
  })
}

async function forgot(person: Person): Promise<void> {
  await run(async () => {
    const { token } = await api<{ token: string }>('POST', `/api/people/${person.id}/password-link`)
    show(`With this ${person.name} chooses a new password. It works once, within a day.`, token)
  })
}

function show(words: string, token: string): void {
  made.value = { words, url: `${location.origin}/link#${token}` }
  copied.value = false
}

async function copy(): Promise<void> {
  if (!made.value) return
  // A page over plain http has no clipboard: the link stands there to be marked.
  copied.value = await Promise.resolve(navigator.clipboard?.writeText(made.value.url)).then(
    () => navigator.clipboard !== undefined,
    () => false,
  )
}

async function signOut(person: Person): Promise<void> {
  await run(async () => {
    const { ended } = await api<{ ended: number }>('DELETE', `/api/people/${person.id}/sessions`)
    said.value = `${person.name}: ${ended === 1 ? 'one session' : `${ended} sessions`} ended.`
    await load()
  })
}

async function remove(): Promise<void> {
  const person = leaving.value
  leaving.value = null
  if (person)
    await change(
      () => api<PeopleAnswer>('DELETE', `/api/people/${person.id}`),
      `${person.name} is out. The name stays in the journals.`,
    )
}
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head"><h1>People of the firm</h1></div>
      <v-alert v-if="error" type="error" variant="tonal" density="compact" class="mb-4" role="alert">{{
        error
      }}</v-alert>
      <p v-if="said" class="mb-3" role="status">{{ said }}</p>
      <div class="sheet pa-4 mb-6 wide">
        <table v-stack class="plain">
          <thead>
            <tr>
              <th>Name</th>
              <th>Sign-in name</th>
              <th>Role</th>
              <th>May also change</th>
              <th>Last seen</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="person in here" :key="person.id">
              <td>
                {{ person.name }}<span v-if="person.id === session.person?.id" class="quiet"> (you)</span>
              </td>
              <td class="id">{{ person.login }}</td>
              <td>
                <v-select
                  :model-value="person.role"
                  :items="['viewer', 'installer', 'owner']"
                  :aria-label="`Role of ${person.name}`"
                  density="compact"
                  hide-details
                  class="role"
                  @update:model-value="(role: string) => setRole(person, role, person.rights)"
                />
              </td>
              <td>
                <span v-if="person.role === 'owner'" class="quiet">everything</span>
                <span v-else-if="person.role === 'viewer'" class="quiet">nothing: looks on</span>
                <template v-else>
                  <label v-for="right in rights" :key="right" class="right"
                    ><input
                      type="checkbox"
                      :checked="person.rights.includes(right)"
                      @change="(event) => turn(person, right, (event.target as HTMLInputElement).checked)"
                    />
                    {{ rightWords[right] }}</label
                  >
                </template>
              </td>
              <td>{{ person.usedAt ? dayTime(person.usedAt) : 'never' }}</td>
              <td class="acts">
                <v-btn
                  v-if="person.id === session.person?.id"
                  to="/account"
                  size="small"
                  variant="text"
                  class="text-none"
                  >Your account</v-btn
                >
                <v-btn v-else size="small" variant="text" class="text-none" @click="forgot(person)"
                  >New password…</v-btn
                >
                <v-btn
                  v-if="person.id !== session.person?.id"
                  size="small"
                  variant="text"
                  class="text-none"
                  @click="signOut(person)"
                  >Sign out</v-btn
                >
                <v-btn
                  v-if="person.id !== session.person?.id"
                  size="small"
                  variant="text"
                  class="text-none"
                  @click="leaving = person"
                  >Remove…</v-btn
                >
              </td>
            </tr>
            <tr v-for="link in answer.invitations" :key="link.id">
              <td class="quiet">{{ link.name || 'Somebody' }}, invited</td>
              <td></td>
              <td>{{ link.role }}</td>
              <td class="quiet">until {{ dayTime(link.expiresAt) }}</td>
              <td class="quiet">not yet</td>
              <td class="acts">
                <v-btn
                  size="small"
                  variant="text"
                  class="text-none"
                  @click="
                    change(
                      () => api<PeopleAnswer>('DELETE', `/api/invitations/${link.id}`),
                      'The invitation is taken back.',
                    )
                  "
                  >Take it back</v-btn
                >
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="gone.length > 0" class="quiet mt-3 mb-0">
          Left the firm, named in journals:
          {{ gone.map((person) => `${person.name} (${dayTime(person.removedAt ?? '')})`).join(', ') }}
        </p>
        <template v-for="person in gone" :key="person.id">
          <div
            v-if="unsent.countOf(person.id) > 0"
            class="unsent"
            role="group"
            :aria-label="`Unsent of ${person.name}`"
          >
            <span
              >{{ waitingWords(person) }} unsent on this device. Handed in they are yours, made by
              {{ person.name }}; what was seen or vouched for in them counts only once somebody repeats
              it.</span
            >
            <v-btn size="small" variant="tonal" class="text-none" :loading="busy" @click="handIn(person)"
              >Hand them in</v-btn
            >
            <v-btn size="small" variant="text" class="text-none" @click="throwing = person"
              >Throw away…</v-btn
            >
          </div>
        </template>
      </div>
      <h2>Invite somebody</h2>
      <form class="adding" @submit.prevent="invite">
        <v-text-field
          v-model="invited.name"
          label="Who it is for (may stay empty)"
          :error-messages="faults.name"
        />
        <v-select v-model="invited.role" label="Role" :items="['viewer', 'installer', 'owner']" />
        <v-btn
          type="submit"
          color="primary"
          size="large"
          class="text-none"
          :loading="busy"
          :prepend-icon="mdiAccountPlusOutline"
          >Make the link</v-btn
        >
      </form>
      <div v-if="made" class="sheet pa-4 mt-3 link" role="status">
        <p class="mt-0 mb-2">{{ made.words }}</p>
        <div class="row">
          <code class="id">{{ made.url }}</code>
          <v-btn
            size="small"
            variant="tonal"
            class="text-none"
            :prepend-icon="mdiContentCopy"
            @click="copy"
            >{{ copied ? 'Copied' : 'Copy' }}</v-btn
          >
        </div>
        <p class="quiet mt-2 mb-0">
          Whoever has it can use it: send it to that person alone. It is shown only now.
        </p>
      </div>
      <p class="quiet mt-3">
        A viewer reads and exports. An installer does everything but people and what is the owner’s:
        catalogue, house rules and what list headings mean, unless the owner gives it above.
      </p>
    </div>
    <v-dialog :model-value="leaving !== null" max-width="520" @update:model-value="leaving = null">
      <v-card v-if="leaving" class="pa-6" :title="`Take ${leaving.name} out of the firm?`">
        <p>
          {{ leaving.name }} is signed out everywhere and cannot come in again. The name stays in the journals
          of all jobs. What still waits unsent on a device can be handed in there by an owner, on this page.
        </p>
        <div class="d-flex ga-3 justify-end mt-4">
          <v-btn variant="tonal" class="text-none" @click="leaving = null">Cancel</v-btn>
          <v-btn color="primary" class="text-none" @click="remove">Take out</v-btn>
        </div>
      </v-card>
    </v-dialog>
    <v-dialog :model-value="throwing !== null" max-width="520" @update:model-value="throwing = null">
      <v-card v-if="throwing" class="pa-6" :title="`Throw away what ${throwing.name} had not sent?`">
        <p>
          {{ unsent.countOf(throwing.id) }} changes are on this device alone. Thrown away they are gone for
          good.
        </p>
        <div class="d-flex ga-3 justify-end mt-4">
          <v-btn variant="tonal" class="text-none" @click="throwing = null">Cancel</v-btn>
          <v-btn color="primary" class="text-none" @click="throwAway">Throw away</v-btn>
        </div>
      </v-card>
    </v-dialog>
  </v-main>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
.adding {
  margin-top: 12px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 12px;
  align-items: start;
  max-width: 820px;
}
.role {
  min-width: 130px;
}
.right {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  min-height: 28px;
  margin-right: 12px;
  white-space: nowrap;
}
.plain:not(.stacked) .acts {
  white-space: nowrap;
  text-align: right;
}
.link {
  max-width: 820px;
}
.unsent {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin-top: 10px;
}
.unsent > span {
  flex: 1 1 420px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.row code {
  overflow-wrap: anywhere;
  user-select: all;
}
</style>
