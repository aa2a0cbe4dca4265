<script setup lang="ts">
import { mdiQrcodeScan } from '@mdi/js'
import { nextTick, onUnmounted, ref } from 'vue'
import { decodeCode, type Pixels } from './decode-code.ts'

/** Reads a code by the camera: live where the browser lends it to the page, else off a photo. What it says goes to whoever asked. */
const emit = defineEmits<{ read: [text: string] }>()
const open = ref(false)
const said = ref('')
const video = ref<HTMLVideoElement | null>(null)
const photo = ref<HTMLInputElement | null>(null)
let stream: MediaStream | null = null
/** Time between two pictures that are looked at, ms: reading one takes longer than showing it. */
const EVERY_MS = 250
/** Longest side of a picture that is read, px: a code fills a good part of it, and more only costs time. */
const LONGEST_PX = 1_000

/** A page that was not fetched over a safe line is lent no camera; a photo can be taken all the same. */
const mayLive = (): boolean => window.isSecureContext && 'mediaDevices' in navigator

async function begin(): Promise<void> {
  said.value = ''
  if (!mayLive()) return photo.value?.click()
  open.value = true
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' }, audio: false })
  } catch {
    said.value = 'The camera is not lent to this page, or there is none. Take a photo instead, or type it.'
    return
  }
  await nextTick()
  // It may have been closed while the browser asked.
  if (!open.value || !video.value) return stop()
  video.value.srcObject = stream
  await video.value.play().catch(() => undefined)
  void look()
}

async function look(): Promise<void> {
  while (open.value && stream && video.value) {
    const { videoWidth: width, videoHeight: height } = video.value
    const text = width > 0 ? await decodeCode(pixelsOf(video.value, width, height)) : null
    if (text !== null) return take(text)
    await new Promise((done) => setTimeout(done, EVERY_MS))
  }
}

async function fromPhoto(): Promise<void> {
  const file = photo.value?.files?.[0]
  if (!file || !photo.value) return
  photo.value.value = ''
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return fail('That is no picture: take a photo of the code.')
  const text = await decodeCode(pixelsOf(bitmap, bitmap.width, bitmap.height))
  if (text === null)
    return fail('No code is seen on that photo. Nearer, straight on, without glare; or type it.')
  take(text)
}

function pixelsOf(image: CanvasImageSource, width: number, height: number): Pixels {
  const scale = Math.min(1, LONGEST_PX / Math.max(width, height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * scale)
  canvas.height = Math.round(height * scale)
  const context = canvas.getContext('2d', { willReadFrequently: true })
  if (!context) throw new Error('pixelsOf: this browser draws nothing')
  context.drawImage(image, 0, 0, canvas.width, canvas.height)
  return context.getImageData(0, 0, canvas.width, canvas.height)
}

function fail(words: string): void {
  stop()
  said.value = words
  open.value = true
}

function take(text: string): void {
  close()
  emit('read', text)
}

function stop(): void {
  stream?.getTracks().forEach((track) => {
    track.stop()
  })
  stream = null
}

function close(): void {
  open.value = false
  stop()
}
onUnmounted(close)
</script>

<template>
  <v-btn
    :icon="mdiQrcodeScan"
    variant="text"
    size="48"
    class="scan no-print"
    aria-label="Scan with the camera"
    title="Scan with the camera"
    @click="begin"
  />
  <input
    ref="photo"
    type="file"
    accept="image/*"
    capture="environment"
    class="sr-only"
    tabindex="-1"
    aria-label="Photo of a code"
    @change="fromPhoto"
  />
  <v-dialog v-model="open" max-width="520" @update:model-value="close">
    <v-card aria-label="Scan a code">
      <v-card-title>Scan a code</v-card-title>
      <v-card-text>
        <p v-if="said" role="alert" class="said">▲ {{ said }}</p>
        <template v-else>
          <video ref="video" muted playsinline class="seen"></video>
          <p class="quiet">Hold the sticker or the box label before the camera, near and straight on.</p>
        </template>
        <div class="acts">
          <v-btn variant="text" height="48" @click="close">Cancel</v-btn>
          <v-btn variant="tonal" height="48" @click="photo?.click()">Take a photo instead</v-btn>
        </div>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.seen {
  width: 100%;
  max-height: 60vh;
  background: #000;
  border-radius: 6px;
}
.said {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
</style>
