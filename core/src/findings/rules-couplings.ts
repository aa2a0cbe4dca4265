import { exitInStay } from '../response/delays.ts'
import { tripsOf } from '../response/modes.ts'
import { keysSwitchedOff } from '../response/setting-words.ts'
import { setOp, type Context, type Found, type Rule, type ZoneView } from './context.ts'
import { upper } from './words.ts'
import { evidenceOf } from '../job/evidence.ts'

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
      const hit = c.zones.filter(
        ({ type, trips }) =>
          c.panel &&
          type &&
          trips?.stay === 'instant' &&
          tripsOf(c.panel, type, { stayToEntry2: true, dayZone: false }).stay === 'entry-2',
      )
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
      const signed = new Set(evidenceOf(c.doc, 'signoff').map((record) => record.what))
      return keysSwitchedOff(c.panel, c.info).flatMap((key) =>
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
    id: 'key-latching',
    severity: 'risks',
    title: 'latching key switch that disables all other setting',
    source: 'The panel’s own coupling: while a latching key switch is fitted, keypads and fobs cannot set',
    stage: 'zones',
    find: (c) => {
      if (c.info.keySwitch !== 'latching' || !c.panel?.couplings?.latchingKeySwitch) return []
      return [
        {
          subject: 'job:main',
          field: 'keySwitch',
          text: `The key switch is latching: on ${c.panel.name} no keypad, fob or timer can set the system beside it.`,
          fix: { title: 'Take a momentary one', ops: [setOp(c.info, 'keySwitch', 'momentary')] },
        },
      ]
    },
  },
  {
    id: 'beeps-off',
    severity: 'risks',
    title: 'no sound while entry or exit runs',
    source: 'Whoever does not hear that a delay runs overstays it: the commonest false alarm',
    stage: 'zones',
    find: (c) =>
      (['entryBeeps', 'exitBeeps'] as const).flatMap((field) =>
        c.info[field] === false && c.panel?.couplings?.beeps
          ? [
              {
                subject: 'job:main',
                field,
                text: `The keypads make no sound while ${field === 'entryBeeps' ? 'entry' : 'exit'} runs: people do not hear that their time is passing.`,
                fix: { title: 'Let them sound', ops: [setOp(c.info, field, true)] },
              },
            ]
          : [],
      ),
  },
  {
    id: 'outputs-latched',
    severity: 'advice',
    title: 'outputs that stay on until a code is keyed',
    source: 'A latched output works on after the siren has stopped: the customer must know how to clear it',
    stage: 'zones',
    find: (c) => {
      const modes = c.panel?.couplings?.outputs
      if (c.info.outputs !== 'latched' || !modes) return []
      const has = modes.includes('latched')
      return [
        {
          subject: 'job:main',
          field: 'outputs',
          text: has
            ? 'Outputs stay on until a code is keyed: show the customer how to clear them, and what they drive.'
            : `${c.panel?.name ?? 'The panel'} gives pulses only: its outputs cannot stay on.`,
          fix: modes.includes('momentary')
            ? { title: 'Let them give a pulse', ops: [setOp(c.info, 'outputs', 'momentary')] }
            : null,
        },
      ]
    },
  },
  {
    id: 'day-zone',
    severity: 'stops',
    title: 'day zone that the panel cannot make of it',
    source:
      'The panel’s own lists: a zone that enters one leaves the other; an always-on zone is no day zone',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!view.zone.dayZone || !c.panel) return []
        const { dayZones, typeGroups } = c.panel.couplings ?? {}
        const list = typeGroups?.find((group) => group.types.includes(view.zone.response ?? ''))
        const day = typeGroups?.find((group) => group.dayZones)
        const why =
          dayZones !== 'user'
            ? `${c.panel.name} leaves no choice of day zones to the user`
            : view.type && view.type.kind !== 'burglary'
              ? `“${view.type.name}” alarms at any hour`
              : list && day
                ? `“${view.type?.name ?? ''}” stands in the ${list.name}, and entering the ${day.name} takes it out of there`
                : null
        if (why === null) return []
        return [
          {
            ...at(view, 'dayZone', `${view.name} is offered as a day zone: ${why}.`),
            fix: { title: 'Do not offer it', ops: [setOp(view.zone, 'dayZone', false)] },
          },
        ]
      }),
  },
  {
    id: 'fob-store',
    severity: 'risks',
    title: 'fob stored in a keypad',
    source: 'House rule: in the panel it survives a change of codes and of the keypad',
    stage: 'kit',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }): Found[] => {
        if (device.storedIn !== 'keypad' || model.slot !== 'fob') return []
        const can = c.panel?.couplings?.fobsInKeypad === true
        if (can && c.rules.schools.fobStore === 'keypad') return []
        const name = `${model.name}${device.room ? ` in ${device.room}` : ''}`
        return [
          {
            subject: device.id,
            field: 'storedIn',
            text: can
              ? `${name} is stored in a keypad: a new keypad or a change of codes loses it.`
              : `${name} is to be stored in a keypad; ${c.panel?.name ?? 'the panel'} keeps fobs itself.`,
            fix: { title: 'Store it in the panel', ops: [setOp(device, 'storedIn', 'panel')] },
          },
        ]
      }),
  },
  {
    id: 'chime-style',
    severity: 'advice',
    title: 'chime that the panel does not have',
    source: 'The panel’s own ways to chime',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const style = view.zone.chimeStyle
        const styles = c.panel?.couplings?.chimeStyles ?? []
        if (style === null || !c.panel || styles.some((item) => item.key === style)) return []
        return [
          {
            ...at(
              view,
              'chimeStyle',
              `${view.name} is to chime “${style}”; ${c.panel.name} ${styles.length === 0 ? 'has one chime for all' : `has ${styles.map((item) => item.name).join(', ')}`}.`,
            ),
            fix: { title: 'Take the first one', ops: [setOp(view.zone, 'chimeStyle', null)] },
          },
        ]
      }),
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
        if (view.loop?.event !== 'motion' || !view.trips || view.trips.stay === 'ignore') return []
        const fob = c.system.devices.some(({ model }) => model.slot === 'fob' && model.disarms)
        const floor = view.place?.room?.floor
        const elsewhere = c.house.keypads.some(({ room }) => floor !== undefined && room.floor !== floor)
        const exit = exitInStay(c.doc, c.panel, view.zone.area)
        if (fob || elsewhere || (exit ?? 0) > 0) return []
        const lacking = exit === 0 ? 'no exit delay in stay, no fob, nor' : 'neither a fob nor'
        return [
          at(
            view,
            'response',
            `${view.name} is a motion that is on in stay, and there is ${lacking} a keypad on another floor: whoever goes up or comes down trips it.`,
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
