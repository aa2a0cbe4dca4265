import {
  asItIs,
  blankState,
  defaultHouseRules,
  freshEvidence,
  inventId,
  pinOps,
  seededRandom,
  signoffRecord,
  type Catalogue,
  type Family,
  type JobRecord,
} from '#core'
import { partOf } from '../core/src/memory/words.ts'
import { targetMemory } from '../core/src/memory/target.ts'
import { Draft, idris, later } from './draft.ts'

/** The bungalow as somebody would type it; the yard door's room is left out. */
const house = `Front: hall
Hall
Lounge: living
Den: living
Bedroom
Bathroom
Utility
Front - Hall 3
Hall - Lounge 4
Hall - Den 4
Hall - Bedroom 5
Hall - Bathroom 3
Hall - Utility 4
Front door in Front: every day`

/** Fennel Bank: a finished bungalow in North America, enrolled and proved yesterday; README.md says what it shows. */
export function fennelBank(catalogue: Catalogue): Draft {
  const job = new Draft(catalogue, {
    name: 'Fennel Bank',
    address: '12 Fennel Bank, Corrigan',
    region: 'north-america',
    kind: 'new',
    monitored: true,
    grade: 1,
    slowest: 'slow',
    petKg: null,
    wishes: 'One storey, one everyday door. The owner walks with a stick.',
    panel: 'panel/morrow-60',
    radioFirmware: null,
    entry1: 30,
    entry2: 30,
    exit: 60,
    abortWindow: 30,
    airSeed: 92,
    airStartedAt: null,
  })
  job.apply(pinOps(job.doc, catalogue, ['receiver/morrow-radio-module']))
  job.put(
    { id: 'user:ada', type: 'user', name: 'Ada Fennimore', order: 1 },
    { id: 'user:rolf', type: 'user', name: 'Rolf Fennimore', order: 2 },
    {
      id: 'receiver:module',
      type: 'receiver',
      model: 'receiver/morrow-radio-module',
      room: 'Utility',
      encryptedOnly: false,
      order: 1,
    },
  )
  const dunlin = catalogue.get('family', 'family/dunlin') as Family
  const random = seededRandom(1204)
  const sticker = (): string => inventId(dunlin, random)
  job
    .device('front', 'latchet', { room: 'Front', position: 'door', use: 'entry', sticker: sticker() })
    .device('yard', 'latchet', { room: 'Yard', position: 'door', use: 'opening', sticker: sticker() })
    .device('bed-window', 'latchet-thin', {
      room: 'Bedroom',
      position: 'window',
      use: 'opening',
      sticker: sticker(),
    })
    .device('bath-window', 'latchet-thin', {
      room: 'Bathroom',
      position: 'window',
      use: 'opening',
      sticker: sticker(),
    })
    .device('den-window', 'latchet-thin', {
      room: 'Den',
      position: 'window',
      use: 'opening',
      sticker: sticker(),
    })
    .device('hall', 'prowl', { room: 'Hall', use: 'on-way', sticker: sticker() })
    .device('den', 'prowl', { room: 'Den', use: 'off-way', sticker: sticker() })
    .device('lounge-glass', 'shardling', { room: 'Lounge', use: 'opening', sticker: sticker() })
    .device('hall-smoke', 'cinder-trio', { room: 'Hall', sticker: sticker() })
    .device('pendant', 'callbell', { room: 'Bedroom', sticker: sticker() })
    .device('fob-ada', 'fourkey', { sticker: sticker(), user: 'user:ada' })
    .device('fob-rolf', 'fourkey', { sticker: sticker(), user: 'user:rolf' })
    .device('siren', 'horn-w', { room: 'Attic', slot: 1 })
    .device('keypad', 'keyplate-w', { room: 'Hall' })
    .house(house)
    .number()
  const morning = '2026-01-14T13:30:00Z'
  const front = job.zone('front', 'open').id
  job.put({
    ...freshEvidence(idris, later(morning, 5)),
    id: 'heard:neighbour',
    type: 'heard',
    serial: sticker(),
    family: 'family/dunlin',
    cause: 'event',
    loop: null,
    level: 3,
    source: 'practice',
    shown: null,
    times: null,
    decision: 'refused',
    code: 'foreign',
    reason: 'On no sticker of this job: a neighbour’s device.',
    subject: front,
    of: asItIs(job.doc, front),
  })
  job.enrol(idris, morning)
  job.put({
    id: 'state:test',
    ...blankState,
    kind: 'station-on-test',
    who: idris.name,
    why: 'Armed tests and reports',
    ...freshEvidence(idris, later(morning, 150)),
    until: later(morning, 330),
  })
  job.result(
    { kind: 'placement', subject: 'device:den', loop: null, unsetAt: '' },
    idris,
    later(morning, 155),
    {
      outcome: 'fail',
      reading: 2,
      note: 'behind the metal shelf',
    },
  )
  const hall = job.zone('hall', 'motion').id
  job.result({ kind: 'armed', subject: hall, loop: null, unsetAt: '' }, idris, later(morning, 158), {
    outcome: 'inconclusive',
    note: 'it was still asleep',
  })
  job.prove(idris, later(morning, 160))
  job.put(
    {
      ...freshEvidence(idris, later(morning, 240)),
      id: 'state-end:test',
      type: 'state-end',
      state: 'state:test',
      kind: 'station-on-test',
    },
    ...readBack(job, catalogue, later(morning, 245)),
    ...['code installer', 'code main-user', 'customer-shown'].map((what, index) =>
      signoffRecord(
        { doc: job.doc, catalogue },
        { rules: defaultHouseRules, what },
        {
          ...{ id: `signoff:s${index}`, who: idris, at: later(morning, 250 + index) },
        },
      ),
    ),
  )
  return job
}

/** The panel read back heading by heading, each display typed as it stood there, after it had checked itself and closed. */
function readBack(job: Draft, catalogue: Catalogue, at: string): JobRecord[] {
  const panel = catalogue.get('panel', 'panel/morrow-60')
  const target = targetMemory(job.doc, catalogue)
  if (!panel || !target) throw new Error('Fennel Bank has no panel')
  const parts = new Map<string, { address: string; value: string }[]>()
  for (const [address, value] of target.wanted) {
    const part = partOf({ doc: job.doc, panel, catalogue }, address)
    parts.set(part, [...(parts.get(part) ?? []), { address, value }])
  }
  return [...parts].map(([section, values], index) => ({
    ...freshEvidence(idris, at),
    ...({ id: `held:p${index}`, type: 'held', panel: panel.id, how: 'typed', saved: true } as const),
    ...{ section, values },
  }))
}
