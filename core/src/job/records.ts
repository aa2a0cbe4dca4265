import { recordSet, type RecordOf } from '../records/declare.ts'
import * as evidence from './declared-evidence.ts'
import * as planned from './declared-plan.ts'
import * as premises from './declared-premises.ts'

export { type Use } from './declared-plan.ts'
export { openingUses, roomKinds, type OpeningUse, type RoomKind } from './declared-premises.ts'
export { proofKinds, type AsItWas } from './declared-evidence.ts'
export { pinId } from './fields.ts'

/** Number of the record shapes; shapes.ts tells what changed at it, upgrades.ts how older ones are read. */
export const SCHEMA = 7

const declarations = [
  planned.job,
  planned.pin,
  planned.area,
  planned.receiver,
  planned.device,
  planned.zone,
  planned.terminal,
  planned.user,
  planned.departure,
  premises.room,
  premises.way,
  premises.opening,
  premises.sight,
  premises.serves,
  evidence.heard,
  evidence.test,
  evidence.state,
  evidence.stateEnd,
  evidence.signoff,
  evidence.fixedRules,
  evidence.waiver,
  evidence.waiverEnd,
] as const

/** Every record type of a job. */
export const jobRecords = recordSet('job', SCHEMA, declarations)

export type JobRecord = RecordOf<(typeof declarations)[number]>
export type RecordType = JobRecord['type']
export type RecordNamed<T extends RecordType> = Extract<JobRecord, { readonly type: T }>
export type JobInfo = RecordOf<typeof planned.job>
export type Pin = RecordOf<typeof planned.pin>
export type Area = RecordOf<typeof planned.area>
export type Receiver = RecordOf<typeof planned.receiver>
export type Device = RecordOf<typeof planned.device>
export type Zone = RecordOf<typeof planned.zone>
export type Terminal = RecordOf<typeof planned.terminal>
export type SystemUser = RecordOf<typeof planned.user>
export type Departure = RecordOf<typeof planned.departure>
export type Room = RecordOf<typeof premises.room>
export type Way = RecordOf<typeof premises.way>
export type Opening = RecordOf<typeof premises.opening>
export type Sight = RecordOf<typeof premises.sight>
export type Heard = RecordOf<typeof evidence.heard>
export type TestResult = RecordOf<typeof evidence.test>
export type TemporaryState = RecordOf<typeof evidence.state>
export type Signoff = RecordOf<typeof evidence.signoff>
export type FixedRules = RecordOf<typeof evidence.fixedRules>
export type Waiver = RecordOf<typeof evidence.waiver>
