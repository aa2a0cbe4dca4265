import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { computed, effectScope, nextTick, shallowRef, type EffectScope } from 'vue'
import {
  applyOps,
  blankDevice,
  blankJob,
  defaultHouseRules,
  emptyDocument,
  enrolmentOf,
  homeDelay,
  isEvidence,
  judge,
  mountNote,
  mountPoints,
  numberAll,
  owedList,
  pinOps,
  proofRoute,
  recordsOf,
  resultProblem,
  seededRandom,
  startOps,
  targetsOf,
  type JobDocument,
  type Op,
  type ProofItem,
  type ProofStop,
  type Target,
  type Transmission,
} from '#core'
import { DayWorld } from '../../testing/day-world.ts'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue } from '../../testing/small-doc.ts'
import { strictServer, type StrictServer } from '../../testing/strict-server.ts'
import { useProving } from '../prove/useProving.ts'
import type { Air } from './useAir.ts'
import { useEnrol, type Enrolling } from './useEnrol.ts'
import { useLadder } from './useLadder.ts'

/*
 * Whole days at a house that is known only to the test: what hangs there, what is on the stickers, who else sends. One installer
 * follows what Kapelle says, one accepts whatever is offered. Both press what the pages press.
 */

const DAYS = process.env.KAPELLE_LONG === '1' ? 200 : 20
const FIRST_MORNING = Date.parse('2026-05-04T08:00:00Z')
const who = { id: 'p1', name: 'Nell', role: 'installer' } as const

beforeEach(() => void vi.useFakeTimers({ toFake: ['Date'] }))
afterEach(() => void vi.useRealTimers())

const panels = catalogue.all('panel')

/** A plan on one of the seven panels: eight devices that its receivers hear, numbered by the planner; on air or by display. */
function planOf(seed: number): JobDocument {
  const random = seededRandom(seed * 7919)
  const panel = panels[seed % panels.length]
  if (!panel) throw new Error('no panel')
  const info = {
    ...blankJob,
    ...({ id: 'job:main', name: 'Day', region: panel.regions[0] ?? 'europe', kind: 'new' } as const),
    ...({ monitored: false, grade: 1, panel: panel.id, airSeed: 1 } as const),
    radioFirmware: panel.radioFirmware.at(-1) ?? null,
    ...{ entry1: 30, entry2: 30, exit: 60, practice: seed % 2 === 0 },
  }
  let doc = after(emptyDocument, startOps(emptyDocument, catalogue, info))
  const apart = panel.builtIn === null ? panel.receivers.at(-1) : undefined
  if (apart)
    doc = after(doc, [
      ...pinOps(doc, catalogue, [apart]),
      {
        op: 'add',
        record: {
          id: 'receiver:a',
          type: 'receiver',
          model: apart,
          room: '',
          encryptedOnly: false,
          order: 1,
        },
      },
    ])
  const receiver = catalogue.get('receiver', panel.builtIn ?? apart ?? null)
  const families = (receiver?.hears ?? []).map(({ family }) => family)
  const heard = catalogue
    .all('device')
    .filter(({ family, discontinued }) => family !== null && families.includes(family) && !discontinued)
  const wanted = ['contact', 'contact', 'motion', 'smoke', 'contact', 'fob', 'flood', 'keypad'] as const
  for (const [index, kind] of wanted.entries()) {
    const models = heard.filter((model) => model.class === kind)
    const model = models[Math.floor(random() * models.length)]
    if (!model) continue
    const use =
      kind === 'motion' ? 'on-way' : kind === 'contact' ? (index === 0 ? 'entry' : 'opening') : 'none'
    const record = {
      ...blankDevice,
      ...({ id: `device:d${index}`, model: model.id, room: model.carried ? '' : `room ${index}` } as const),
      ...({ order: index + 1, use } as const),
    }
    doc = after(doc, [...pinOps(doc, catalogue, [model.id]), { op: 'add', record }])
  }
  let count = 0
  const opts = { newId: () => `zone:z${(count += 1)}`, houseRules: defaultHouseRules, fresh: false }
  doc = after(doc, numberAll(doc, catalogue, opts).ops)
  // What the panel has no number or slot for stays in the van.
  const taken = new Set(targetsOf(doc, catalogue).map(({ device }) => device.id))
  const left = recordsOf(doc, 'device').filter(({ id }) => !taken.has(id))
  return after(
    doc,
    left.map((record): Op => ({ op: 'remove', record })),
  )
}

/** A day at a house, over several openings of the page. */
class Day {
  readonly heard = shallowRef<readonly Transmission[]>([])
  readonly world: DayWorld
  page!: JobPage
  server!: StrictServer
  enrol!: Enrolling
  ladder!: ReturnType<typeof useLadder>
  proving!: ReturnType<typeof useProving>
  /** Evidence that was ever taken: none of it may be lost. */
  readonly taken = new Set<string>()
  /** How often something wrong was offered and could not be accepted. */
  stopped = 0
  #scope: EffectScope | null = null

  constructor(seed: number) {
    const plan = planOf(seed)
    this.world = new DayWorld(plan, catalogue, seed)
    const stickers = [...this.world.things.keys()].map((id): Op => {
      return { op: 'set', id, field: 'sticker', from: null, to: this.world.noted(id) }
    })
    const result = applyOps(plan, stickers)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    this.#head = result.doc
  }
  #head: JobDocument

  get doc(): JobDocument {
    return this.page.job.doc
  }

  /** Opens the page anew on what the server has: nothing of the page before is kept. */
  async restart(): Promise<void> {
    if (this.#scope) this.close()
    this.server = strictServer(JSON.parse(JSON.stringify(this.#head)) as JobDocument, who)
    this.page = await openJob(this.server.head(), 'installer', [], this.server)
    this.heard.value = []
    this.#scope = effectScope()
    const air: Air = {
      ...{ heard: this.heard, listening: computed(() => true), seconds: computed(() => 1) },
      ...{ start: () => undefined, stop: () => undefined },
    }
    this.#scope.run(() => {
      this.enrol = useEnrol(air)
      this.ladder = useLadder(this.enrol)
      this.proving = useProving()
    })
    await this.settle()
  }

  close(): void {
    this.#scope?.stop()
    this.#head = this.server.head()
    expect(this.server.refused).toEqual([])
    for (const { edit } of this.server.journal())
      for (const op of edit.ops)
        if (op.op === 'add' && isEvidence(op.record.type)) this.taken.add(op.record.id)
    this.page.close()
  }

  async settle(): Promise<void> {
    vi.setSystemTime(FIRST_MORNING + this.world.ms)
    await this.page.settle()
  }

  /** Trips a device: what is heard comes to the page, by the air or by the panel's display. True when anything came. */
  async trip(target: Target, alone = false): Promise<boolean> {
    const sent = this.world.trip(this.doc, target, alone)
    this.enrol.choose(target.id)
    if (this.enrol.practice.value) {
      for (const one of sent) {
        this.heard.value = [one, ...this.heard.value]
        await nextTick()
      }
      // What came last is looked at, as a finger on the list would.
      const last = sent.filter(({ cause }) => cause !== 'check-in').at(-1)
      if (last) this.enrol.show(last)
      await this.settle()
      return last !== undefined
    }
    // A panel that listens takes the first that is no check-in.
    const first = sent.find(({ cause }) => cause !== 'check-in')
    await this.settle()
    if (!first || first.cause === 'check-in') return false
    const shown = { cause: first.cause, loop: first.loop }
    // The last signs suffice beside a sticker that one can look at.
    const few = this.world.truth(target.device.id).readable ? first.serial.slice(-4) : first.serial
    const fault = this.enrol.display({ ...shown, signs: few })
    if (fault !== '') this.enrol.display({ ...shown, signs: first.serial })
    return true
  }
}

/** Follows what Kapelle says about one target until it is learned; gives how many steps it took. */
async function learnCarefully(day: Day, id: string): Promise<number> {
  let steps = 0
  const now = (): Target => {
    const found = targetsOf(day.doc, catalogue).find((target) => target.id === id)
    if (!found) throw new Error(`no target ${id}`)
    return found
  }
  let alone = false
  for (; !now().done && steps < 60; steps += 1) {
    const { enrol, world } = day
    enrol.choose(id)
    await day.settle()
    if (enrol.pass.value.length > 0) {
      enrol.takePass()
      await day.settle()
      continue
    }
    if (now().sister) {
      if (enrol.sister.value) enrol.takeSister()
      else typeIt(day, now())
      await day.settle()
      continue
    }
    if (!(await day.trip(now(), alone))) {
      climb(day)
      await day.settle()
      continue
    }
    const verdict = enrol.judgement.value
    if (!verdict) continue
    if (verdict.kind === 'refuse') {
      // The same ID from the device alone, against a sticker that nobody can read: the noted one goes.
      if (alone && enrol.mayForget.value && !world.truth(now().device.id).readable) enrol.forgetSticker()
      else enrol.refuse()
      readSticker(day, now())
      alone = true
    } else if (verdict.kind === 'query') {
      // No sticker is noted, or another is nearly it: read it; where it cannot be read, trip it alone twice.
      if (world.truth(now().device.id).readable) readSticker(day, now())
      else if (enrol.unconfirmed.value) alone = true
      else if (alone) enrol.accept()
      else alone = true
    } else {
      if (verdict.kind === 'ask-loop') enrol.loop.value = now().loop?.loop ?? null
      enrol.accept()
    }
    await day.settle()
  }
  return steps
}

/** With the device in hand its sticker is read once more, and noted where it is not what stands there. */
function readSticker(day: Day, { device }: Target): void {
  const { serial, readable } = day.world.truth(device.id)
  if (!readable || device.sticker === serial) return
  day.enrol.type(serial)
  day.enrol.noteSticker()
}

/** Nothing came: the next rung, or the ID off the sticker where nothing else is left. */
function climb(day: Day): void {
  const { ladder, enrol, world } = day
  const rung = ladder.ladder.value?.rungs.find((one) => one.rung === ladder.ladder.value?.next)
  const target = enrol.target.value
  if (!rung || !target) return
  ladder.doIt(rung)
  world.ms += rung.waitSeconds * 1000
  if (rung.rung === 'type') typeIt(day, target)
}

/** Types the ID off the sticker. */
function typeIt(day: Day, target: Target): void {
  const { serial, readable } = day.world.truth(target.device.id)
  if (!readable) return
  readSticker(day, target)
  day.enrol.type(serial)
  day.enrol.accept()
}

/** Makes every proof that can be made now and records what was seen of it, never more. */
async function prove(day: Day): Promise<void> {
  let nextDay = false
  for (let round = 0; round < 12; round++) {
    let made = 0
    for (const stop of proofRoute(day.doc, catalogue, new Date().toISOString()))
      for (const item of stop.items)
        if (item.state !== 'pass' && item.waits === '') {
          observe(day, stop, item)
          made += 1
        }
    await day.settle()
    if (made > 0) continue
    if (nextDay) return
    // What waits for a day to pass is done the next morning.
    nextDay = true
    day.world.ms += 26 * 3_600_000
    await day.settle()
  }
}

/** Whether the panel knows a subject by this ID: what was typed stands whole, of what it learned itself only what it showed is claimed. */
function knows(doc: JobDocument, subject: string, serial: string): boolean {
  const known = enrolmentOf(doc, subject)
  if (!known) return false
  const { shown } = known.evidence
  return shown === null ? known.serial === serial : serial.endsWith(shown)
}

/** What only a device does whose own ID the panel knows. */
const byRadio: readonly string[] = [
  ...['armed', 'agent', 'trip', 'toggle', 'walk', 'tester', 'button'],
  ...['home', 'bound', 'reach', 'sets', 'labels', 'calls', 'sounds', 'tamper'],
]

function observe(day: Day, stop: ProofStop, item: ProofItem): void {
  day.world.ms += 1_000
  vi.setSystemTime(FIRST_MORNING + day.world.ms)
  const { doc } = day
  const job = { doc, catalogue, figures: defaultHouseRules.figures }
  const family = catalogue.get('family', stop.model?.family ?? null)
  let outcome: 'pass' | 'fail' = 'pass'
  let reading: number | null = null
  let note = ''
  if (item.kind === 'placement' || item.kind === 'average') {
    reading = day.world.reading(stop.id)
    if (resultProblem({ kind: item.kind, family }, { outcome, reading, note })) outcome = 'fail'
  } else if (item.kind === 'mount') {
    const points = mountPoints(job, stop, job.figures)
    note = mountNote(points, new Set(points.map(({ key }) => key)), '') ?? ''
  } else if (item.kind === 'home') reading = (homeDelay(job, item.subject) ?? 0) - 10
  if (family && byRadio.includes(item.kind)) {
    const ids = [item.subject, ...stop.zones.map(({ id }) => id)]
    const subject = ids.find((id) => enrolmentOf(doc, id) !== null)
    const isIt = subject !== undefined && knows(doc, subject, day.world.truth(stop.id).serial)
    if (isIt) day.world.seen.add(item.subject)
    else outcome = 'fail'
  }
  const fault = day.proving.write(day.proving.resultsOf(item, [item], { outcome, reading, note, method: '' }))
  expect(fault).toBe('')
}

const wrongIds = (day: Day, doc: JobDocument): string[] =>
  targetsOf(doc, catalogue)
    .filter(({ id, done, device }) => done && !knows(doc, id, day.world.truth(device.id).serial))
    .map(({ name }) => name)

const owed = (doc: JobDocument) => {
  const input = {
    ...{ doc, catalogue, elsewhere: null, houseRules: defaultHouseRules },
    now: new Date().toISOString(),
  }
  return owedList(input, judge(input))
}

it(`a careful installer keeps no wrong ID, proves nothing unseen and loses nothing, in ${DAYS} days`, async () => {
  let devices = 0
  let tries = 0
  for (let seed = 1; seed <= DAYS; seed++) {
    const day = new Day(seed)
    await day.restart()
    const ids = targetsOf(day.doc, catalogue).map(({ id }) => id)
    expect(ids.length, `day ${seed}`).toBeGreaterThan(4)
    for (const [index, id] of ids.entries()) {
      if (index === Math.floor(ids.length / 2)) await day.restart()
      const steps = await learnCarefully(day, id)
      expect(steps, `day ${seed}, ${id}`).toBeLessThan(60)
      tries += steps
    }
    await day.restart()
    expect(wrongIds(day, day.doc), `day ${seed}`).toEqual([])
    await prove(day)
    const doc = day.doc
    for (const stop of proofRoute(doc, catalogue, new Date().toISOString()))
      for (const { kind, state, subject } of stop.items) {
        if (['armed', 'agent', 'trip'].includes(kind) && state === 'pass')
          expect(day.world.seen.has(subject), `day ${seed}, ${subject}`).toBe(true)
      }
    const open = owed(doc).map(({ key }) => key)
    expect(open, `day ${seed}`).not.toContain('enrol')
    expect(open, `day ${seed}: ${openProofs(doc)}`).not.toContain('proofs')
    day.close()
    for (const id of day.taken) expect(day.server.head().records[id], `day ${seed}, ${id}`).toBeDefined()
    devices += ids.length
  }
  expect(tries).toBeGreaterThan(devices)
})

function openProofs(doc: JobDocument): string {
  return proofRoute(doc, catalogue, new Date().toISOString())
    .flatMap(({ items }) => items.filter(({ state }) => state !== 'pass'))
    .map(({ kind, subject, state, waits }) => `${kind} ${subject} ${state} ${waits}`)
    .join('; ')
}

/** Accepts whatever is offered: types what was heard, states any loop, goes without the second transmission. */
async function learnCarelessly(day: Day, id: string): Promise<void> {
  for (let step = 0; step < 6; step++) {
    const target = targetsOf(day.doc, catalogue).find((one) => one.id === id)
    if (!target || target.done) return
    day.enrol.choose(id)
    await day.settle()
    if (!(await day.trip(target))) continue
    const { enrol } = day
    const wrong = enrol.candidate.value?.serial !== day.world.truth(target.device.id).serial
    enrol.goWithout('no time today')
    enrol.loop.value = target.loop?.loop ?? null
    enrol.accept()
    await day.settle()
    if (!isDone(day, id)) {
      if (wrong) day.stopped += 1
      // What was heard is typed in, for the panel would take it.
      enrol.type(enrol.candidate.value?.serial ?? '')
      enrol.accept()
      await day.settle()
    }
  }
}

const isDone = (day: Day, id: string): boolean => enrolmentOf(day.doc, id) !== null

it(`a careless installer is stopped, and what was kept wrong blocks the hand-over, in ${DAYS} days`, async () => {
  let stopped = 0
  let kept = 0
  for (let seed = 1; seed <= DAYS; seed++) {
    const day = new Day(seed)
    await day.restart()
    for (const { id } of targetsOf(day.doc, catalogue)) await learnCarelessly(day, id)
    const { doc } = day
    for (const target of targetsOf(doc, catalogue)) {
      const { serial } = day.world.truth(target.device.id)
      if (!target.done || knows(doc, target.id, serial)) continue
      kept += 1
      // Nobody compared it with a sticker that is right: it is known to be unsettled.
      const told = recordsOf(doc, 'device').find(({ id }) => id === target.device.id)
      expect([null, target.serial], `day ${seed}, ${target.name}`).toContain(told?.sticker)
    }
    await prove(day)
    const wrong = wrongIds(day, day.doc)
    const open = owed(day.doc).filter(({ blocks }) => blocks)
    if (wrong.length > 0)
      expect(
        open.map(({ key }) => key),
        `day ${seed}`,
      ).toContain('proofs')
    expect(open.length, `day ${seed}`).toBeGreaterThan(0)
    stopped += day.stopped
    day.close()
  }
  console.log(`careless: ${stopped} times stopped, ${kept} wrong IDs kept, all of them unproved`)
  expect(stopped).toBeGreaterThan(DAYS / 2)
})
