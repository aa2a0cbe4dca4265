import type { Area, Device, JobInfo, Signoff, TemporaryState, TestResult, Zone } from './records.ts'

/** A job's facts as they are before anybody said anything; what decides the work is given by the caller. */
export const blankJob = {
  type: 'job',
  address: '',
  slowest: 'ordinary',
  petKg: null,
  wishes: '',
  panel: null,
  radioFirmware: null,
  entry1: null,
  entry2: null,
  exit: null,
  exitStay: null,
  abortWindow: null,
  exitUnitSwitched: false,
  sirenSeconds: null,
  swinger: null,
  superviseMinutes: null,
  exitBy: null,
  openAtExit: null,
  stayToEntry2: false,
  keySwitch: 'none',
  entryBeeps: null,
  exitBeeps: null,
  outputs: null,
  keysOff: [],
  unheatedFrom: null,
  unheatedTo: null,
  practice: false,
  exercise: 'plain',
  airStartedAt: null,
} as const satisfies Partial<JobInfo>

/** An area with the delays of the job. */
export const blankArea = {
  type: 'area',
  entry1: null,
  entry2: null,
  exit: null,
  exitStay: null,
} as const satisfies Partial<Area>

/** A device of which only id, model and order are still to be said. */
export const blankDevice = {
  type: 'device',
  room: '',
  position: '',
  deferred: null,
  use: 'none',
  existing: false,
  plan: null,
  madeYear: null,
  batteryAt: null,
  sticker: null,
  stickerUnsure: false,
  slot: null,
  user: null,
  opening: null,
  via: null,
  mappedOver: null,
  heightM: null,
  gapMm: null,
  onSteel: false,
  storedIn: null,
  setting: null,
} as const satisfies Omit<Device, 'id' | 'model' | 'order'>

/** A zone that is bound to nothing and set to nothing yet. */
export const blankZone = {
  type: 'zone',
  device: null,
  event: null,
  loop: null,
  response: null,
  area: null,
  equipmentCode: null,
  equipmentKind: null,
  existing: false,
  chime: false,
  report: false,
  supervise: false,
  transmissionDelay: false,
  label: '',
  pinned: false,
  area2: null,
  leaves: null,
  chimeStyle: null,
  dayZone: false,
  reedOn: null,
  terminalsOn: null,
  endOfLineOn: null,
  sirens: null,
  doubleKnock: false,
  fireGroup: null,
  reason: '',
  wiring: null,
  resistorOhm: null,
} as const satisfies Omit<Zone, 'id' | 'number'>

/** A result without reading and note, of what has neither buttons nor several methods. */
export const blankTest = {
  type: 'test',
  loop: null,
  method: '',
  reading: null,
  note: '',
} as const satisfies Partial<TestResult>

/** A temporary state of the station or the whole system. */
export const blankState = { type: 'state', about: null } as const satisfies Partial<TemporaryState>

/** A sign-off that vouches for no keying. */
export const blankSignoff = {
  type: 'signoff',
  note: '',
  about: null,
  keyed: null,
} as const satisfies Partial<Signoff>
