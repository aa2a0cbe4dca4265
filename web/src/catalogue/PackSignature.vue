<script setup lang="ts">
import type { PackSignatureAnswer } from '#core'

/** Who signed a pack, and whether it is as it was then: no more than is known. */
defineProps<{ signature: PackSignatureAnswer }>()
</script>

<template>
  <v-alert v-if="signature.state === 'broken'" type="error" variant="tonal">
    This pack does not fit its signature<template v-if="signature.by"> by {{ signature.by }}</template
    >: it was changed after it was signed, or another key signed it. It is not taken. Ask for it anew.
  </v-alert>
  <v-alert v-else-if="signature.state === 'none'" type="warning" variant="tonal">
    Nobody signed this pack: whether it is as it was written cannot be told. Look through what it changes.
  </v-alert>
  <v-alert v-else-if="signature.own" type="success" variant="tonal">
    Signed by your own firm’s key, and not changed since.
  </v-alert>
  <v-alert v-else type="info" variant="tonal">
    Not changed since it was signed in the name of <strong>{{ signature.by }}</strong>. Anybody can write a
    name: ask them whether the words of their key are <strong class="words">{{ signature.words }}</strong>.
  </v-alert>
</template>

<style scoped>
.words {
  white-space: nowrap;
}
</style>
