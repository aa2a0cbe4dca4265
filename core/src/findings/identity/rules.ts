import { groupId } from '../../identity/sticker.ts'
import { learnedSerial } from '../../job/enrolment.ts'
import type { RulesOf } from '../finding.ts'

/** What the rules on IDs find; IDs in the groups of their stickers. */
export interface IdentityFacts {
  readonly 'sticker-differs': { readonly zone: string; readonly learned: string; readonly sticker: string }
  readonly 'serial-elsewhere': { readonly serial: string; readonly job: string }
}

/** Rules on IDs: the learned one is the sticker’s, and belongs to this job alone. */
export const identityRules: RulesOf<IdentityFacts> = {
  'sticker-differs': {
    severity: 'stops',
    stage: 'enrol',
    key: ['zone', 'learned', 'sticker'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { device, zone, family } = view
        const serial = learnedSerial(c.doc, zone.id)
        if (!device?.sticker || !serial || device.sticker === serial) return []
        return [
          {
            subject: zone.id,
            field: 'serial',
            facts: {
              zone: view.number,
              learned: groupId(family, serial),
              sticker: groupId(family, device.sticker),
            },
            fix: null,
          },
        ]
      }),
  },
  'serial-elsewhere': {
    severity: 'risks',
    stage: 'enrol',
    key: ['serial', 'job'],
    find: (c) =>
      (c.elsewhere ?? []).flatMap(({ serial, job }) => {
        const device = c.system.devices.find(
          (item) => item.device.sticker === serial || learnedSerial(c.doc, item.device.id) === serial,
        )
        const view = c.zones.find((item) => learnedSerial(c.doc, item.zone.id) === serial)
        const subject = view?.zone.id ?? device?.device.id
        if (!subject) return []
        const family = view?.family ?? device?.family ?? null
        return [{ subject, field: null, facts: { serial: groupId(family, serial), job }, fix: null }]
      }),
  },
}
