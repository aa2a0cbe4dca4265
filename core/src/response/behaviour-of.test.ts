import { beforeEach, describe, expect, it } from 'vitest'
import type { Behaviour } from '../act/behaviour.ts'
import { actAll } from '../act/machine.ts'
import type { ActEvent } from '../act/events.ts'
import { blankArea } from '../job/blank.ts'
import { recordsOf } from '../job/document.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { behaviourOf, behaviourOfType, declaredTrips } from './behaviour-of.ts'

const made = (job: SmallJob): Behaviour => {
  const behaviour = behaviourOf(job.doc, systemOf(job.doc, catalogue))
  if (!behaviour) throw new Error('the job has a panel')
  return behaviour
}

describe('the behaviour of a plan', () => {
  let job: SmallJob
  let behaviour: Behaviour
  beforeEach(() => {
    job = cleanTarn()
    behaviour = made(job)
  })

  it('has a zone for every planned one with a type, and the delays as the panel keeps them', () => {
    expect(behaviour.zones.map(({ kind }) => kind)).toEqual([
      ...['burglary', 'burglary', 'burglary', 'burglary', 'fire', 'fire', 'auxiliary', 'gas', 'panic'],
    ])
    expect(behaviour.areas).toHaveLength(1)
  })

  it('lets the family in by the porch and past the hall', () => {
    const [porch, , hall] = behaviour.zones
    const delays = behaviour.areas[0]?.delays
    if (!porch || !hall || !delays?.exit || !delays.entry1) throw new Error('porch, hall, delays')
    const home = delays.exit + 100
    const events: ActEvent[] = [
      { at: 0, do: 'set', mode: 'away', areas: [], part: null },
      { at: home, do: 'trip', zone: porch.id },
      { at: home + 3, do: 'trip', zone: hall.id },
      { at: home + delays.entry1 - 1, do: 'unset', areas: [], duress: false },
    ]
    expect(actAll(behaviour, events).outputs.filter(({ does }) => does === 'alarm')).toEqual([])
    const late = [...events.slice(0, 3), { at: home + delays.entry1 + 1, do: 'wait' } as const]
    expect(actAll(behaviour, late).outputs.filter(({ does }) => does === 'alarm')).toEqual([
      { at: home + delays.entry1, does: 'alarm', source: porch.id, kind: 'burglary' },
    ])
  })

  it('is nothing without a panel', () => {
    const system = { ...systemOf(job.doc, catalogue), panel: null }
    expect(behaviourOf(job.doc, system)).toBeNull()
  })
})

it('lets a panel without a night mode do at night what it does in stay', () => {
  const tarn = catalogue.get('panel', 'panel/tarn-40')
  const type = tarn?.responseTypes.find(({ key }) => key === 'entry-1-stay-instant')
  if (!tarn || !type) throw new Error('Tarn 40 has such a type')
  expect(declaredTrips(tarn, type, { stayToEntry2: false, dayZone: false })).toEqual({
    away: 'entry-1',
    stay: 'instant',
    night: 'instant',
    unset: 'ignore',
  })
})

/** A contact and a smoke detector of its family on a panel, both numbered. */
function small(panel: string, contact: string, smoke: string): SmallJob {
  return new SmallJob({ panel: `panel/${panel}` })
    .add('door', contact, { use: 'entry' })
    .add('smoke', smoke)
    .number()
}
const zoneOf = (job: SmallJob, key: string) =>
  made(job).zones.find(({ device }) => device === `device:${key}`) ?? null

describe('a zone of the plan', () => {
  it('has of its record what the panel asks for, and else what stands there unasked', () => {
    const job = cleanTarn()
    const [porch, , hall, , smoke] = made(job).zones
    expect(porch).toMatchObject({ device: 'device:porch', kind: 'burglary', command: null, fire: 'plain' })
    expect([porch?.stands, hall?.stands]).toEqual([true, false])
    // The Tarn 40 asks for no chime of a fire zone: it has none, whatever the record holds.
    job.set(smoke?.id ?? '', { chime: true })
    expect(zoneOf(job, 'landing')?.chime).toBe(false)
    for (const on of [true, false]) {
      job.set(porch?.id ?? '', {
        chime: on,
        report: on,
        supervise: on,
        transmissionDelay: on,
        doubleKnock: on,
      })
      expect(zoneOf(job, 'porch')).toMatchObject({ chime: on, report: on, supervised: on, held: on })
      // The Tarn 40 knows no double knock.
      expect(zoneOf(job, 'porch')?.doubleKnock).toBe(false)
    }
    job.set(smoke?.id ?? '', { transmissionDelay: true, fireGroup: 2 })
    expect(zoneOf(job, 'landing')).toMatchObject({ held: false, group: 2, kind: 'fire' })
  })

  it('reports and is supervised where the panel does not ask', () => {
    const job = SmallJob.morrow().add('button', 'callbell', {}).number()
    const zone = recordsOf(job.doc, 'zone')[0]
    job.set(zone?.id ?? '', { response: 'command-stay', report: false, supervise: false, chime: true })
    expect(made(job).zones).toMatchObject([
      { kind: 'command', command: 'set-stay', report: true, supervised: true, chime: false },
    ])
    for (const [type, command] of [
      ['command-away', 'set-away'],
      ['command-disarm', 'unset'],
      ['command-output', 'output'],
    ] as const) {
      job.set(zone?.id ?? '', { response: type })
      expect(made(job).zones[0]?.command).toBe(command)
    }
  })

  it('is left out where it has no type of the panel, and is its own device where it has none', () => {
    const job = cleanTarn()
    const { id } = job.zone('porch')
    job.set(id, { response: null })
    expect(zoneOf(job, 'porch')).toBeNull()
    job.set(id, { response: 'instant', device: null })
    expect(made(job).zones.find((zone) => zone.id === id)?.device).toBe(id)
  })

  it('knocks twice where the panel can and the plan says so', () => {
    const job = small('quillet-32', 'sill-8', 'brander-8')
    const { id } = job.zone('door')
    expect(zoneOf(job, 'door')?.doubleKnock).toBe(false)
    job.set(id, { doubleKnock: true })
    expect(zoneOf(job, 'door')?.doubleKnock).toBe(true)
  })

  it('is delayed in stay by the panel’s option, where it is live then and not on entry 2 already', () => {
    const pinfold = catalogue.get('panel', 'panel/pinfold-16')
    if (!pinfold) throw new Error('no Pinfold 16')
    const stay = (key: string, stayToEntry2: boolean) => {
      const type = pinfold.responseTypes.find((one) => one.key === key)
      if (!type) throw new Error(key)
      return declaredTrips(pinfold, type, { stayToEntry2, dayZone: false }).stay
    }
    expect(['instant', 'entry-1', 'entry-2', 'delay-away', 'fire'].map((key) => stay(key, true))).toEqual([
      ...['entry-2', 'entry-2', 'entry-2', 'ignore', 'instant'],
    ])
    expect(stay('instant', false)).toBe('instant')
    // The Tarn 40 has no such option.
    const tarn = catalogue.get('panel', 'panel/tarn-40')
    const instant = tarn?.responseTypes.find(({ key }) => key === 'instant')
    if (!tarn || !instant) throw new Error('no Tarn 40')
    expect(declaredTrips(tarn, instant, { stayToEntry2: true, dayZone: false }).stay).toBe('instant')
  })

  it('tells the user while unset where the panel offers it as a day zone', () => {
    const unset = (panel: string, key: string, dayZone: boolean) => {
      const model = catalogue.get('panel', `panel/${panel}`)
      const type = model?.responseTypes.find((one) => one.key === key)
      if (!model || !type) throw new Error(key)
      return declaredTrips(model, type, { stayToEntry2: false, dayZone }).unset
    }
    expect(unset('pinfold-16', 'instant', true)).toBe('alert')
    expect(unset('pinfold-16', 'instant', false)).toBe('ignore')
    expect(unset('pinfold-16', 'fire', true)).toBe('instant')
    // The panel alone decides on the Tarn 40.
    expect(unset('tarn-40', 'instant', true)).toBe('ignore')
  })
})

describe('areas and delays', () => {
  it('is one area by another name where the plan has none', () => {
    const { areas, zones } = made(cleanTarn())
    const [only] = areas
    expect(areas).toHaveLength(1)
    expect(
      zones.every((zone) => zone.areas.length === 1 && zone.areas[0] === only?.id && zone.parts.length === 0),
    ).toBe(true)
  })

  it('has a zone in its areas, and in the first where it names none', () => {
    const job = small('ostler-s-8', 'sill-8', 'brander-8')
    const has = new Set(recordsOf(job.doc, 'area').map(({ id }) => id))
    for (const number of [1, 2])
      if (!has.has(`area:${number}`))
        job.apply([
          {
            op: 'add',
            record: { ...blankArea, id: `area:${number}`, name: `Area ${number}`, number, order: number },
          },
        ])
    const [one, two] = recordsOf(job.doc, 'area').map(({ id }) => id)
    const { id } = job.zone('door')
    job.set(id, { area: two ?? null, area2: null })
    expect(zoneOf(job, 'door')?.areas).toEqual([two])
    job.set(id, { area: one ?? null, area2: two ?? null })
    expect(zoneOf(job, 'door')?.areas).toEqual([one, two])
    job.set(id, { area: null, area2: null })
    expect(zoneOf(job, 'door')).toMatchObject({ areas: [one], parts: [] })
    // The Ostler keeps delays by area: what an area does not say is the job's.
    job.set('job:main', { entry1: 30, exit: 60, exitStay: 20 })
    job.set(two ?? '', { entry1: 45 })
    const delays = Object.fromEntries(made(job).areas.map((area) => [area.id, area.delays]))
    expect(delays[one ?? '']).toMatchObject({ entry1: 30, exit: 60, exitStay: 20 })
    expect(delays[two ?? '']).toMatchObject({ entry1: 45, exit: 60, exitStay: 20 })
  })

  it('has sets by letter as parts of one area', () => {
    const job = small('quillet-32', 'sill-8', 'brander-8')
    const [first] = recordsOf(job.doc, 'area')
    const { id } = job.zone('door')
    expect(made(job).areas).toHaveLength(1)
    expect(zoneOf(job, 'door')?.parts).toEqual(
      [job.zone('door').area, job.zone('door').area2].filter((one) => one !== null),
    )
    job.set(id, { area: first?.id ?? null, area2: null })
    expect(zoneOf(job, 'door')?.parts).toEqual([first?.id])
  })

  it.each([
    // What the panel does in stay with an exit delay of 60 s, and of 20 s said for stay alone.
    ['tarn-40', 60],
    ['morrow-60', 0],
    ['quillet-32', 20],
  ] as const)('has the exit delay of stay that %s keeps', (panel, seconds) => {
    const job = new SmallJob({ panel: `panel/${panel}`, exit: 60, exitStay: 20 })
    expect(made(job).areas[0]?.delays).toMatchObject({ exit: 60, exitStay: seconds })
  })

  it('keeps delays as the panel can, and what is not set as that', () => {
    // The Morrow 60 keys its exit delay in steps of 15 s: 50 s become 60 s, the safer way.
    const job = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america', exit: 50, entry1: null })
    expect(made(job).areas[0]?.delays).toMatchObject({ exit: 60, entry1: null })
  })
})

describe('options', () => {
  it('are those that the plan sets', () => {
    const job = cleanTarn().set('job:main', {
      ...{ exitBy: null, openAtExit: null, sirenSeconds: 180, swinger: 3, abortWindow: 30, monitored: false },
    })
    expect(made(job).options).toMatchObject({
      ...{
        exitBy: 'timer',
        openAtExit: null,
        sirenSeconds: 180,
        swinger: 3,
        holdSeconds: 30,
        reports: false,
      },
      // The Tarn 40 clears with the second unset, and no shorter delay shortens one that runs.
      ...{ secondUnsetClears: true, shorterEntryWins: false, verifiedBy: 'again' },
    })
    const quillet = new SmallJob({ panel: 'panel/quillet-32', exitBy: 'either' })
    expect(made(quillet).options).toMatchObject({ exitBy: 'either', secondUnsetClears: false, reports: true })
    const ostler = new SmallJob({ panel: 'panel/ostler-s-8' })
    expect(made(ostler).options).toMatchObject({ verifiedBy: 'group', shorterEntryWins: false })
    expect(made(new SmallJob({ panel: 'panel/pinfold-16' })).options.shorterEntryWins).toBe(true)
  })

  it('are not known where the panel’s entry says nothing', () => {
    const job = cleanTarn()
    const system = systemOf(job.doc, catalogue)
    if (!system.panel) throw new Error('no panel')
    const bare = { ...system, panel: { ...system.panel, couplings: undefined } }
    const behaviour = behaviourOf(job.doc, bare as typeof system)
    expect(behaviour?.options).toMatchObject({ shorterEntryWins: null, verifiedBy: 'again' })
    expect(behaviour?.areas[0]?.delays.exitStay).toBeNull()
    expect(behaviour?.zones[0]).toMatchObject({ parts: [], doubleKnock: false })
  })
})

it('of a type alone has one zone that reports and is watched, with delays to tell apart', () => {
  const tarn = catalogue.get('panel', 'panel/tarn-40')
  const type = tarn?.responseTypes.find(({ key }) => key === 'entry-1')
  if (!tarn || !type) throw new Error('Tarn 40 has such a type')
  const { zones, options, areas } = behaviourOfType(tarn, type, { stayToEntry2: false, dayZone: false })
  expect(zones).toMatchObject([
    {
      ...{ id: 'entry-1', device: 'entry-1', chime: false, report: true, held: false, supervised: true },
      ...{ doubleKnock: false, stands: false, parts: [], group: null },
    },
  ])
  expect(options.shorterEntryWins).toBe(false)
  expect(areas[0]?.delays).toEqual({ entry1: 30, entry2: 60, exit: 60, exitStay: 60 })
})
