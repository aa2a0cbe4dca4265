import type { Op } from '../edit.ts'
import type { Device, JobInfo, Pin } from '../records.ts'

/** A job record with plain values; `over` replaces some. */
export function aJob(over: Partial<JobInfo> = {}): JobInfo {
  return {
    id: 'job:main',
    type: 'job',
    name: 'Mill Cottage',
    address: '1 Weir Lane',
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    slowest: 'ordinary',
    petKg: null,
    wishes: '',
    panel: null,
    radioFirmware: null,
    entry1: 30,
    entry2: 60,
    exit: 60,
    abortWindow: null,
    airSeed: 1,
    airStartedAt: null,
    ...over,
  }
}

/** A pin with a made-up hash. */
export function aPin(entry: string, hash = '0'.repeat(64)): Pin {
  return { id: `pin:${entry}`, type: 'pin', entry, hash }
}

/** A device of a made-up model; `aDevice.pins()` gives the ops that pin it. */
export function aDevice(key: string, over: Partial<Device> = {}): Device {
  return {
    id: `device:${key}`,
    type: 'device',
    model: 'device/any',
    room: 'hall',
    position: '',
    deferred: null,
    use: 'none',
    existing: false,
    plan: null,
    madeYear: null,
    batteryAt: null,
    sticker: null,
    serial: null,
    slot: null,
    user: null,
    order: 1,
    ...over,
  }
}

aDevice.pins = (): Op[] => [{ op: 'add', record: aPin('device/any') }]
