import { spotRecord, type Catalogue, type Device } from '#core'
import { Draft, idris, later, REFERENCE } from './draft.ts'

/**
 * Saltmarsh Row 14: the takeover of a terrace flat. Nine devices of three families are on the walls; the panel is still to
 * be chosen, and with it what may stay. README.md says what to look for.
 */
export function saltmarsh(catalogue: Catalogue): Draft {
  const job = new Draft(catalogue, {
    name: 'Saltmarsh Row 14',
    address: 'Saltmarsh Row 14, second floor',
    region: 'europe',
    kind: 'takeover',
    monitored: false,
    grade: 1,
    slowest: 'ordinary',
    petKg: 6,
    wishes: 'Keep what can stay. The cat sleeps in the front room.',
    panel: null,
    radioFirmware: null,
    entry1: 30,
    entry2: 45,
    exit: 45,
    abortWindow: null,
    airSeed: 1414,
    airStartedAt: null,
  })
  const old = (key: string, model: string, sticker: string, over: Partial<Device>): void =>
    void job.device(key, model, { existing: true, sticker, ...over })
  old('door', 'pebble-two', '3F9A0C', {
    room: 'Hall',
    position: 'flat door',
    use: 'entry',
    madeYear: 2019,
    batteryAt: '2025-03-02',
  })
  old('kitchen-window', 'pebble', '3F9A41', {
    room: 'Kitchen',
    position: 'window',
    use: 'opening',
    madeYear: 2019,
    batteryAt: '2025-03-02',
  })
  old('hall', 'skitter-dog', '4B09E1', {
    room: 'Hall',
    use: 'on-way',
    madeYear: 2019,
    batteryAt: '2024-11-20',
  })
  old('smoke', 'ashcap', '51C207', { room: 'Landing', madeYear: 2016 })
  old('front-window', 'reedling-old', '20417790', {
    room: 'Front room',
    position: 'window',
    use: 'opening',
    madeYear: 2011,
  })
  old('front', 'stilt', '44051344', { room: 'Front room', use: 'off-way', madeYear: 2013 })
  old('pendant', 'beckon', '70250455', { room: 'Bedroom', madeYear: 2018, batteryAt: '2023-06-01' })
  old('back-door', 'sill-8', 'K204118', {
    room: 'Kitchen',
    position: 'balcony door',
    use: 'opening',
    madeYear: 2021,
    batteryAt: '2024-05-15',
  })
  old('siren', 'singer-8', 'K331507', { room: 'Hall', madeYear: 2021, batteryAt: '2024-05-15' })
  walked(job)
  return job
}

/** What was tried before a panel is chosen: Curlew 8, with the receiver by the flat door and then in the hall cupboard. */
function walked(job: Draft): void {
  const readings: [place: string, reading: number, receiver: string, repeater?: string][] = [
    ['Hall', 92, 'Flat door'],
    ['Front room', 61, 'Flat door'],
    ['Kitchen', 44, 'Flat door'],
    ['Bedroom', 31, 'Flat door'],
    ['Hall', 95, 'Hall cupboard'],
    ['Front room', 78, 'Hall cupboard'],
    ['Kitchen', 74, 'Hall cupboard'],
    ['Bedroom', 38, 'Hall cupboard'],
    ['Bedroom', 72, 'Hall cupboard', 'Hall'],
  ]
  for (const [index, [place, reading, receiver, repeater = '']] of readings.entries())
    job.put(
      spotRecord(
        {
          ...{ place, receiver, repeater, reading, link: null, note: '' },
          ...{ family: 'family/curlew-8', used: 'trial contact' },
        },
        {
          id: `spot:s${String(index + 1).padStart(2, '0')}`,
          who: idris,
          at: later(REFERENCE, 4 * index - 24 * 60),
          corrects: null,
        },
      ),
    )
}
