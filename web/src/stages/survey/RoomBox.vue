<script setup lang="ts">
import { mdiDoor, mdiStairs, mdiWindowClosedVariant } from '@mdi/js'
import { computed } from 'vue'
import type { Link, OpeningIn, Room, RoomContents } from '#core'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'
import DeviceChip from './DeviceChip.vue'

const props = defineProps<{
  room: Room
  contents: RoomContents | null
  /** Ways that the picture draws, and those that it cannot. */
  gates: readonly Link[]
  links: readonly Link[]
  /** On the way that is shown. */
  lit: boolean
}>()
const emit = defineEmits<{ pick: [id: string]; point: [opening: string | null] }>()
const job = useJob()
const facts = computed(() => {
  const { sleeps, petKg, heated, hottestC, metal, kind } = props.room
  return [
    sleeps ? 'slept in' : '',
    petKg ? `pet ${petKg} kg` : '',
    heated || kind === 'outdoors' ? '' : 'unheated',
    hottestC === null ? '' : `up to ${hottestC} °C`,
    metal ? 'metal' : '',
  ].filter(Boolean)
})
function worstOf(id: string) {
  return job.findings.find(({ subject, waived }) => subject === id && waived === null) ?? null
}
const worst = computed(() => worstOf(props.room.id))
const openings = computed(() =>
  (props.contents?.openings ?? []).map((item) => ({
    ...item,
    worst: worstOf(item.opening.id),
    ...lookOf(item),
  })),
)
const uses = { everyday: 'every day', occasional: 'now and then', never: '' } as const

/** A way in is told by how often people come by it; what leads outside and has nothing on it is told, too. */
function lookOf({ opening, name, guards }: OpeningIn) {
  const to = opening.to === null ? null : recordName(opening.to)
  const stay = opening.use !== 'never' && opening.to === null && !opening.inStay ? ', not in stay' : ''
  return {
    icon: /window|pane|skylight/i.test(name) ? mdiWindowClosedVariant : mdiDoor,
    use: to === null ? `${uses[opening.use]}${stay}` : `to ${to}`,
    bare: opening.to === null && guards.length === 0,
    wayIn: opening.to === null && opening.use !== 'never',
  }
}

function recordName(id: string): string {
  const room = job.doc.records[id]
  return room?.type === 'room' ? room.name : ''
}
</script>

<template>
  <li class="room" :class="{ lit, outdoors: room.kind === 'outdoors' }">
    <div class="head">
      <span
        v-if="worst"
        :style="{ color: `rgb(var(--v-theme-${severityLook[worst.severity].color}))` }"
        :title="worst.text"
        ><span aria-hidden="true">{{ severityLook[worst.severity].glyph }}</span
        ><span class="sr-only">{{ severityLook[worst.severity].word }}: {{ worst.text }}</span></span
      >
      <button type="button" class="name" @click="emit('pick', room.id)">{{ room.name }}</button>
      <span class="facts quiet">{{ facts.join(', ') }}</span>
    </div>
    <ul v-if="openings.length > 0" class="things">
      <li v-for="item in openings" :key="item.opening.id" :class="{ bare: item.bare }">
        <component
          :is="item.wayIn ? 'button' : 'span'"
          :type="item.wayIn ? 'button' : undefined"
          class="opening"
          :class="{ inward: item.wayIn }"
          @mouseenter="item.wayIn && emit('point', item.opening.id)"
          @mouseleave="item.wayIn && emit('point', null)"
          @focus="item.wayIn && emit('point', item.opening.id)"
          @blur="item.wayIn && emit('point', null)"
          @click="item.wayIn && emit('point', item.opening.id)"
        >
          <span v-if="item.worst" class="mark" :title="item.worst.text">
            <span aria-hidden="true">{{ severityLook[item.worst.severity].glyph }}</span><span class="sr-only"
              >{{ severityLook[item.worst.severity].word }}: {{ item.worst.text }}</span
            >
          </span>
          <v-icon :icon="item.icon" size="15" /> {{ item.opening.name
          }}<span v-if="item.use" class="quiet">, {{ item.use }}</span>
        </component>
        <DeviceChip v-for="guard in item.guards" :key="guard.device.id" :item="guard" />
        <span v-if="item.bare" class="quiet">nothing on it</span>
      </li>
    </ul>
    <div v-if="contents && contents.devices.length > 0" class="chips">
      <DeviceChip v-for="item in contents.devices" :key="item.device.id" :item="item" place />
    </div>
    <p v-if="links.length > 0" class="links quiet">
      <span v-for="link in links" :key="link.way.id"
        ><v-icon v-if="link.way.stairs" :icon="mdiStairs" size="14" /><span v-else aria-hidden="true">→</span>
        {{ link.way.stairs ? 'stairs to' : 'to' }} {{ link.to.name }} {{ link.way.metres }} m</span
      >
    </p>
    <p v-if="gates.length > 0" class="links quiet drawn">
      <span v-for="gate in gates" :key="gate.way.id">to {{ gate.to.name }} {{ gate.way.metres }} m</span>
    </p>
  </li>
</template>

<style scoped>
.room {
  border: 1.5px solid rgba(var(--v-theme-on-surface), 0.38);
  border-radius: 6px;
  padding: 5px 8px 6px;
  background: rgb(var(--v-theme-background));
  min-width: 0;
  display: grid;
  gap: 3px;
  align-content: start;
  font-size: 0.8125rem;
}
.outdoors {
  border-style: dashed;
}
.lit {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 0 0 0 1.5px rgb(var(--v-theme-primary));
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 6px;
}
.name {
  font: inherit;
  font-size: 0.875rem;
  font-weight: 650;
  color: inherit;
  background: transparent;
  border: 0;
  padding: 0;
  min-height: 24px;
  text-align: left;
  cursor: pointer;
}
.name:hover {
  text-decoration: underline;
}
.facts {
  font-size: 0.75rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 2px;
}
.things > li,
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 5px;
  align-items: center;
}
.opening {
  font: inherit;
  color: inherit;
  text-align: left;
  background: transparent;
  border: 0;
  padding: 0;
}
.inward {
  font-weight: 600;
  min-height: 24px;
  cursor: pointer;
}
.inward .quiet {
  font-weight: 400;
}
.links {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  font-size: 0.75rem;
}
.drawn {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
@container (max-width: 620px) {
  .drawn {
    position: static;
    width: auto;
    height: auto;
    clip-path: none;
  }
}
</style>
