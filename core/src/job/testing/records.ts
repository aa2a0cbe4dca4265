import { blankDevice, blankJob } from '../blank.ts'
import type { Made } from '../../records/fields.ts'
import type { Op } from '../edit.ts'
import type { Device, JobInfo, Pin } from '../records.ts'

/** What a piece of evidence begins with once the server took it; `over` replaces some of its maker. */
export function evidenceBy(name: string, at = '2026-05-04T09:00:00Z', over: Partial<Made> = {}) {
  const made: Made = {
    id: name.toLowerCase(),
    name,
    role: 'installer',
    takenAt: at,
    clockDoubtful: false,
    told: null,
    ...over,
  }
  return { made, at, corrects: null } as const
}

/** A job record with plain values; `over` replaces some. */
export function aJob(over: Partial<JobInfo> = {}): JobInfo {
  return {
    ...blankJob,
    id: 'job:main',
    name: 'Mill Cottage',
    address: '1 Weir Lane',
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    entry1: 30,
    entry2: 60,
    exit: 60,
    airSeed: 1,
    ...over,
  }
}

/** A pin with a made-up hash. */
function aPin(entry: string, hash = '0'.repeat(64)): Pin {
  return { id: `pin:${entry}`, type: 'pin', entry, hash }
}

/** A device of a made-up model; `aDevice.pins()` gives the ops that pin it. */
export function aDevice(key: string, over: Partial<Device> = {}): Device {
  return {
    ...blankDevice,
    id: `device:${key}`,
    model: 'device/any',
    room: 'hall',
    order: 1,
    ...over,
  }
}

aDevice.pins = (): Op[] => [{ op: 'add', record: aPin('device/any') }]
