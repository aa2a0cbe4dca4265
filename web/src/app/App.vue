<script setup lang="ts">
import {
  mdiAccountCircleOutline,
  mdiAccountGroupOutline,
  mdiAccountKeyOutline,
  mdiBookOpenVariantOutline,
  mdiLogout,
  mdiMagnify,
  mdiScaleBalance,
  mdiServerOutline,
  mdiThemeLightDark,
} from '@mdi/js'
import { useEventListener, useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { newerBuild } from '../line/api.ts'
import KeysDialog from '../job/KeysDialog.vue'
import { runShortcut, useShortcuts } from '../job/useShortcuts.ts'
import { useSession } from '../line/session.ts'
import SearchDialog from '../search/SearchDialog.vue'
import { useCatalogueNews } from './useCatalogueNews.ts'
import { useServiceTrouble } from './useServiceTrouble.ts'

const session = useSession()
const router = useRouter()
const route = useRoute()
const theme = useTheme()
const trouble = useServiceTrouble()
useCatalogueNews()

const searching = ref(false)
const keysOpen = ref(false)
useShortcuts('On every page', [
  { keys: '?', title: 'This list', run: () => (keysOpen.value = true) },
  { keys: 'Ctrl + K', title: 'Search everything' },
])
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  const asks = (event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'k'
  if (!asks) return void runShortcut(event)
  // The browser has a search of its own on these keys.
  event.preventDefault()
  if (session.person && !route.meta.open) searching.value = true
})

/** The look chosen on this device; what its system asks for where the two are the same, so that one follows it again. */
const look = useLocalStorage<'system' | 'light' | 'dark'>('kapelle-look', 'system')
const systemDark = usePreferredDark()
// What stands in the browser's store may be anything.
const chosen = computed(() => (look.value === 'light' || look.value === 'dark' ? look.value : 'system'))
watch(chosen, (name) => theme.change(name), { immediate: true })

// Paper is white whatever the screen is: light ink on it could not be read.
useEventListener(window, 'beforeprint', () => theme.change('light'))
useEventListener(window, 'afterprint', () => theme.change(chosen.value))

function turnTheme(): void {
  const dark = !theme.global.current.value.dark
  look.value = dark === systemDark.value ? 'system' : dark ? 'dark' : 'light'
}

async function leave(): Promise<void> {
  await session.signOut()
  await router.push('/sign-in')
}

function reload(): void {
  location.reload()
}
</script>

<template>
  <v-app>
    <v-app-bar flat density="compact" color="surface" class="bar" height="52">
      <router-link to="/jobs" class="brand" aria-label="Kapelle, all jobs">
        <img src="/icon.svg" alt="" width="26" height="26" /><span class="brand-name">Kapelle</span>
      </router-link>
      <div id="bar-slot" class="bar-slot" />
      <template v-if="session.person && !route.meta.open">
        <v-btn
          :icon="mdiMagnify"
          size="small"
          variant="text"
          title="Search (Ctrl + K)"
          aria-label="Search"
          @click="searching = true"
        />
        <v-menu>
          <template #activator="{ props: menu }">
            <v-btn v-bind="menu" variant="text" class="text-none person" :aria-label="session.person.name">
              <v-icon :icon="mdiAccountCircleOutline" class="person-icon" />
              <span class="person-name">{{ session.person.name }}</span>
            </v-btn>
          </template>
          <v-list density="compact">
            <v-list-item :title="session.person.firm" :subtitle="session.person.role" />
            <v-divider />
            <v-list-item to="/catalogue" title="Catalogue" :prepend-icon="mdiBookOpenVariantOutline" />
            <v-list-item to="/house-rules" title="House rules" :prepend-icon="mdiScaleBalance" />
            <v-list-item
              v-if="session.person.role === 'owner'"
              to="/people"
              title="People"
              :prepend-icon="mdiAccountGroupOutline"
            />
            <v-list-item
              v-if="session.person.role === 'owner'"
              to="/service"
              title="Service and backups"
              :prepend-icon="mdiServerOutline"
            />
            <v-list-item to="/account" title="Your account" :prepend-icon="mdiAccountKeyOutline" />
            <v-list-item title="Light or dark" :prepend-icon="mdiThemeLightDark" @click="turnTheme" />
            <v-list-item title="Sign out" :prepend-icon="mdiLogout" @click="leave" />
          </v-list>
        </v-menu>
      </template>
    </v-app-bar>
    <v-snackbar v-model="newerBuild" timeout="-1" location="bottom left">
      A newer Kapelle is running on the server. What you did is kept.
      <template #actions><v-btn @click="reload">Reload</v-btn></template>
    </v-snackbar>
    <v-alert
      v-if="trouble"
      type="warning"
      variant="tonal"
      density="compact"
      rounded="0"
      role="alert"
      class="trouble no-print"
      >{{ trouble }} <router-link to="/service">Service and backups</router-link></v-alert
    >
    <router-view />
    <SearchDialog v-model="searching" />
    <KeysDialog v-model="keysOpen" />
  </v-app>
</template>

<style scoped>
.bar {
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.brand {
  display: flex;
  align-items: center;
  gap: 9px;
  padding: 0 16px;
  color: inherit;
  text-decoration: none;
  font-weight: 700;
  font-size: 1.0625rem;
}
.bar-slot {
  flex: 1 1 auto;
  display: flex;
  align-items: center;
  min-width: 0;
  gap: 6px;
}
.person-icon {
  display: none;
}
@media (max-width: 600px) {
  .person {
    min-width: 40px;
    padding: 0 6px;
  }
  .person-icon {
    display: inline-flex;
  }
  .person-name {
    display: none;
  }
  .brand {
    padding: 0 10px;
  }
  .brand-name {
    display: none;
  }
}
.trouble {
  flex: 0 0 auto;
  margin-top: 52px;
  margin-bottom: -52px;
}
</style>
