import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordOf } from '../job/document.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { pinOps } from '../job/start.ts'
import { jobOnEach } from '../testing/panels.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { PANEL } from './copy.ts'
import { openProofs, proofRoute } from './owed.ts'
import { proofRecord } from './records.ts'
import { NOT_TRIPPED, proofMethods, type ProofKind } from './table.ts'
import {
  behindRepeater,
  itemOf,
  itemsOf,
  learned,
  noon,
  one,
  pass,
  record,
  tarn,
  two,
} from './testing/proved-jobs.ts'

/** Proofs as `kind` or `kind: label`. */
const owes = (job: SmallJob, key: string) =>
  itemsOf(job, key).map(({ kind, label }) => (label === '' ? kind : `${kind}: ${label}`))

describe('what is owed', () => {
  // Reasoned by hand from what each kind of device owes, on a monitored Tarn 40.
  it.each<[string, string, string[]]>([
    [
      'porch',
      'a contact at a door that people come in by: opened and closed, set off, timed; its terminals have no zone',
      [
        ...[
          'mount',
          'placement',
          'toggle: Reed, zone 01',
          'tamper',
          'armed: Reed, zone 01',
          'home: Reed, zone 01',
        ],
        'report: Reed, zone 01',
      ],
    ],
    [
      'hall',
      'a motion: walked, its pet setting looked at',
      [
        'mount',
        'placement',
        'walk: Motion, zone 03',
        'setting',
        'tamper',
        'armed: Motion, zone 03',
        'report: Motion, zone 03',
      ],
    ],
    [
      'lounge',
      'glass break: the tester at the glass',
      [
        'mount',
        'placement',
        'tester: Glass, zone 04',
        'tamper',
        'armed: Glass, zone 04',
        'report: Glass, zone 04',
      ],
    ],
    [
      'landing',
      'smoke, heat and frost: each by its own event, each its own report',
      [
        'mount',
        'placement',
        'agent: Smoke, zone 05',
        'agent: Heat, zone 06',
        'agent: Freeze, zone 07',
        'tamper',
        'report: Smoke, zone 05',
        'report: Heat, zone 06',
        'report: Freeze, zone 07',
      ],
    ],
    [
      'kitchen',
      'CO, without a cover that tells',
      ['mount', 'placement', 'agent: CO, zone 08', 'report: CO, zone 08'],
    ],
    ['bedroom', 'a worn pendant has no one place', ['trip: Button, zone 09', 'report: Button, zone 09']],
    [
      'fob',
      'every button by itself, its panic as a call',
      [
        'button: Away key',
        'button: Disarm key',
        'button: Stay key',
        'bound',
        'reach',
        'battery',
        'trip: Panic key',
      ],
    ],
    [PANEL, 'the panel itself', ['mount', 'mains', 'clock', 'battery', 'tamper', 'clears', 'path']],
  ])('%s: %s', (key, _why, list) => {
    const plain = (text: string): string => text.replace(/: .*?(, zone \d+)$/, ':$1').replace(/: [^,]*$/, ':')
    expect(owes(tarn(), key).map(plain)).toEqual(list.map(plain))
  })

  it('names each event by its loop, so that none vouches for another', () => {
    const job = pass(tarn(), 'landing', 'agent', itemOf(tarn(), 'landing', 'agent').label)
    expect(itemsOf(job, 'landing').map(({ kind, state }) => `${kind} ${state}`)).toEqual([
      'mount owed',
      'placement owed',
      'agent pass',
      'agent owed',
      'agent owed',
      'tamper owed',
      'report owed',
      'report owed',
      'report owed',
    ])
  })

  it('leaves reports and ways of reporting out where nobody receives them', () => {
    const local = tarn().set('job:main', { monitored: false })
    expect(itemsOf(local, 'porch').map((item) => item.kind)).toEqual([
      'mount',
      'placement',
      'toggle',
      'tamper',
      'armed',
      'home',
    ])
    expect(itemsOf(local, PANEL).map((item) => item.kind)).not.toContain('path')
  })

  it.each([
    // After an alarm the first unset only silences on these three.
    ['tarn-40', true],
    ['morrow-60', true],
    ['sallow-m', true],
    ['ostler-s-8', false],
    ['ostler-s-9', false],
    ['pinfold-16', false],
    ['quillet-32', false],
  ])('a %s is seen to clear only where a second unset does it', (id, clears) => {
    const [, make] = jobOnEach.find(([panel]) => panel === id) ?? expect.fail()
    expect(itemsOf(make(), PANEL).some(({ kind }) => kind === 'clears')).toBe(clears)
  })

  it('asks for no report of a zone whose report the plan leaves off, but where its type hides the question', () => {
    const job = tarn()
    job.set(job.zone('porch').id, { report: false })
    expect(itemsOf(job, 'porch').map((item) => item.kind)).not.toContain('report')
    expect(itemsOf(job, 'study').map((item) => item.kind)).toContain('report')
    const hiding = catalogue
      .get('panel', 'panel/tarn-40')
      ?.responseTypes.find((type) => type.hides.includes('report'))
    if (!hiding) return
    job.set(job.zone('porch').id, { response: hiding.key })
    expect(itemsOf(job, 'porch').map((item) => item.kind)).toContain('report')
  })

  /** Handed over at a time. */
  const handed = (job: SmallJob, at: string): SmallJob =>
    job.apply([
      {
        op: 'add',
        record: {
          ...evidenceBy('Idris', at),
          id: 'fixed-rules:a',
          type: 'fixed-rules',
          rules: defaultHouseRules,
        },
      },
    ])

  it('opens no job again that was handed over before mounting and coming home were proofs', () => {
    const kinds = (job: SmallJob, key: string) => itemsOf(job, key).map(({ kind }) => kind)
    const old = tarn()
    for (const kind of ['toggle', 'armed'] as const) pass(old, 'porch', kind)
    pass(old, PANEL, 'clock')
    handed(old, one)
    expect(kinds(old, 'porch')).toEqual(['placement', 'toggle', 'tamper', 'armed', 'report'])
    expect(kinds(old, PANEL)).not.toContain('mount')
    // What nobody had proved by then, or came later, owes everything.
    expect(kinds(old, 'study')).toContain('mount')
    pass(old, 'study', 'armed', '', two)
    expect(kinds(old, 'study')).toContain('mount')
    // A job that had such proofs when it was handed over keeps owing them.
    const now = tarn()
    for (const kind of ['mount', 'armed'] as const) pass(now, 'porch', kind)
    handed(now, one)
    expect(kinds(now, 'porch')).toEqual(expect.arrayContaining(['mount', 'home']))
    expect(kinds(now, PANEL)).toContain('mount')
  })

  it('nor one that was handed over with those, before a second unset was a proof', () => {
    const kinds = (job: SmallJob) => itemsOf(job, PANEL).map(({ kind }) => kind)
    const before = tarn()
    pass(before, PANEL, 'mount')
    handed(before, one)
    expect(kinds(before)).toContain('mount')
    expect(kinds(before)).not.toContain('clears')
    // A job that had it keeps owing it; one whose panel nobody had proved owes it.
    const now = tarn()
    for (const kind of ['mount', 'clears'] as const) pass(now, PANEL, kind)
    handed(now, one)
    expect(kinds(now)).toContain('clears')
    const bare = tarn()
    pass(bare, 'porch', 'mount')
    handed(bare, one)
    expect(kinds(bare)).toContain('clears')
  })

  it('leaves a deferred device out: it is not there yet', () => {
    const job = tarn().set('device:study', { deferred: 'window comes in June' })
    expect(proofRoute(job.doc, catalogue, null).map((stop) => stop.id)).not.toContain('device:study')
  })

  it('goes room by room, the panel last: by the numbers where nobody described the house', () => {
    expect(proofRoute(tarn().doc, catalogue, null).map((stop) => stop.room || stop.id)).toEqual([
      ...['porch', 'study', 'hall', 'lounge', 'landing', 'kitchen', 'bedroom', 'device:fob', PANEL],
    ])
  })

  it('asks a siren for its sound, cut-off, cover and battery, and a keypad for its areas, labels, calls and cover', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', monitored: false })
      .add('bell', 'singer-8', { slot: 1 })
      .add('pad', 'scriber-8', { slot: 1 })
    expect(itemsOf(job, 'bell').map((item) => item.kind)).toEqual([
      ...['mount', 'placement', 'average', 'sounds', 'cutoff', 'battery', 'tamper'],
    ])
    const kinds = itemsOf(job, 'pad').map((item) => item.kind)
    expect(kinds.filter((kind) => kind !== 'calls')).toEqual([
      ...['mount', 'placement', 'average', 'sets', 'labels', 'tamper'],
    ])
  })

  it('asks a repeater for its mains and what hangs on it, and for no alarm', () => {
    const job = behindRepeater()
    expect(itemsOf(job, 'relay').map((item) => item.kind)).toEqual([
      ...['mount', 'placement', 'average', 'mains', 'downstream', 'tamper'],
    ])
  })
})

describe('what comes first', () => {
  it('nothing is proved before it is enrolled, each zone for itself', () => {
    const job = cleanTarn()
    // What hangs at its place can be looked at before the panel knows it.
    const [mounted, ...rest] = itemsOf(job, 'porch')
    expect([mounted?.kind, mounted?.state]).toEqual(['mount', 'owed'])
    expect(rest.every((item) => item.state === 'waits' && item.waits.startsWith('Enrol'))).toBe(true)
    learned(job, 'porch')
    expect(itemsOf(job, 'porch').map((item) => item.state)).toEqual(itemsOf(job, 'porch').map(() => 'owed'))
    // Heat is an event of its own: smoke's learning does not make it known.
    job.learn(job.zone('landing', 'smoke').id, '60911204')
    expect(
      itemsOf(job, 'landing')
        .filter((item) => item.kind === 'agent')
        .map((item) => item.state),
    ).toEqual([...['owed', 'waits', 'waits']])
  })

  it('a wired device waits for no radio', () => {
    const job = new SmallJob().add('back', 'contact-w', { use: 'opening' }).number()
    expect(itemsOf(job, 'back').map((item) => [item.kind, item.state])).toEqual([
      ['mount', 'owed'],
      ['toggle', 'owed'],
      ['armed', 'owed'],
      ['report', 'owed'],
    ])
  })

  it('what hangs on a repeater waits for the repeater’s reading', () => {
    const job = behindRepeater()
    const shed = itemsOf(job, 'shed').filter(({ kind }) => kind !== 'mount')
    expect(new Set(shed.map((item) => item.state))).toEqual(new Set(['waits']))
    expect(itemOf(job, 'hall', 'placement').state).toBe('owed')
    expect(itemOf(job, 'relay', 'downstream').waits).toContain('Sill 8')
    record(job, itemOf(job, 'relay', 'placement'), { reading: 80 })
    expect(itemOf(job, 'shed', 'placement').state).toBe('owed')
    record(job, itemOf(job, 'shed', 'placement'), { reading: 80 })
    expect(itemOf(job, 'relay', 'downstream').state).toBe('owed')
    // Moved, its reading is owed again, and so is what hangs on it.
    job.set('device:relay', { position: 'top of the stairs' })
    expect(itemOf(job, 'shed', 'armed').waits).toContain('repeater')
  })

  it('the average of a day waits for the reading, then until the day has passed', () => {
    const job = learned(cleanMorrow(), 'front')
    expect(itemOf(job, 'front', 'average').waits).toBe('The reading now comes first.')
    record(job, itemOf(job, 'front', 'placement'), { reading: 7, at: noon })
    const at = (now: string) => itemOf(job, 'front', 'average', '', now)
    expect([at('2026-05-05T11:59:59.000Z').state, at('2026-05-05T11:59:59.000Z').from]).toEqual([
      'waits',
      '2026-05-05T12:00:00.000Z',
    ])
    expect([at('2026-05-05T12:00:00.000Z').state, at('2026-05-05T12:00:00.000Z').from]).toEqual([
      'owed',
      null,
    ])
    // A family that keeps no average owes none.
    expect(itemsOf(tarn(), 'porch').map((item) => item.kind)).not.toContain('average')
  })

  it('a mesh settles after the last device at its place, and starts anew with the next', () => {
    const job = new SmallJob({ panel: 'panel/sallow-m' })
      .add('front', 'jetty', { use: 'entry' })
      .add('back', 'jetty-slim', { use: 'opening' })
      .number()
    learned(job, 'front')
    const settled = (now: string) => itemOf(job, PANEL, 'settled', '', now)
    record(job, itemOf(job, 'front', 'placement'), { reading: 25, at: noon })
    expect(settled(two).waits).toBe('1 of its devices is not learned and read at its place yet.')
    learned(job, 'back')
    record(job, itemOf(job, 'back', 'placement'), { reading: 25, at: one })
    expect(settled('2026-05-04T13:19:00Z').from).toBe('2026-05-04T13:20:00.000Z')
    expect(settled('2026-05-04T13:21:00Z').state).toBe('owed')
    record(job, settled('2026-05-04T13:21:00Z'), { at: '2026-05-04T13:25:00Z' })
    expect(settled(two).state).toBe('pass')
    record(job, itemOf(job, 'back', 'placement'), { reading: 30, at: two })
    expect(settled('2026-05-04T15:00:00Z').changed).toEqual([
      'Jetty Slim contact in back came to its place since',
    ])
  })
})

describe('results', () => {
  it('are owed first, then as the last one says; the failed one stays beside the retest', () => {
    const job = tarn()
    const walk = () => itemOf(job, 'hall', 'walk')
    expect(walk().state).toBe('owed')
    record(job, walk(), { outcome: 'fail', at: noon })
    expect(walk().state).toBe('fail')
    record(job, walk(), { outcome: 'inconclusive', at: one })
    expect(walk().state).toBe('inconclusive')
    record(job, walk(), { outcome: 'pass', at: two })
    expect(walk().results.map((item) => item.outcome)).toEqual(['fail', 'inconclusive', 'pass'])
    expect(itemOf(job, 'hall', 'armed').state).toBe('owed')
  })

  it('count as open until they pass', () => {
    const job = tarn()
    // The entry door 7, the other contact 6, motion 7, glass 6, the smoke 9, CO 4, pendant 2, fob 7, panel 7.
    expect(openProofs(proofRoute(job.doc, catalogue, null))).toBe(55)
    pass(job, 'hall', 'walk')
    record(job, itemOf(job, 'hall', 'armed'), { outcome: 'inconclusive' })
    expect(openProofs(proofRoute(job.doc, catalogue, null))).toBe(54)
  })

  it('of one button are of that button alone', () => {
    const job = tarn()
    const [first, second] = itemsOf(job, 'fob')
    if (!first || !second) throw new Error('no buttons')
    record(job, first)
    expect(
      itemsOf(job, 'fob')
        .slice(0, 2)
        .map((item) => item.state),
    ).toEqual(['pass', 'owed'])
  })
})

describe('a proof of what has changed', () => {
  const proved = (kind: ProofKind, key: string): SmallJob =>
    record(tarn(), itemOf(tarn(), key, kind), { reading: kind === 'placement' ? 4 : null })

  it.each<[string, ProofKind, (job: SmallJob) => SmallJob, string]>([
    ['number', 'armed', (job) => job.set(job.zone('porch').id, { number: 21 }), 'number: 1 then, 21 now'],
    ['response', 'armed', (job) => job.set(job.zone('porch').id, { response: 'entry-2' }), 'response: '],
    [
      'ID',
      'armed',
      (job) => job.learn(job.zone('porch').id, '10999999', { at: '2026-05-04T23:00:00Z' }),
      'ID: 10000000 then, 10999999 now',
    ],
    [
      'delay it starts',
      'armed',
      (job) => job.set('job:main', { entry1: 45 }),
      'entry delay: 30 s then, 45 s now',
    ],
    ['room', 'placement', (job) => job.set('device:porch', { room: 'hall' }), 'room: porch then, hall now'],
    [
      'position',
      'placement',
      (job) => job.set('device:porch', { position: 'frame' }),
      'position: front door then, frame now',
    ],
  ])('is stale and says what: %s', (_name, kind, change, says) => {
    const job = proved(kind, 'porch')
    expect(itemOf(job, 'porch', kind).state).toBe('pass')
    change(job)
    expect(itemOf(job, 'porch', kind).changed.join('; ')).toContain(says)
    expect(['stale', 'waits']).toContain(itemOf(job, 'porch', kind).state)
  })

  it('stands where something changed that it does not name', () => {
    // A reading names no number and no delay; an armed trip no place; a motion that starts no delay not the delay.
    const reading = proved('placement', 'porch')
    reading.set(reading.zone('porch').id, { label: 'Front Door' }).set('job:main', { entry1: 45 })
    expect(itemOf(reading, 'porch', 'placement').state).toBe('pass')
    const trip = proved('armed', 'porch').set('device:porch', { position: 'frame' })
    expect(itemOf(trip, 'porch', 'armed').state).toBe('pass')
    const window = proved('armed', 'study').set('job:main', { entry1: 45 })
    expect(itemOf(window, 'study', 'armed').state).toBe('pass')
    const fob = proved('reach', 'fob').set('device:fob', { user: null })
    expect(itemOf(fob, 'fob', 'reach').state).toBe('pass')
  })

  it('a binding names its user', () => {
    const job = proved('bound', 'fob')
    expect(itemOf(job, 'fob', 'bound').state).toBe('pass')
    job.set('device:fob', { user: null })
    expect(itemOf(job, 'fob', 'bound').changed.join('; ')).toContain('user: Nell then, nobody now')
  })

  it('is owed again on another panel', () => {
    const job = record(tarn(), itemOf(tarn(), PANEL, 'clock'))
    expect(itemOf(job, PANEL, 'clock').state).toBe('pass')
    job.apply(pinOps(job.doc, catalogue, ['panel/pinfold-16'])).set('job:main', { panel: 'panel/pinfold-16' })
    expect(itemOf(job, PANEL, 'clock').changed[0]).toBe('panel: Tarn 40 then, Pinfold 16 now')
  })

  it('stands again once what changed is put back', () => {
    const job = proved('armed', 'porch').set('job:main', { entry1: 45 }).set('job:main', { entry1: 30 })
    expect(itemOf(job, 'porch', 'armed').state).toBe('pass')
  })
})

it('offers the ways to trip an event, and says on the record where it was never tripped', () => {
  expect(proofMethods('agent', 'smoke')).toEqual(['the maker’s aerosol', 'test button'])
  expect(proofMethods('agent', 'freeze')).toContain(NOT_TRIPPED)
  expect(proofMethods('agent', 'smoke')).not.toContain(NOT_TRIPPED)
  expect(proofMethods('armed', 'open')).toEqual([])
})

it('keeps in a copy what a proof is of: the ID, the delay that the trip starts, the carrier', () => {
  const job = tarn()
  const copy = proofRecord({ doc: job.doc, catalogue }, itemOf(job, 'porch', 'armed'), {
    made,
    result: { outcome: 'pass' },
  }).of
  expect(copy).toMatchObject({ panel: 'panel/tarn-40', device: 'device:porch', serial: '10000000' })
  expect(copy?.zones).toEqual([
    expect.objectContaining({ zone: job.zone('porch').id, number: 1, serial: '10000000', delay: 30 }),
  ])
  const window = proofRecord({ doc: job.doc, catalogue }, itemOf(job, 'study', 'armed'), {
    made,
    result: { outcome: 'pass' },
  }).of
  expect(window?.zones[0]?.delay).toBeNull()
  const fob = proofRecord({ doc: job.doc, catalogue }, itemOf(job, 'fob', 'bound'), {
    made,
    result: { outcome: 'pass' },
  }).of
  expect(recordOf(job.doc, 'user', fob?.user ?? null)?.name).toBe('Nell')
})

const made = { id: 'test:copy', who: { id: 'idris', name: 'Idris' }, at: noon }
