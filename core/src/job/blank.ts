import { blankOf } from '../records/declare.ts'
import { signoff, state, test } from './declared-evidence.ts'
import { area, device, job, zone } from './declared-plan.ts'

/** A job's facts as they are before anybody said anything; what decides the work is given by the caller. */
export const blankJob = blankOf(job)

/** An area with the delays of the job. */
export const blankArea = blankOf(area)

/** A device of which only id, model and order are still to be said. */
export const blankDevice = blankOf(device)

/** A zone that is bound to nothing and set to nothing yet. */
export const blankZone = blankOf(zone)

/** A result without reading and note, of what has neither buttons nor several methods. */
export const blankTest = blankOf(test)

/** A temporary state of the station or the whole system. */
export const blankState = blankOf(state)

/** A sign-off that vouches for no keying. */
export const blankSignoff = blankOf(signoff)
