import { recordSet, type RecordOf } from '../records/declare.ts'
import * as evidence from './declared-evidence.ts'
import * as planned from './declared-plan.ts'
import * as premises from './declared-premises.ts'

export { type Inputs, type Use } from './declared-plan.ts'
export { openingUses, roomKinds, type OpeningUse, type RoomKind } from './declared-premises.ts'
export { linkWords, proofKinds, rungs, type AsItWas } from './declared-evidence.ts'
export { pinId } from './fields.ts'

/** Number of the record shapes; shapes.ts tells what changed at it, upgrades.ts how older ones are read. */
export const SCHEMA = 17

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
  evidence.told,
  evidence.tried,
  evidence.spot,
  evidence.test,
  evidence.held,
  evidence.state,
  evidence.stateEnd,
  evidence.signoff,
  evidence.fixedRules,
  evidence.waiver,
  evidence.waiverEnd,
] as const

/** Every record type of a job. */
export const jobRecords = recordSet('job', SCHEMA, declarations)

/** Any record of a job. */
export type JobRecord = RecordOf<(typeof declarations)[number]>
/** The name of a record type. */
export type RecordType = JobRecord['type']
/** The record of a type. */
export type RecordNamed<T extends RecordType> = Extract<JobRecord, { readonly type: T }>
/** The facts of a job. */
export type JobInfo = RecordOf<typeof planned.job>
/** A pinned catalogue entry. */
export type Pin = RecordOf<typeof planned.pin>
/** An area. */
export type Area = RecordOf<typeof planned.area>
/** A receiver. */
export type Receiver = RecordOf<typeof planned.receiver>
/** A device in its place. */
export type Device = RecordOf<typeof planned.device>
/** A zone. */
export type Zone = RecordOf<typeof planned.zone>
/** A wired terminal. */
export type Terminal = RecordOf<typeof planned.terminal>
/** A user of the system. */
export type SystemUser = RecordOf<typeof planned.user>
/** A departure from a house rule. */
export type Departure = RecordOf<typeof planned.departure>
/** A room of the premises. */
export type Room = RecordOf<typeof premises.room>
/** A way between two rooms. */
export type Way = RecordOf<typeof premises.way>
/** A door or window. */
export type Opening = RecordOf<typeof premises.opening>
/** What a motion sees besides its room. */
export type Sight = RecordOf<typeof premises.sight>
/** A transmission heard, or an ID typed, with its decision. */
export type Heard = RecordOf<typeof evidence.heard>
/** The panel told to learn something. */
export type Told = RecordOf<typeof evidence.told>
/** Something done because a device was not heard. */
export type Tried = RecordOf<typeof evidence.tried>
/** A link tried at a spot. */
export type Spot = RecordOf<typeof evidence.spot>
/** The result of a proof. */
export type TestResult = RecordOf<typeof evidence.test>
/** A state that must end. */
export type TemporaryState = RecordOf<typeof evidence.state>
/** Something vouched for. */
export type Signoff = RecordOf<typeof evidence.signoff>
/** The house rules that a job was handed over by. */
export type FixedRules = RecordOf<typeof evidence.fixedRules>
/** A finding taken on, with its reason. */
export type Waiver = RecordOf<typeof evidence.waiver>
