import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { zoneLoops } from '../catalogue/zone-loops.ts'
import { recordsOf } from '../job/document.ts'
import type { Inputs, JobInfo } from '../job/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { inputsHeard, inputsOf, inputsOps } from './inputs.ts'

interface On {
  readonly contact: string
  readonly info: Partial<JobInfo>
  readonly receiver?: string
  /** Loops of reed and terminals by the model’s map; null where the panel switches inputs. */
  readonly loops: readonly [number, number] | null
}
/** A contact of every family that has both inputs, on a panel that hears it. */
const contacts: readonly On[] = [
  { contact: 'reedling', info: {}, loops: [3, 4] },
  { contact: 'reedling-c', info: {}, loops: [3, 4] },
  {
    contact: 'latchet',
    info: { panel: 'panel/morrow-60', region: 'north-america', radioFirmware: null, abortWindow: 30 },
    receiver: 'morrow-radio-module',
    loops: [1, 3],
  },
  { contact: 'pebble-two', info: { panel: 'panel/pinfold-16', radioFirmware: null }, loops: [1, 2] },
  { contact: 'sill-8', info: { panel: 'panel/ostler-s-8', radioFirmware: '2.11' }, loops: null },
  {
    contact: 'sill-9',
    info: { panel: 'panel/ostler-s-9', region: 'north-america', radioFirmware: '2.11' },
    loops: null,
  },
  { contact: 'sill-8', info: { panel: 'panel/quillet-32', radioFirmware: null, entry2: 50 }, loops: null },
  { contact: 'jetty', info: { panel: 'panel/sallow-m', radioFirmware: null }, loops: [1, 2] },
]
const choices: readonly Inputs[] = ['reed', 'terminals', 'both']

function job({ contact, info, receiver }: On, inputs: Inputs | null): SmallJob {
  const begun = new SmallJob({ panel: 'panel/tarn-40', ...info })
  if (receiver) begun.receiver(receiver)
  return begun.add('larder', contact, { use: 'opening', position: 'window left', inputs }).number()
}
/** What its zones listen to: event and loop, or the switches of reed, terminals and end-of-line. */
const listens = (one: SmallJob) =>
  recordsOf(one.doc, 'zone')
    .filter((zone) => zone.device === 'device:larder')
    .map(({ event, loop, reedOn, terminalsOn, endOfLineOn }) =>
      loop === null ? `${event} ${[reedOn, terminalsOn, endOfLineOn].join(' ')}` : `${event} ${loop}`,
    )
const expected = ({ loops }: On, inputs: Inputs): string[] => {
  if (loops === null) return [`open ${inputs !== 'terminals'} ${inputs !== 'reed'} false`]
  const [reed, terminals] = loops
  return [
    ...(inputs === 'terminals' ? [] : [`open ${reed}`]),
    ...(inputs === 'reed' ? [] : [`terminals ${terminals}`]),
  ]
}
/** Rules on inputs, loops and zones that it breaks. */
const broken = (one: SmallJob) =>
  one
    .rules()
    .filter((rule) =>
      /inputs|switches|end-of-line|loop|event-without-zone|zone-open|label|equipment|no-fit|number/.test(
        rule,
      ),
    )
const choose = (one: SmallJob, to: Inputs | null) => {
  const device = one.device('larder')
  const model = catalogue.get('device', device.model) as DeviceModel
  return one.apply(inputsOps(one.doc, { device, model }, to))
}

describe.each(contacts)('the inputs of $contact on $info.panel', (on) => {
  it.each(choices)('%s: numbered to its loop or switches, and right', (inputs) => {
    const one = job(on, inputs)
    expect(listens(one)).toEqual(expected(on, inputs))
    expect(broken(one)).toEqual([])
  })

  it('are its reed where nobody chose', () => {
    const one = job(on, null)
    expect(listens(one)).toEqual(expected(on, 'reed'))
    expect(broken(one)).toEqual([])
  })

  it.each(choices.flatMap((from) => choices.map((to) => [from, to] as const)))(
    'go from %s to %s with all that hangs on them',
    (from, to) => {
      const one = choose(job(on, from), to)
      // A zone that comes to be needed is owed until it is numbered.
      const lacks = on.loops !== null && to === 'both' && from !== 'both'
      expect(broken(one)).toEqual(lacks ? ['event-without-zone'] : [])
      one.number()
      expect([...listens(one)].sort()).toEqual([...expected(on, to)].sort())
      expect(broken(one)).toEqual([])
    },
  )

  it('that differ from what its zones listen to are found, with both ways out', () => {
    for (const [from, to] of [
      ['reed', 'terminals'],
      ['terminals', 'reed'],
    ] as const) {
      const one = job(on, from).set('device:larder', { inputs: to })
      expect(broken(one)).toEqual(['inputs-differ'])
      const [finding] = one.findings().filter(({ rule }) => rule === 'inputs-differ')
      const ways = [finding?.fix, ...(finding?.others ?? [])]
      expect(ways).toHaveLength(2)
      const [follow, plan] = ways.map((way) =>
        job(on, from)
          .set('device:larder', { inputs: to })
          .apply(way?.ops ?? []),
      )
      expect([follow, plan].map((after) => after && broken(after))).toEqual([[], []])
      expect(follow && listens(follow)).toEqual(expected(on, to))
      expect(plan && listens(plan)).toEqual(expected(on, from))
    }
  })
})

it('counts a zone for each input that has a loop of its own', () => {
  const item = (id: string, inputs: Inputs | null) => ({
    model: catalogue.get('device', `device/${id}`) as DeviceModel,
    device: { inputs },
  })
  const counts = (id: string) => [null, ...choices].map((inputs) => zoneLoops(item(id, inputs)).length)
  expect(counts('reedling')).toEqual([1, 1, 1, 2])
  expect(counts('sill-8')).toEqual([1, 1, 1, 1])
  expect(counts('sill-slim-8')).toEqual([1, 1, 1, 1])
  expect(counts('reedling-slim')).toEqual([1, 1, 1, 1])
  expect(counts('ember-three')).toEqual([3, 3, 3, 3])
})

it('is no choice where a model has the reed alone', () => {
  for (const id of ['sill-slim-8', 'reedling-slim', 'ember-three', 'stilt']) {
    const model = catalogue.get('device', `device/${id}`) as DeviceModel
    const one = new SmallJob().add('larder', id, { inputs: 'terminals' })
    expect(inputsOf({ model, device: one.device('larder') })).toBeNull()
    expect(inputsHeard([], { model, device: one.device('larder') })).toBeNull()
  }
  const one = new SmallJob().add('larder', 'reedling-slim', { inputs: 'terminals', use: 'opening' }).number()
  const [finding] = one.findings().filter(({ rule }) => rule === 'inputs-differ')
  expect(finding?.text).toBe(
    'Reedling Slim contact in larder is planned with its terminals, which this model does not have to choose from.',
  )
  expect(broken(one.apply(finding?.fix?.ops ?? []))).toEqual([])
})

it('leaves the resistor of a wired contact as it is while its terminals stay on', () => {
  const on = contacts[4] as On
  const one = job(on, 'terminals')
  one.set(one.zone('larder').id, { endOfLineOn: true })
  expect(listens(choose(one, 'both'))).toEqual(['open true true true'])
  expect(listens(choose(one, 'reed'))).toEqual(['open true false false'])
})

it('labels what hangs on the terminals by its opening, and apart from a reed in use', () => {
  const labels = (inputs: Inputs) =>
    recordsOf(job(contacts[7] as On, inputs).doc, 'zone').map(({ label }) => label)
  expect(labels('terminals')).toEqual(['Larder window left'])
  expect(labels('both')).toEqual(['Larder window left', 'Larder window left wired'])
})

it('takes the loop that was typed for the other input, where that is what is meant', () => {
  const one = job(contacts[0] as On, null)
  one.set(one.zone('larder').id, { loop: 4 })
  const [finding] = one.findings().filter(({ rule }) => rule === 'loop-wrong')
  expect(finding?.others.map(({ title }) => title)).toEqual(['Plan the wired terminals for this zone'])
  one.apply(finding?.others[0]?.ops ?? [])
  expect(listens(one)).toEqual(['terminals 4'])
  expect(one.device('larder').inputs).toBe('terminals')
  expect(broken(one)).toEqual([])
})
