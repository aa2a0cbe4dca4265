import type { DeviceModel, Family } from '../catalogue/schema.ts'
import type { PresentReceiver, System } from '../system/system.ts'
import type { FitReason, Lack } from './reasons.ts'

/** One device against one receiver. */
export interface Case {
  readonly model: DeviceModel
  readonly family: Family
  readonly receiver: PresentReceiver
  readonly system: System
}

/** What nobody states and the answer hangs on here: never taken for the better case. */
export function unstated({ model, family, receiver, system }: Case): FitReason | null {
  const supervised = system.info.region === 'europe' || system.panel?.superviseMinutes !== undefined
  const plainOneWay = family.way === 'one-way' && model.encryption !== 'always'
  const { model: hears } = receiver
  const open = (pairs: readonly (readonly [Lack, boolean])[]): readonly Lack[] =>
    pairs.flatMap(([lack, is]) => (is ? [lack] : []))
  const ofModel = open([
    ['encryption', model.encryption === undefined],
    ['answers', model.needsTwoWay === undefined && family.way === 'one-way'],
    ['disarms', model.disarms === undefined && plainOneWay],
    ['check-in', model.checkInMinutes === undefined && supervised && !hears.loses?.includes('supervision')],
  ])
  const ofReceiver = open([
    ['classes', hears.classes === undefined],
    ['transmitters', hears.transmitters === undefined],
    [
      'encrypted-only',
      hears.encryptedOnlySetting === undefined && model.encryption === 'optional' && !receiver.encryptedOnly,
    ],
  ])
  const of = [
    { part: model.name, lacks: ofModel },
    { part: hears.name, lacks: ofReceiver },
  ].filter(({ lacks }) => lacks.length > 0)
  return of.length === 0 ? null : { code: 'unstated', verdict: 'unknown', facts: { of } }
}
