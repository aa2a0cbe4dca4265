import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { helpedIn, ladderOf, triedRecord, type Helped, type Rung } from './ladder.ts'
import { targetsOf, type Target } from './learn.ts'

/* What each ladder says is reasoned from the entries of the devices by hand. */

const targetAt = (job: SmallJob, device: string): Target =>
  targetsOf(job.doc, catalogue).find((item) => item.device.id === `device:${device}`) ??
  expect.fail(`no target of ${device}`)
const ladder = (job: SmallJob, device: string, helped: readonly Helped[] = []) =>
  ladderOf({ doc: job.doc, catalogue, target: targetAt(job, device), helped }) ?? expect.fail('no radio')
const rung = (job: SmallJob, device: string, which: Rung) =>
  ladder(job, device).rungs.find((one) => one.rung === which)

let second = 0
const clock = (): string => new Date(Date.UTC(2026, 4, 4, 9, 0, (second += 1))).toISOString()

/** Notes that the next of a kind was tried for a device, as Enrol does. */
function tryIt(job: SmallJob, device: string, which: Rung): SmallJob {
  const next = rung(job, device, which) ?? expect.fail(`no ${which}`)
  const made = triedRecord(job.doc, {
    id: `tried:${device}-${(second += 1)}`,
    target: targetAt(job, device),
    rung: next,
    who: { id: 'idris', name: 'Idris' },
    at: clock(),
  })
  return job.apply([{ op: 'add', record: made }])
}
const hear = (job: SmallJob, device: string, over: Parameters<SmallJob['learn']>[2] = {}): SmallJob =>
  job.learn(targetAt(job, device).id, '20417733', { at: clock(), ...over })

const porch = (): SmallJob =>
  new SmallJob().add('porch', 'reedling', { room: 'Porch', use: 'entry' }).number()

describe('what can be tried', () => {
  it('is what its own sheet says where nobody stated how it is made to send', () => {
    const reedling = catalogue.get('device', 'device/reedling') ?? expect.fail('no Reedling')
    const untold = catalogue.with([keepEntry({ ...reedling, ways: [] })])
    const job = porch()
    const { rungs } = ladderOf({
      doc: job.doc,
      catalogue: untold,
      target: targetAt(job, 'porch'),
      helped: [],
    }) ?? {
      rungs: [],
    }
    expect(rungs.slice(0, 2).map((one) => [one.rung, one.how, one.way])).toEqual([
      ['again', ['Make it send as its own sheet says.', 'It gets no answer, so not every try is heard.'], ''],
      [
        'battery',
        [
          'Take the battery out for 30 s, or as long as its own sheet says.',
          'Put it in again, the right way round.',
        ],
        '',
      ],
    ])
  })

  it('is again, another way, the battery, the variant, nearer, and last of all typing', () => {
    expect(ladder(porch(), 'porch').rungs.map((one) => [one.rung, one.how])).toEqual([
      [
        'again',
        [
          'Open the contact (its amber lamp glows while it sends).',
          'It gets no answer, so not every try is heard.',
        ],
      ],
      [
        'other-way',
        [
          'Open the cover (its amber lamp glows until the cover is back).',
          'If that is heard, the panel knows the device but not its event: the loop is asked for.',
        ],
      ],
      [
        'battery',
        [
          'Take the battery out for 30 s, or as long as its own sheet says.',
          'Put it in again, the right way round.',
          'Then open the contact.',
        ],
      ],
      [
        'variant',
        [
          'The plan has Reedling contact (Wren) here: read the model on its label.',
          'Tarn 40 is told equipment code 318 for it.',
          'Easily taken for it: Reedling C contact (Wren C, encrypted).',
        ],
      ],
      [
        'nearer',
        [
          'Take it within sight of the receiver, a metre or more away, and make it send there.',
          'Heard there only, its place is the fault: read its level there before it is fixed.',
        ],
      ],
      [
        'type',
        [
          'Type or scan its sticker and accept it as typed. It was not heard: a trip at its place must prove it.',
        ],
      ],
    ])
  })

  it('waits for a motion that sleeps, and for one that has only just got its battery', () => {
    const job = new SmallJob().add('hall', 'stilt', { room: 'Hall' }).number()
    expect(rung(job, 'hall', 'again')).toMatchObject({
      how: [
        'Leave it alone for 150 s first: it sleeps after a trip and sends nothing meanwhile.',
        'Walk in front of it (its amber lamp glows while it sends).',
        expect.anything(),
      ],
      waitSeconds: 150,
    })
    // 30 s without it, then 60 s until it watches.
    expect(rung(job, 'hall', 'battery')?.waitSeconds).toBe(90)
  })

  const ostler = () => new SmallJob({ panel: 'panel/ostler-s-8', region: 'europe', radioFirmware: '9.99' })

  it('takes the battery for a way to send where its first insert is heard', () => {
    const job = ostler().add('porch', 'sill-8', { room: 'Porch', use: 'entry' }).number()
    expect(rung(job, 'porch', 'again')?.how).toEqual([
      'Open the contact (white while it asks, then green: the panel answered; amber: nobody did).',
    ])
    expect(rung(job, 'porch', 'other-way')?.way).toBe('open the cover')
    expect(rung(job, 'porch', 'battery')).toMatchObject({
      how: [
        'Take the battery out for 30 s, or as long as its own sheet says.',
        'Insert the battery, 4 s (white until the panel answers, then green): that alone already sends.',
        'Then open the contact.',
      ],
      way: 'insert the battery',
    })
    // Its family has repeaters: one that is learned is as good as the receiver.
    expect(rung(job, 'porch', 'nearer')?.how[0]).toMatch(/receiver or of a repeater that is learned already,/)
  })

  it('of a siren whose only way is its battery: no other, no battery twice, and care for the ears', () => {
    const job = ostler().add('siren', 'herald-8', { room: 'Landing', slot: 1 })
    const { rungs } = ladder(job, 'siren')
    expect(rungs.map((one) => one.rung)).toEqual(['again', 'nearer', 'type'])
    expect(rungs[0]).toMatchObject({
      how: [
        'It may sound when power comes on: ears protected, nobody beside it.',
        'Take all 4 batteries out for 30 s, or as long as its own sheet says.',
        'Insert the battery, 4 s (white until the panel answers, then green).',
      ],
      waitSeconds: 30,
    })
  })

  it('of a repeater: its supply and its battery', () => {
    const job = ostler().add('rep', 'spanner-8', { room: 'Landing' })
    expect(rung(job, 'rep', 'again')?.how).toEqual([
      'Unplug its supply and take the battery out for 30 s, or as long as its own sheet says.',
      'Connect its supply, 12 s (white until the panel answers, then green).',
    ])
  })

  it('names the variants in the box, both ways, and nothing that has a name of its own', () => {
    const alike = (model: string) => {
      const job = porch()
      job.add('one', model)
      const device = job.device('one')
      const target = { ...targetAt(job, 'porch'), id: device.id, device }
      return (
        ladderOf({ doc: job.doc, catalogue, target, helped: [] })
          ?.rungs.find((one) => one.rung === 'variant')
          ?.how.at(-1) ?? ''
      )
    }
    expect(alike('reedling-c')).toMatch(/^Easily taken for it: Reedling contact \(Wren\)\.$/)
    // Stilt is made for another country, too; Stilt Hound is another device.
    expect(alike('stilt')).toMatch(/^Easily taken for it: Stilt Far[^,]*\.$/)
    expect(alike('stilt-hound')).toMatch(
      /^Easily taken for it: Stilt Hound C motion \(Wren C, encrypted\)\.$/,
    )
  })

  it('is nothing for what has no radio', () => {
    const job = porch()
    const target = { ...targetAt(job, 'porch') }
    job.add('wired', 'contact-w', { room: 'Hall' })
    const wired = { ...target, device: job.device('wired') }
    expect(ladderOf({ doc: job.doc, catalogue, target: wired, helped: [] })).toBeNull()
  })

  it('ends for every device of every family', () => {
    const models = catalogue.all('device').filter(({ family }) => family !== null)
    expect(models.length).toBeGreaterThan(80)
    for (const model of models) {
      const job = porch()
      const target = targetAt(job, 'porch')
      job.add('one', model.id.replace('device/', ''))
      const device = job.device('one')
      const of = { ...target, id: device.id, device }
      const seen: Rung[] = []
      for (let tries = 0; seen.at(-1) !== 'type'; tries++) {
        const now = ladderOf({ doc: job.doc, catalogue, target: of, helped: [] }) ?? expect.fail(model.id)
        expect([model.id, tries < 12]).toEqual([model.id, true])
        expect(now.rungs.every(({ how }) => how.length > 0 && !how.join(' ').includes('undefined'))).toBe(
          true,
        )
        const next = now.rungs.find((one) => one.rung === now.next) ?? expect.fail(model.id)
        seen.push(next.rung)
        const record = triedRecord(job.doc, {
          ...{ id: `tried:${tries}`, target: of, rung: next },
          ...{ who: { id: 'idris', name: 'Idris' }, at: clock() },
        })
        job.apply([{ op: 'add', record }])
      }
      expect([model.id, seen[0]]).toEqual([model.id, 'again'])
      expect(ladderOf({ doc: job.doc, catalogue, target: of, helped: [] })?.next).toBe('type')
    }
  })
})

describe('what comes next', () => {
  it('is what was not tried yet; of a one-way device one try may be lost, so that it is made twice', () => {
    const job = porch()
    const next: Rung[] = [ladder(job, 'porch').next]
    for (let count = 0; count < 6; count++)
      next.push(ladder(tryIt(job, 'porch', next.at(-1) ?? 'type'), 'porch').next)
    expect(next).toEqual(['again', 'again', 'other-way', 'battery', 'variant', 'nearer', 'type'])
    expect(rung(job, 'porch', 'again')?.tried).toHaveLength(2)
  })

  it('is what helped with this model before, most often first, but never before the same again', () => {
    const helped: Helped[] = [
      { model: 'device/reedling', rung: 'battery', times: 2 },
      { model: 'device/reedling', rung: 'battery', times: 1 },
      { model: 'device/reedling', rung: 'nearer', times: 2 },
      { model: 'device/stilt', rung: 'variant', times: 9 },
      { model: 'device/reedling', rung: 'type', times: 99 },
    ]
    const { rungs, next } = ladder(porch(), 'porch', helped)
    expect(next).toBe('again')
    expect(rungs.map((one) => [one.rung, one.helped])).toEqual([
      ['again', 0],
      ['battery', 3],
      ['nearer', 2],
      ['other-way', 0],
      ['variant', 0],
      ['type', 99],
    ])
  })

  it('begins anew once it was heard, and once it was taken out of the panel; what is refused changes nothing', () => {
    const job = tryIt(tryIt(porch(), 'porch', 'again'), 'porch', 'again')
    hear(job, 'porch', { decision: 'refused' })
    expect(ladder(job, 'porch').next).toBe('other-way')
    hear(job, 'porch')
    expect(ladder(job, 'porch').next).toBe('again')
    tryIt(tryIt(job, 'porch', 'again'), 'porch', 'again')
    expect(ladder(job, 'porch').next).toBe('other-way')
    hear(job, 'porch', { decision: 'released' })
    expect(ladder(job, 'porch').next).toBe('again')
  })

  it('is its own for each device', () => {
    const job = porch().add('back', 'reedling', { room: 'Kitchen', use: 'opening' }).number()
    tryIt(tryIt(job, 'porch', 'again'), 'porch', 'again')
    expect([ladder(job, 'porch').next, ladder(job, 'back').next]).toEqual(['other-way', 'again'])
  })
})

describe('what helped', () => {
  it('is the last that was tried before it was heard, once for each time', () => {
    const job = tryIt(tryIt(porch(), 'porch', 'again'), 'porch', 'battery')
    expect(helpedIn(job.doc)).toEqual([])
    hear(job, 'porch', { decision: 'refused' })
    hear(job, 'porch')
    hear(job, 'porch')
    const battery = { model: 'device/reedling', rung: 'battery', times: 1 }
    expect(helpedIn(job.doc)).toEqual([battery])
    tryIt(job, 'porch', 'nearer')
    expect(helpedIn(job.doc)).toEqual([battery])
    hear(job, 'porch')
    expect(helpedIn(job.doc)).toEqual([battery, { model: 'device/reedling', rung: 'nearer', times: 1 }])
  })

  it('adds up over the devices of a model', () => {
    const job = porch().add('back', 'reedling', { room: 'Kitchen', use: 'opening' }).number()
    for (const device of ['porch', 'back']) hear(tryIt(job, device, 'other-way'), device)
    expect(helpedIn(job.doc)).toEqual([{ model: 'device/reedling', rung: 'other-way', times: 2 }])
  })

  it('is nothing where its ID was typed, where it was taken out, and where another model came instead', () => {
    expect(helpedIn(hear(tryIt(porch(), 'porch', 'type'), 'porch', { source: 'sticker' }).doc)).toEqual([])
    const out = hear(tryIt(porch(), 'porch', 'again'), 'porch', { decision: 'released' })
    expect(helpedIn(hear(out, 'porch').doc)).toEqual([])
    const other = tryIt(porch(), 'porch', 'variant')
    const heard = other.heard(targetAt(other, 'porch').id, '20417733', { at: clock() })
    const of = heard.of && { ...heard.of, model: 'device/reedling-slim' as const }
    expect(helpedIn(other.apply([{ op: 'add', record: { ...heard, of } }]).doc)).toEqual([])
  })
})

describe('of two devices whose tries come one among the other', () => {
  const two = (): SmallJob =>
    porch().add('back', 'reedling-slim', { room: 'Kitchen', use: 'opening' }).number()

  it('each has its own, whatever order they arrive in', () => {
    const job = two()
    // The other was tried last, and this one's records arrive newest first.
    const other = tryIt(two(), 'back', 'nearer')
    const tries = Object.values(tryIt(tryIt(other, 'porch', 'again'), 'porch', 'battery').doc.records)
      .filter((record) => record.type === 'tried')
      .sort((a, b) => (a.at < b.at ? 1 : -1))
    job.apply(tries.map((record) => ({ op: 'add', record })))
    expect([ladder(job, 'porch').next, ladder(job, 'back').next]).toEqual(['again', 'again'])
    expect(rung(job, 'porch', 'nearer')?.tried).toEqual([])
    expect(rung(job, 'back', 'nearer')?.tried).toHaveLength(1)
    hear(job, 'back')
    expect(helpedIn(job.doc)).toEqual([{ model: 'device/reedling-slim', rung: 'nearer', times: 1 }])
    // What one was heard after is no end of the other's tries.
    expect(rung(job, 'porch', 'battery')?.tried).toHaveLength(1)
    hear(job, 'porch')
    expect(helpedIn(job.doc)).toEqual([
      { model: 'device/reedling-slim', rung: 'nearer', times: 1 },
      { model: 'device/reedling', rung: 'battery', times: 1 },
    ])
  })
})

describe('what was tried', () => {
  it('of one kind makes no other kind spent', () => {
    const job = tryIt(tryIt(porch(), 'porch', 'nearer'), 'porch', 'variant')
    const spent = ladder(job, 'porch').rungs.filter((one) => one.spent)
    expect(spent.map((one) => one.rung)).toEqual(['variant', 'nearer'])
    expect(ladder(tryIt(job, 'porch', 'type'), 'porch').rungs.at(-1)?.spent).toBe(true)
  })

  it('counts from the moment after it was heard on', () => {
    const job = tryIt(porch(), 'porch', 'nearer')
    const at = rung(job, 'porch', 'nearer')?.tried[0] ?? expect.fail('not tried')
    job.learn(targetAt(job, 'porch').id, '20417733', { at })
    expect(ladder(job, 'porch').rungs.every(({ tried }) => tried.length === 0)).toBe(true)
    expect(helpedIn(job.doc)).toEqual([{ model: 'device/reedling', rung: 'nearer', times: 1 }])
  })
})
