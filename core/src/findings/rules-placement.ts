import { setOp, type Context, type Found, type Rule } from './context.ts'
import { here, upper } from './words.ts'

/** Assumed of unheated rooms unless the job says otherwise, °C (work.md section 6). */
const UNHEATED = { from: -10, to: 45 }
/** Height of a motion over the floor, m (work.md section 6; the maker's manual rules). */
const MOTION_HEIGHT = { from: 1.8, to: 2.1 }
/** What steel leaves of a magnet's gap, a usual figure. */
const ON_STEEL = 0.5

/** Rules on where devices are mounted. */
export const placementRules: readonly Rule[] = [
  {
    id: 'metal-building',
    severity: 'stops',
    waive: 'never',
    title: 'radio inside a metal building',
    source:
      'Inside a metal building radio is refused, not merely warned of; place a receiver or a cable inside',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model, family }) => {
        const room = c.places.get(device.id)?.room
        if (!room?.metal || !family) return []
        return [
          at(
            device.id,
            'room',
            `${model.name}${here(device.room)} sends from inside a metal building: it would not be heard reliably.`,
          ),
        ]
      }),
  },
  {
    id: 'too-cold',
    severity: 'risks',
    title: 'room outside the device’s temperature range',
    source:
      'Each transmitter’s stated range; unheated rooms are taken as −10 to 45 °C unless the job says otherwise',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        if (!room || (room.heated && room.kind !== 'outdoors')) return []
        const cold = c.info.unheatedFrom ?? UNHEATED.from
        const hot = c.info.unheatedTo ?? UNHEATED.to
        const { from, to } = model.temperatureC
        if (from <= cold && to >= hot) return []
        return [
          at(
            device.id,
            'room',
            `${room.name} is unheated, ${cold} to ${hot} °C; ${model.name} works from ${from} to ${to} °C.`,
          ),
        ]
      }),
  },
  {
    id: 'not-for-outdoors',
    severity: 'risks',
    title: 'indoor device outdoors',
    source: 'Only what is stated for outdoors stays dry',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        if (room?.kind !== 'outdoors' || model.outdoor === true || model.carried) return []
        return [at(device.id, 'room', `${model.name} is not stated for outdoors, and ${room.name} is.`)]
      }),
  },
  {
    id: 'motion-unheated',
    severity: 'risks',
    title: 'motion in an unheated garage, shed or store',
    source: 'Motions are not for unheated garages and sheds: draughts and heat alarm them',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        const shed = room && !room.heated && ['garage', 'store', 'workshop', 'outdoors'].includes(room.kind)
        if (!shed || model.class !== 'motion' || model.outdoor === true) return []
        return [
          at(
            device.id,
            'room',
            `${model.name} watches ${room.name}, which is unheated: draughts and quick warmth there can trip it.`,
          ),
        ]
      }),
  },
  {
    id: 'motion-height',
    severity: 'advice',
    title: 'motion at an unusual height',
    source: 'A motion sits 1.8 to 2.1 m high, in a corner looking across the path; the maker’s manual rules',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const height = device.heightM
        if (model.class !== 'motion' || height === null) return []
        if (height >= MOTION_HEIGHT.from && height <= MOTION_HEIGHT.to) return []
        return [
          at(
            device.id,
            'heightM',
            `${model.name}${here(device.room)} hangs at ${height} m; ${MOTION_HEIGHT.from} to ${MOTION_HEIGHT.to} m is usual.`,
          ),
        ]
      }),
  },
  {
    id: 'gap-too-wide',
    severity: 'risks',
    title: 'magnet too far from its contact',
    source: 'The model’s stated gap; on steel about half is left (usual figure)',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        if (model.class !== 'contact' || device.gapMm === null) return []
        const stated = model.magnetGapMm ?? c.rules.figures.usualGapMm
        const most = device.onSteel ? stated * ON_STEEL : stated
        if (device.gapMm <= most) return []
        const from = model.magnetGapMm === null ? 'usual, for the model states none' : 'stated'
        return [
          at(
            device.id,
            'gapMm',
            `The magnet of ${model.name}${here(device.room)} is ${device.gapMm} mm away; ${stated} mm is ${from}${device.onSteel ? `, ${most} mm on steel` : ''}.`,
          ),
        ]
      }),
  },
  {
    id: 'sensitivity-high',
    severity: 'advice',
    title: 'shock set more sensitive than to begin with',
    source: 'Begin with low or medium and raise it only after a trial',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const steps = model.sensitivity ?? []
        const index = steps.indexOf(device.setting ?? '')
        if (steps.length < 2 || index < Math.ceil(steps.length / 2)) return []
        const lower = steps[Math.max(0, Math.ceil(steps.length / 2) - 1)] as string
        return [
          {
            ...at(
              device.id,
              'setting',
              `${model.name}${here(device.room)} is set to ${device.setting}; begin with ${lower} and try it.`,
            ),
            fix: { title: `Set it to ${lower}`, ops: [setOp(device, 'setting', lower)] },
          },
        ]
      }),
  },
  {
    id: 'life-over',
    severity: 'risks',
    title: 'sensing element past its stated life',
    source: 'Smoke and CO elements wear out; the stated life counts from the year of make',
    stage: 'kit',
    find: (c) => {
      const year = Number(c.now.slice(0, 4))
      return eachDevice(c, ({ device, model }) => {
        if (!model.lifeYears || device.madeYear === null || device.plan === 'replace') return []
        const until = device.madeYear + model.lifeYears
        if (!(year > until)) return []
        return [
          at(
            device.id,
            'madeYear',
            `${model.name}${here(device.room)} was made in ${device.madeYear} to last ${model.lifeYears} years, until ${until}: replace it.`,
          ),
        ]
      })
    },
  },
  {
    id: 'discontinued',
    severity: 'advice',
    title: 'new device of a model no longer made',
    source: 'A successor may use other loops: plan it now rather than at the first fault',
    stage: 'kit',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        if (!model.discontinued || device.existing) return []
        const next = c.catalogue.get('device', model.discontinued.successor)
        return [
          at(
            device.id,
            'model',
            `${model.name} is no longer made${next ? `; ${next.name} follows it` : ''}.`,
          ),
        ]
      }),
  },
  {
    id: 'use-differs',
    severity: 'advice',
    title: 'stated use differs from the described house',
    source: 'The house in words tells how people move; one of the two is wrong',
    stage: 'zones',
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const place = c.places.get(device.id)
        if (!place?.derived || device.use === 'none' || place.derived === device.use) return []
        // Night use is a wish, not something that the rooms tell.
        if (device.use === 'on-way-night' && place.derived !== 'off-way') return []
        return [
          {
            ...at(
              device.id,
              'use',
              `${model.name}${here(device.room)} is said to be ${useWords[device.use]}, but ${lowerFirst(place.why)} That makes it ${useWords[place.derived]}.`,
            ),
            fix: { title: `Make it ${useWords[place.derived]}`, ops: [setOp(device, 'use', place.derived)] },
          },
        ]
      }),
  },
  {
    id: 'fact-missing',
    severity: 'advice',
    title: 'a fact about the house is missing',
    source: 'A judgement that lacks a fact names it instead of guessing',
    stage: 'survey',
    find: (c) =>
      c.house.rooms.length === 0
        ? []
        : eachDevice(c, ({ device, model }) => {
            const place = c.places.get(device.id)
            if (!place || device.use !== 'none' || device.deferred !== null || place.missing.length === 0)
              return []
            const facts = place.missing.map((item) => item.fact).join(' and ')
            const name = `The use of ${model.name}${here(device.room)}`
            return [
              at(
                place.missing[0]?.at === 'premises' ? 'premises' : device.id,
                'use',
                place.derived === null
                  ? `${name} cannot be told yet; needed: ${facts}.`
                  : `${name} is assumed: ${lowerFirst(place.why)} Say ${facts}.`,
              ),
            ]
          }),
  },
]

/** How a use is named in a sentence. */
export const useWords: Readonly<Record<string, string>> = {
  entry: 'an everyday door',
  'entry-far': 'a door far from the keypad',
  'entry-not-in-stay': 'an entry door not used in stay',
  opening: 'an opening nobody comes in by',
  'inner-way': 'an inner door on the way in',
  'sees-entry': 'in sight of an entry door’s leaf',
  'on-way': 'on the way to the keypad',
  'on-way-night': 'on the way down at night',
  'off-way': 'off every way to the keypad',
  none: 'not stated',
}

function eachDevice(
  c: Context,
  find: (item: Context['system']['devices'][number]) => readonly Found[],
): readonly Found[] {
  return c.system.devices.flatMap((item) => find(item))
}

function at(subject: string, field: string, text: string): Found {
  return { subject, field, text: upper(text), fix: null }
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
