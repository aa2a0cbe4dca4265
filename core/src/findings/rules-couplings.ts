import { recordsOf } from '../job/document.ts'
import { setOp, type Context, type Found, type Rule, type ZoneView } from './context.ts'
import { upper } from './words.ts'

/** Rules on how a panel's settings bear on each other: areas, options, double knock, verified fire, wired ends. */
export const couplingRules: readonly Rule[] = [
  {
    id: 'double-knock',
    severity: 'stops',
    waive: 'owner',
    title: 'double knock where one trip must be enough',
    source:
      'Two trips to alarm is for wired motions only: refused on radio, shock, contacts, life safety and panic',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!view.zone.doubleKnock) return []
        const wiredMotion = view.family === null && view.loop?.event === 'motion'
        const has = c.panel?.couplings?.doubleKnock === true
        if (wiredMotion && has) return []
        const why = !has
          ? `${c.panel?.name ?? 'The panel'} has no double knock`
          : view.family
            ? 'a radio device may sleep after its first trip'
            : `a ${view.loop?.name ?? 'device'} may trip only once`
        return [
          {
            ...at(view, 'doubleKnock', `${view.name} waits for a second trip: ${why}.`),
            fix: { title: 'Alarm at the first trip', ops: [setOp(view.zone, 'doubleKnock', false)] },
          },
        ]
      }),
  },
  {
    id: 'verified-alone',
    severity: 'stops',
    waive: 'owner',
    title: 'verified fire with fewer than two detectors',
    source: 'Verified fire needs two detectors in one group and one fire compartment',
    stage: 'zones',
    find: (c) => {
      const verified = c.zones.filter((view) => view.type?.fire === 'verified')
      return verified.flatMap((view) => {
        const group = view.zone.fireGroup
        const most = c.panel?.couplings?.fireGroups ?? 0
        const mates = verified.filter(
          (other) => other.device !== view.device && group !== null && other.zone.fireGroup === group,
        )
        if (group !== null && group <= most && mates.length > 0) return []
        const why =
          group === null
            ? 'is in no group'
            : group > most
              ? `is in group ${group}, and ${c.panel?.name ?? 'the panel'} has ${most}`
              : `is alone in group ${group}`
        return [
          at(
            view,
            'fireGroup',
            `${view.name} needs a second detector to agree but ${why}: it would never alarm.`,
          ),
        ]
      })
    },
  },
  {
    id: 'two-areas',
    severity: 'stops',
    title: 'zone in two areas',
    source: 'The panel’s own meaning of an area',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.zone.area2 === null || !c.panel) return []
        const rule = c.panel.couplings?.twoAreas ?? 'forbidden'
        if (rule !== 'forbidden' && view.zone.area2 !== view.zone.area) return []
        const why =
          rule === 'forbidden' ? `${c.panel.name} takes one area per zone` : 'both are the same area'
        return [
          {
            ...at(view, 'area2', `${view.name} is in two areas: ${why}.`),
            fix: { title: 'Leave it in the first', ops: [setOp(view.zone, 'area2', null)] },
          },
        ]
      }),
  },
  {
    id: 'area-number',
    severity: 'stops',
    waive: 'never',
    title: 'area that the panel does not have',
    source: 'The panel’s own number of areas',
    stage: 'zones',
    find: (c) =>
      recordsOf(c.doc, 'area').flatMap((area) =>
        c.panel && area.number > c.panel.areas.count
          ? [
              {
                subject: area.id,
                field: 'number',
                text: `Area ${area.number} (${area.name}): ${c.panel.name} has ${c.panel.areas.count}.`,
                fix: null,
              },
            ]
          : [],
      ),
  },
  {
    id: 'common-entry',
    severity: 'risks',
    title: 'entry door common to two areas',
    source: 'A common zone is armed only when all its areas are: one area alone stands open there',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.zone.area2 === null || c.panel?.couplings?.twoAreas !== 'common') return []
        if (!view.type || view.type.kind !== 'burglary') return []
        const areas = [view.zone.area, view.zone.area2].map((id) => areaName(c, id))
        return [
          at(
            view,
            'area2',
            `${view.name} is common to ${areas.join(' and ')}: while only one of them is set, it is not watched.`,
          ),
        ]
      }),
  },
  {
    id: 'stay-option',
    severity: 'risks',
    title: 'option that delays all stay zones',
    source: 'The option turns every zone of stay into entry 2: windows then give an intruder that delay',
    stage: 'zones',
    find: (c) => {
      const option = c.panel?.couplings?.stayToEntry2
      if (!c.info.stayToEntry2) return []
      if (!option)
        return [
          jobFinding(
            c,
            'stayToEntry2',
            `${c.panel?.name ?? 'The panel'} has no option that turns stay zones into entry 2.`,
          ),
        ]
      const hit = c.zones.filter((view) => view.type?.stay === 'instant' && view.type.kind === 'burglary')
      if (hit.length === 0) return []
      return [
        jobFinding(
          c,
          'stayToEntry2',
          `${upper(option)} is on: ${hit.map((view) => view.name).join(', ')} would start entry 2 in stay instead of alarming at once.`,
        ),
      ]
    },
  },
  {
    id: 'key-consent',
    severity: 'stops',
    waive: 'owner',
    title: 'help or panic key switched off without consent',
    source: 'Losing a fire, medical or panic key of a keypad needs the customer’s recorded consent',
    stage: 'zones',
    find: (c) => {
      const signed = new Set(recordsOf(c.doc, 'signoff').map((record) => record.what))
      return c.info.keysOff.flatMap((key) =>
        signed.has(`consent ${key}`)
          ? []
          : [
              {
                subject: 'job:main',
                field: 'keysOff',
                text: `The ${key} of the keypads is switched off, and the customer’s consent is not recorded.`,
                fix: {
                  title: `Leave the ${key} on`,
                  ops: [
                    setOp(
                      c.info,
                      'keysOff',
                      c.info.keysOff.filter((item) => item !== key),
                    ),
                  ],
                },
              },
            ],
      )
    },
  },
  {
    id: 'open-excluded',
    severity: 'advice',
    title: 'open zones are left out at the end of exit',
    source:
      'Leaving out means unprotected, and a door left out starts no delay on return: say so at hand-over',
    stage: 'zones',
    find: (c) => {
      const choices = c.panel?.couplings?.openAtExit
      if (!choices?.includes('exclude') || c.info.openAtExit !== 'exclude') return []
      return [
        {
          subject: 'job:main',
          field: 'openAtExit',
          text: 'A zone open at the end of exit is left out: it is unprotected, and with the entry door left out the first follow zone alarms on its owner.',
          fix: choices.includes('alarm')
            ? { title: 'Let it alarm instead', ops: [setOp(c.info, 'openAtExit', 'alarm')] }
            : null,
        },
      ]
    },
  },
  {
    id: 'stay-motion',
    severity: 'risks',
    title: 'motion on in stay with nowhere to unset it',
    source: 'A motion kept on in stay needs an exit delay in stay, or a keypad or fob upstairs',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.loop?.event !== 'motion' || !view.type || view.type.stay === 'ignore') return []
        const fob = c.system.devices.some(({ model }) => model.slot === 'fob' && model.disarms)
        const floor = view.place?.room?.floor
        const elsewhere = c.house.keypads.some(({ room }) => floor !== undefined && room.floor !== floor)
        if (fob || elsewhere) return []
        return [
          at(
            view,
            'response',
            `${view.name} is a motion that is on in stay, and there is neither a fob nor a keypad on another floor: whoever comes down trips it.`,
          ),
        ]
      }),
  },
  {
    id: 'mapped-terminal',
    severity: 'stops',
    waive: 'never',
    title: 'number that a keypad’s own terminal is mapped over',
    source: 'The panel terminal of that number is dead; radio there would trip beside the keypad',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const keypad = c.system.devices.find(
          ({ device }) => device.mappedOver === view.zone.number && device.id !== view.zone.device,
        )
        if (!keypad) return []
        return [
          at(
            view,
            'number',
            `${view.name}: the terminal of ${keypad.model.name} is mapped over ${view.zone.number}.`,
          ),
        ]
      }),
  },
  {
    id: 'resistor-wrong',
    severity: 'risks',
    title: 'end-of-line resistor that the panel does not expect',
    source: 'The panel’s own end-of-line value',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const wanted = c.panel?.couplings?.endOfLineOhm
        const { wiring, resistorOhm } = view.zone
        const ends = wiring === 'end-of-line' || wiring === 'double'
        if (!wanted || !ends || resistorOhm === wanted) return []
        return [
          {
            ...at(
              view,
              'resistorOhm',
              `${view.name} ends in ${resistorOhm === null ? 'a resistor of unknown value' : `${resistorOhm} ohms`}; ${c.panel?.name ?? 'the panel'} expects ${wanted} ohms.`,
            ),
            fix: {
              title: `Note ${wanted} ohms, once it is fitted`,
              ops: [setOp(view.zone, 'resistorOhm', wanted)],
            },
          },
        ]
      }),
  },
]

function at(view: ZoneView, field: string, text: string): Found {
  return { subject: view.zone.id, field, text: upper(text), fix: null }
}

function jobFinding(c: Context, field: string, text: string): Found {
  return {
    subject: 'job:main',
    field,
    text,
    fix: { title: 'Turn the option off', ops: [setOp(c.info, field, false)] },
  }
}

function areaName(c: Context, id: string | null): string {
  const record = id === null ? undefined : c.doc.records[id]
  return record?.type === 'area' ? record.name : 'no area'
}
