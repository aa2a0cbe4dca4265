import type { Catalogue } from '#core'
import { Draft } from './draft.ts'

/**
 * The Old Ropewalk: a long single-storey house with an upper annexe, a pottery studio with a kiln, an unheated boat store
 * and a dog of 18 kg. Planned and numbered, with slips left in for someone to find; README.md lists them.
 */
export function ropewalk(catalogue: Catalogue): Draft {
  const job = new Draft(catalogue, {
    name: 'The Old Ropewalk',
    address: 'Ropewalk Lane 1, Saltmarsh',
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    slowest: 'ordinary',
    petKg: 18,
    wishes:
      'The dog sleeps in the long room. Kiln firings run overnight. Someone comes home late most Fridays.',
    panel: 'panel/tarn-40',
    radioFirmware: '1.31',
    entry1: 30,
    entry2: 45,
    exit: 60,
    abortWindow: null,
    airSeed: 417,
    airStartedAt: null,
  })
  job.put(
    { id: 'user:hesper', type: 'user', name: 'Hesper Rowe', order: 1 },
    { id: 'user:tam', type: 'user', name: 'Tam Rowe', order: 2 },
  )
  job
    .device('front', 'reedling', { room: 'Porch', position: 'front door', use: 'entry', sticker: '20417733' })
    .device('back', 'reedling', { room: 'Kitchen', position: 'back door', use: 'entry', sticker: '20417801' })
    .device('boat', 'reedling', {
      room: 'Boat store',
      position: 'door',
      use: 'entry-far',
      sticker: '20418812',
    })
    .device('annexe', 'reedling', {
      room: 'Annexe',
      position: 'door',
      use: 'entry-not-in-stay',
      sticker: '20418895',
    })
    .device('long-left', 'reedling-slim', {
      room: 'Long room',
      position: 'window left',
      use: 'opening',
      sticker: '31700452',
    })
    .device('long-right', 'reedling-slim', {
      room: 'Long room',
      position: 'window right',
      use: 'opening',
      sticker: '31700461',
    })
    .device('studio-window', 'reedling-slim', {
      room: 'Studio',
      position: 'window',
      use: 'opening',
      sticker: '31700518',
    })
    .device('study-window', 'reedling-slim', {
      room: 'Study',
      position: 'window',
      use: 'opening',
      sticker: '31700533',
    })
    .device('boat-window', 'reedling-slim', {
      room: 'Boat store',
      position: 'window',
      use: 'opening',
      sticker: '31700609',
    })
    .device('hall', 'stilt-hound', { room: 'Hall', use: 'sees-entry', sticker: '44120906' })
    .device('gallery', 'stilt-hound', { room: 'Gallery', use: 'on-way', sticker: '44120977' })
    .device('long-motion', 'stilt', { room: 'Long room', use: 'off-way', sticker: '44051213' })
    .device('studio-glass', 'pane-ear', { room: 'Studio', use: 'opening', sticker: '52030117' })
    .device('studio-smoke', 'ember-three', { room: 'Studio', sticker: '60911204' })
    .device('landing-smoke', 'ember-three', { room: 'Annexe', position: 'landing', sticker: '60911239' })
    .device('boiler-co', 'wick', { room: 'Boiler room', sticker: '61300082' })
    .device('pantry-water', 'puddle', { room: 'Pantry', sticker: '61877140' })
    .device('bedroom-pendant', 'beckon', { room: 'Bedroom', sticker: '70250391' })
    .device('fob-hesper', 'quartet-c', { sticker: '4B2K90QX', user: 'user:hesper' })
    .device('fob-tam', 'quartet-c', { sticker: '4B2K91A7' })
    .device('hall-keypad', 'tapwell-c', { room: 'Hall', sticker: '7M3Q55WD' })
    .device('yard-siren', 'herald-8', { room: 'Yard' })
    .device('loft-motion', 'stilt-hound', { deferred: 'the loft ladder is not in yet' })
  job.number()
  job
    .set('job:main', { entry2: 60 })
    .set(job.zone('landing-smoke', 'heat').id, { response: 'instant' })
    .set(job.zone('study-window', 'open').id, { response: 'entry-1' })
    .set(job.zone('boat-window', 'open').id, { label: 'Zone 9' })
    .set(job.zone('long-right', 'open').id, { number: 5, pinned: true })
  return job
}
