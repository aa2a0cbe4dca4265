import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { ActEvent, ActOutput } from '../act/events.ts'
import { actAll } from '../act/machine.ts'
import { recordOf, recordsOf } from '../job/document.ts'
import { behaviourOf } from '../response/behaviour-of.ts'
import { systemOf } from '../system/system.ts'
import { carelessJobs } from '../testing/careless-jobs.ts'
import { runs } from '../testing/runs.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { armedRun, expectedTrip, verdictOf, type ArmedRun, type Seen } from './armed.ts'
import { proofRoute } from './owed.ts'
import { learned, noon, one, pass, tarn } from './testing/proved-jobs.ts'

const runOf = (job: SmallJob): ArmedRun =>
  armedRun({ doc: job.doc, catalogue }, proofRoute(job.doc, catalogue, null))

/** Settings as `away: study, hall`, by the rooms of their zones. */
const told = (job: SmallJob): string[] =>
  runOf(job).settings.map(({ mode, zones }) => {
    const rooms = zones.map((id) => recordOf(job.doc, 'zone', id)?.device?.replace('device:', ''))
    return `${mode}: ${rooms.join(', ')}`
  })

const expectedOf = (job: SmallJob, device: string) =>
  expectedTrip({ doc: job.doc, catalogue }, job.zone(device).id)

describe('the order of the run', () => {
  it('goes by the round, sleeping motions after it, and ends with the door that starts a delay', () => {
    // Rooms of a house that nobody described go by their numbers. Smoke, gas, pendant and fob have proofs of their own.
    expect(told(tarn())).toEqual(['away: study, lounge, hall, porch'])
    expect(runOf(tarn()).settings[0]?.sleeps).toBe(150)
  })

  it('leaves out what is passed, and what waits with its reason', () => {
    const job = pass(tarn(), 'study', 'armed')
    job.learn(job.zone('lounge').id, null)
    expect(told(job)).toEqual(['away: hall, porch'])
    expect(runOf(job).left.map(({ zone }) => zone)).toEqual([job.zone('lounge').id])
    expect(runOf(job).left[0]?.why).toContain('Enrol it first')
  })

  it('sets once more for each further door of an area: while one delay runs the other starts none', () => {
    const job = tarn().add('garden', 'reedling', { use: 'entry' }).add('cellar', 'reedling', { use: 'entry' })
    learned(job.number(), 'garden', 'cellar')
    expect(told(job)).toEqual(['away: study, lounge, hall, porch', 'away: garden', 'away: cellar'])
    expect(runOf(job).settings.map(({ sleeps }) => sleeps)).toEqual([150, 0, 0])
  })

  it('takes doors of different areas in one setting', () => {
    const job = tarn().area(2, 'Annexe').add('garden', 'reedling', { use: 'entry' }).number()
    learned(job, 'garden')
    job.set(job.zone('garden').id, { area: 'area:2' })
    expect(told(job)).toEqual(['away: study, lounge, hall, porch, garden'])
    // Common to both it shares a delay with the porch again.
    job.set(job.zone('garden').id, { area: 'area:1', area2: 'area:2' })
    expect(told(job)).toEqual(['away: study, lounge, hall, porch', 'away: garden'])
  })

  it('lets the motion that was seen longest ago go first', () => {
    const job = tarn().add('kitchen-way', 'stilt-hound', { use: 'off-way' }).number()
    learned(job, 'kitchen-way')
    expect(told(job)).toEqual(['away: study, lounge, hall, kitchen-way, porch'])
    pass(job, 'hall', 'placement', '', noon)
    pass(job, 'kitchen-way', 'placement', '', '2026-05-04T11:00:00Z')
    expect(told(job)).toEqual(['away: study, lounge, kitchen-way, hall, porch'])
    pass(job, 'kitchen-way', 'placement', '', one)
    expect(told(job)).toEqual(['away: study, lounge, hall, kitchen-way, porch'])
  })

  it('leaves motions that setting wakes in the order of the round', () => {
    const { panel, motion, contact } = twoWay()
    const job = new SmallJob({ panel })
      .add('hall', motion, { use: 'off-way' })
      .add('study', contact, { use: 'opening' })
    job.number()
    // The hall comes before the study.
    const [study, hall] = [job.zone('study'), job.zone('hall')]
    job.set(study.id, { number: 99 }).set(hall.id, { number: study.number })
    learned(job, 'hall', 'study')
    expect(told(job)).toEqual(['away: hall, study'])
    expect(runOf(job).settings[0]?.sleeps).toBe(0)
  })

  it('tries what alarms at any hour without setting, and never what no mode watches', () => {
    const panel = catalogue
      .all('panel')
      .find((entry) =>
        entry.responseTypes.some((type) => type.disarmed === 'instant' && type.kind === 'burglary'),
      )
    const always = panel?.responseTypes.find(
      (type) => type.disarmed === 'instant' && type.kind === 'burglary',
    )
    const contact = heardBy(panel?.id ?? '', 'contact')
    const job = new SmallJob({ panel: panel?.id ?? '' })
      .add('study', contact, { use: 'opening' })
      .add('safe', contact, { use: 'opening' })
    learned(job.number(), 'study', 'safe')
    job.set(job.zone('safe').id, { response: always?.key })
    expect(told(job)).toEqual(['unset: safe', 'away: study'])
    job.set(job.zone('study').id, { response: null })
    expect(runOf(job).left).toEqual([
      { zone: job.zone('study').id, why: expect.stringContaining('response type') as string },
    ])
  })

  it('sets by letters where letters are sets: what is in the part set only is tried there', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32' })
    job.add('front', quilletContact(), { use: 'entry' }).add('shed', quilletContact(), { use: 'opening' })
    job.area(2, 'Part B').number()
    learned(job, 'front', 'shed')
    job.set(job.zone('front').id, { area: 'area:1' }).set(job.zone('shed').id, { area: 'area:2' })
    const { settings } = runOf(job)
    expect(settings.map(({ mode, part }) => `${mode} ${part ?? ''}`)).toEqual(['away area:1', 'stay area:2'])
  })
})

const heardBy = (panel: string, kind: 'contact' | 'motion'): string => {
  const job = new SmallJob({ panel })
  const families = systemOf(job.doc, catalogue).receivers.flatMap((receiver) =>
    receiver.families.map(({ id }) => id),
  )
  const found = catalogue
    .all('device')
    .find((model) => model.class === kind && model.family !== null && families.includes(model.family))
  return found?.id.replace('device/', '') ?? ''
}
/** A panel that hears a family which answers, with a motion and a contact of it. */
function twoWay(): { panel: string; motion: string; contact: string } {
  for (const { id: panel } of catalogue.all('panel')) {
    const { receivers } = systemOf(new SmallJob({ panel }).doc, catalogue)
    for (const family of receivers
      .flatMap(({ families }) => families)
      .filter(({ way }) => way === 'two-way')) {
      const of = (kind: string) =>
        catalogue.all('device').find((model) => model.class === kind && model.family === family.id)
      const [motion, contact] = [of('motion'), of('contact')]
      if (motion && contact)
        return { panel, motion: motion.id.replace('device/', ''), contact: contact.id.replace('device/', '') }
    }
  }
  throw new Error('no family answers')
}
const quilletContact = (): string => heardBy('panel/quillet-32', 'contact')

describe('what is expected', () => {
  it('is what the plan says of the type, with the seconds of its own delay', () => {
    const job = tarn()
    expect(expectedOf(job, 'porch')).toEqual({
      seen: 'delay',
      words: 'entry delay 1 of 30 s, then its burglary alarm: wait it out',
    })
    expect(expectedOf(job, 'study')).toEqual({ seen: 'alarm', words: 'its burglary alarm at once' })
    // A motion on the way in follows a door: by itself it alarms.
    expect(expectedOf(job, 'hall')?.seen).toBe('alarm')
    job.set(recordsOf(job.doc, 'job')[0]?.id ?? '', { entry1: null })
    expect(expectedOf(job, 'porch')).toEqual({
      seen: 'delay',
      words: 'entry delay 1, whose seconds the plan does not say, then its burglary alarm: wait it out',
    })
    job.set(job.zone('porch').id, { response: null })
    expect(expectedOf(job, 'porch')).toBeNull()
  })

  it('waits for a second trip where two are needed', () => {
    const panel = catalogue.all('panel').find((entry) => entry.couplings?.doubleKnock === true)
    const job = new SmallJob({ panel: panel?.id ?? '' })
      .add('hall', heardBy(panel?.id ?? '', 'motion'), { use: 'off-way' })
      .number()
    expect(expectedOf(job, 'hall')?.seen).toBe('alarm')
    job.set(job.zone('hall').id, { doubleKnock: true })
    expect(expectedOf(job, 'hall')).toEqual({
      seen: 'second',
      words: 'nothing at the first trip; at a second one soon after, its burglary alarm',
    })
  })

  it('says that nothing is to be heard of a silent alarm', () => {
    const job = tarn()
    const silent = catalogue
      .get('panel', 'panel/tarn-40')
      ?.responseTypes.find((type) => type.sound === 'silent' && type.away === 'instant')
    job.set(job.zone('study').id, { response: silent?.key })
    expect(expectedOf(job, 'study')?.words).toContain('with nothing to hear at once')
  })
})

describe('what was seen', () => {
  // Rows: what the plan expects of the device; columns: what was seen.
  const all: readonly Seen[] = ['alarm', 'delay', 'second', 'notice', 'nothing', 'other', 'sound', 'unclear']
  it.each<[string, string, string]>([
    ['study', 'an outer line', 'pass fail fail fail fail fail fail inconclusive'],
    ['porch', 'the door of every day', 'fail pass fail fail fail fail fail inconclusive'],
    ['hall', 'a motion that may sleep', 'pass fail fail fail inconclusive fail fail inconclusive'],
  ])('%s, %s', (device, _, outcomes) => {
    const job = tarn()
    const zone = job.zone(device).id
    const found = all.map((seen) => verdictOf({ doc: job.doc, catalogue }, zone, seen)?.outcome)
    expect(found.join(' ')).toBe(outcomes)
  })

  it('is on record beside what was expected', () => {
    const job = tarn()
    const note = (device: string, seen: Seen) =>
      verdictOf({ doc: job.doc, catalogue }, job.zone(device).id, seen)?.note
    expect(note('porch', 'alarm')).toBe(
      'Expected entry delay 1 of 30 s, then its burglary alarm: wait it out; seen: the alarm at once.',
    )
    expect(note('study', 'alarm')).toBe('Seen as expected: its burglary alarm at once.')
    expect(note('hall', 'nothing')).toBe(
      'Nothing seen: it may have slept. Leave its room alone for 2 min 30 s and trip it again.',
    )
  })
})

describe('the run, acted out', () => {
  it('shows for every zone what was expected of it, whatever the job', () => {
    let tried = 0
    fc.assert(
      fc.property(carelessJobs, (job) => {
        const system = systemOf(job.doc, job.catalogue)
        const behaviour = behaviourOf(job.doc, system)
        const route = proofRoute(job.doc, job.catalogue, null).map((stop) => ({
          ...stop,
          items: stop.items.map((item) => ({ ...item, waits: '', state: 'owed' as const })),
        }))
        const run = armedRun({ doc: job.doc, catalogue: job.catalogue }, route)
        const owed = route.flatMap(({ items }) => items.filter(({ kind }) => kind === 'armed'))
        const named = [...run.settings.flatMap(({ zones }) => zones), ...run.left.map(({ zone }) => zone)]
        // Each once, and nothing else.
        expect([...named].sort()).toEqual(owed.map(({ subject }) => subject).sort())
        if (!behaviour) return
        for (const { mode, part, zones } of run.settings) {
          let at = 0
          const events: ActEvent[] = []
          const put = (event: object, seconds: number): number => {
            at += seconds
            return events.push({ at, ...event } as ActEvent)
          }
          if (mode !== 'unset') {
            put({ do: 'set', mode, areas: [], part: part }, 1)
            // A door that ends the exit delay is opened and closed by who leaves.
            for (const zone of behaviour.zones.filter(({ stands }) => stands)) {
              put({ do: 'trip', zone: zone.id }, 0)
              put({ do: 'close', zone: zone.id }, 0)
            }
            put({ do: 'wait' }, 4000)
          }
          const before = actAll({ ...behaviour, options: { ...behaviour.options, exitBy: 'either' } }, events)
          let state = before.state
          for (const id of zones) {
            const expected = expectedTrip({ doc: job.doc, catalogue: job.catalogue }, id)
            const happen = (event: object, seconds: number): readonly ActOutput[] => {
              const acted = actAll(behaviour, [{ at: state.at + seconds, ...event } as ActEvent], state)
              state = acted.state
              return acted.outputs
            }
            const alarms = (outputs: readonly ActOutput[]): boolean =>
              outputs.some((output) => output.does === 'alarm' && output.source === id)
            const first = alarms(happen({ do: 'trip', zone: id }, 5))
            happen({ do: 'close', zone: id }, 0)
            const second = first || alarms(happen({ do: 'trip', zone: id }, 1))
            happen({ do: 'close', zone: id }, 0)
            const last = second || alarms(happen({ do: 'wait' }, 4000))
            const isAtOnce = noDelay(job, id)
            expect({ id, first, second, last }).toEqual({
              id,
              first: expected?.seen === 'alarm' || isAtOnce,
              second: expected?.seen !== 'delay' || isAtOnce,
              last: true,
            })
            tried += 1
          }
        }
      }),
      { seed: 15, numRuns: runs(600) },
    )
    expect(tried).toBeGreaterThan(runs(600) / 2)
  })
})

/** A delay that nobody has planned is none in the machine. */
function noDelay(job: SmallJob, id: string): boolean {
  const words = expectedTrip({ doc: job.doc, catalogue: job.catalogue }, id)?.words ?? ''
  return recordsOf(job.doc, 'zone').length > 0 && words.includes('the plan does not say')
}
