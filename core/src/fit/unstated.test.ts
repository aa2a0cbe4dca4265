import { describe, expect, it } from 'vitest'
import type { Catalogue } from '../catalogue/catalogue.ts'
import type { CatalogueEntry, DeviceModel, ReceiverModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { reasonWords } from '../findings/words/fit-reasons.ts'
import type { JobInfo } from '../job/records.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { fitAll, type Verdict } from './fit.ts'
import { kitSums } from './kit-sums.ts'
import { encryptedVariant, neededEvents, stands } from './remedies.ts'
import { solveWhole } from './solve.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'

/* What an entry leaves open is never taken for the better case, and is not asked after where the answer does not hang on it. */

const device = (id: string): DeviceModel => catalogue.get('device', `device/${id}`) ?? expect.fail(id)
const receiver = (id: string): ReceiverModel => catalogue.get('receiver', `receiver/${id}`) ?? expect.fail(id)

/** The catalogue with fields of one entry left away. */
function leftOpen(entry: CatalogueEntry, ...fields: readonly string[]): Catalogue {
  const kept = Object.entries(entry).filter(([field]) => !fields.includes(field))
  return catalogue.with([keepEntry(Object.fromEntries(kept) as unknown as CatalogueEntry)])
}

interface Case {
  readonly of: string
  readonly job: () => SmallJob
  readonly model: string
  readonly open: readonly [CatalogueEntry, ...string[]]
  readonly verdict: Verdict
  readonly lacks: readonly (readonly [string, readonly string[]])[]
}

const tarn = (over: Partial<JobInfo> = {}): SmallJob => new SmallJob({ grade: 1, ...over })
const ostler = (): SmallJob => new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null, grade: 1 })
const mesh = (): SmallJob => new SmallJob({ panel: 'panel/sallow-m', radioFirmware: null, grade: 1 })
const keypadMorrow = (): SmallJob =>
  new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }).receiver('morrow-keypad-radio')

const cases: readonly Case[] = [
  {
    of: 'a contact of which nobody says whether it encrypts: plain works, optional would fall back',
    ...{ job: tarn, model: 'reedling', open: [device('reedling'), 'encryption'], verdict: 'unknown' },
    lacks: [['Reedling contact', ['encryption']]],
  },
  {
    of: 'a fob that disarms, of which nobody says whether it encrypts: that it is plain is not known',
    ...{ job: tarn, model: 'quartet', open: [device('quartet'), 'encryption'], verdict: 'unknown' },
    lacks: [['Quartet fob', ['encryption']]],
  },
  {
    of: 'a keypad that may need an answer, on a family that only sends',
    ...{ job: tarn, model: 'tapwell', open: [device('tapwell'), 'needsTwoWay'], verdict: 'unknown' },
    lacks: [['Tapwell keypad', ['answers']]],
  },
  {
    of: 'a keypad that may disarm over a plain one-way link',
    ...{ job: tarn, model: 'tapwell', open: [device('tapwell'), 'disarms'], verdict: 'unknown' },
    lacks: [['Tapwell keypad', ['disarms']]],
  },
  {
    of: 'the same of an encrypted keypad: nothing hangs on it',
    ...{ job: tarn, model: 'tapwell-c', open: [device('tapwell-c'), 'disarms'], verdict: 'works', lacks: [] },
  },
  {
    of: 'a contact that may check in or not, in Europe',
    ...{ job: tarn, model: 'reedling', open: [device('reedling'), 'checkInMinutes'], verdict: 'unknown' },
    lacks: [['Reedling contact', ['check-in']]],
  },
  {
    of: 'a receiver of which nobody says what it holds',
    ...{ job: tarn, model: 'reedling', open: [receiver('tarn-radio'), 'transmitters'], verdict: 'unknown' },
    lacks: [['Tarn radio', ['transmitters']]],
  },
  {
    of: 'a receiver of which nobody says what it takes',
    ...{ job: tarn, model: 'reedling', open: [receiver('tarn-radio'), 'classes'], verdict: 'unknown' },
    lacks: [['Tarn radio', ['classes']]],
  },
  {
    of: 'a setting that a device which may encrypt hangs on',
    ...{ job: keypadMorrow, model: 'latchet', verdict: 'unknown' },
    open: [receiver('morrow-keypad-radio'), 'encryptedOnlySetting'],
    lacks: [['Morrow keypad radio', ['encrypted-only']]],
  },
  {
    of: 'the same with a device that always sends plain: nothing hangs on it',
    ...{ job: keypadMorrow, model: 'latchet-thin', verdict: 'works', lacks: [] },
    open: [receiver('morrow-keypad-radio'), 'encryptedOnlySetting'],
  },
  {
    of: 'what cannot be heard anyway: that is the answer',
    ...{ job: tarn, model: 'herald-8', open: [device('herald-8'), 'needsTwoWay'], verdict: 'no', lacks: [] },
  },
  {
    of: 'what may need an answer where its family gives one',
    ...{ job: ostler, model: 'herald-8', open: [device('herald-8'), 'needsTwoWay'], verdict: 'works' },
    lacks: [],
  },
]

describe('what an entry leaves open', () => {
  it.each(cases)('$of', ({ job, model, open, verdict, lacks }) => {
    const it = job().add('it', model)
    const fits = (entries: Catalogue) => fitAll(systemOf(it.doc, entries)).get('device:it')
    const fit = fits(leftOpen(...open))
    const said = fit?.reasons.flatMap((reason) => (reason.code === 'unstated' ? reason.facts.of : [])) ?? []
    expect(said.map(({ part, lacks: open }) => [part, open])).toEqual(lacks)
    expect(fit?.verdict).toBe(verdict)
    // Whether it is plain is not said where nobody states it.
    const lacking = lacks.flatMap(([, names]) => names)
    if (lacking.includes('encryption')) expect(fit?.reasons.map(({ code }) => code)).not.toContain('replay')
  })

  it('is no matter of check-ins behind a bridge that passes none on, nor where nobody supervises', () => {
    const behind = mesh().receiver('sallow-bridge').add('a', 'pebble')
    const of = 'unstated'
    const codes = (job: SmallJob, entries: Catalogue) =>
      fitAll(systemOf(job.doc, entries))
        .get('device:a')
        ?.reasons.map(({ code }) => code)
    expect(codes(behind, leftOpen(device('pebble'), 'checkInMinutes'))).not.toContain(of)
    const morrow = SmallJob.morrow().add('a', 'latchet-thin')
    const { superviseMinutes: _own, ...panel } = catalogue.get('panel', 'panel/morrow-60') ?? expect.fail()
    const open = leftOpen(device('latchet-thin'), 'checkInMinutes')
    expect(codes(morrow, open.with([keepEntry(panel)]))).toEqual([])
    expect(codes(morrow, open.with([keepEntry({ ...panel, superviseMinutes: 300 })]))).toEqual([of])
  })

  it('is told once for all that it bears on, and no room is made up', () => {
    const job = tarn()
    for (let n = 0; n < 60; n += 1) job.add(`r${n}`, 'reedling')
    const entries = leftOpen(receiver('tarn-radio'), 'transmitters')
    const fits = [...fitAll(systemOf(job.doc, entries)).values()]
    expect(new Set(fits.map(({ verdict }) => verdict))).toEqual(new Set(['unknown', 'no']))
    // It is the panel that has no more numbers; of the receiver's room nobody knows.
    expect(fits.flatMap(({ reasons }) => reasons.map(({ code }) => code))).not.toContain('capacity')
    job.catalogue = entries
    expect(job.rules().filter((rule) => rule === 'fit-unstated')).toHaveLength(1)
    expect(job.rules()).not.toContain('fit-unknown')
    expect(
      solveWhole(job.doc, entries, { newId: () => 'x', costs: defaultHouseRules.costs })?.leftOut.map(
        ({ reason }) => reason.code,
      ),
    ).not.toContain('receivers-full')
  })

  it('says in a sentence what is to be looked up', () => {
    const of = [
      { part: 'A', lacks: ['encryption', 'answers', 'check-in'] },
      { part: 'B', lacks: ['classes'] },
    ] as const
    expect(reasonWords({ code: 'unstated', verdict: 'unknown', facts: { of } })).toBe(
      'Not stated of A: whether it encrypts, whether it needs an answer and how often it checks in; of B: which classes of device it takes.',
    )
  })
})

describe('what stands in for another', () => {
  it('is not an encrypted variant where nobody says that it encrypts', () => {
    const job = tarn().add('gate', 'tapwell')
    const at = (entries: Catalogue) => {
      const system = systemOf(job.doc, entries)
      const item = system.byId.get('device:gate') ?? expect.fail()
      return encryptedVariant({ doc: job.doc, catalogue: entries }, item)?.id ?? null
    }
    expect(at(catalogue)).toBe('device/tapwell-c')
    expect(at(leftOpen(device('tapwell-c'), 'encryption'))).toBeNull()
  })

  it('does not go out into the cold on no word', () => {
    const outdoor = { ...device('reedling'), outdoor: true, temperatureC: { from: -20, to: 50 } }
    const job = tarn().add('gate', 'reedling')
    const system = systemOf(job.doc, catalogue)
    const needed = neededEvents({ doc: job.doc, system }, job.device('gate'), outdoor)
    const takes = (from: number | undefined): boolean =>
      stands(
        system,
        {
          model: outdoor,
          other: {
            ...outdoor,
            id: 'device/other',
            temperatureC: { ...(from === undefined ? {} : { from }) },
          },
        },
        needed,
      )
    expect([takes(-20), takes(-25), takes(-19), takes(undefined)]).toEqual([true, true, false, false])
  })
})

it('batteries of no stated type are counted as such', () => {
  const { batteries, ...rest } = device('reedling')
  const entries = catalogue.with([keepEntry({ ...rest, batteries: { count: batteries?.count ?? 1 } })])
  const job = tarn().add('a', 'reedling').add('b', 'reedling').add('c', 'tapwell')
  const lines = kitSums(systemOf(job.doc, entries)).batteries
  expect(lines.find(({ type }) => type === null)?.count).toBe(2 * (batteries?.count ?? 1))
  expect(lines).toHaveLength(2)
})
