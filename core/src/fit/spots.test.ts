import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import type { Family } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import type { Spot } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { houseOf } from '../premises/house.ts'
import { pass, record, itemOf, learned } from '../proof/testing/proved-jobs.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanHouse, SmallJob } from '../testing/small-job.ts'
import { quarterWaveCm, receiverAdvice, spotRecord, walkOf } from './spots.ts'

let count = 0
/** Notes a link that was tried, minutes after the one before. */
function tried(job: SmallJob, place: string, over: Partial<Spot> = {}): SmallJob {
  count += 1
  const at = new Date(Date.parse('2026-05-04T08:00:00Z') + count * 60_000).toISOString()
  const facts = {
    ...{ place, family: 'family/curlew-8', used: '', receiver: 'hall', repeater: '' },
    ...{ reading: null, link: null, note: '' },
    ...over,
  }
  const corrects = over.corrects ?? null
  const made = { id: `spot:${count}`, who: { id: 'idris', name: 'Idris' }, at, corrects }
  const record = spotRecord(facts, made)
  expect(record.corrects).toBe(corrects)
  return job.apply([{ op: 'add', record: { ...record, ...evidenceBy('Idris', at), corrects } }])
}
const ostler = () => new SmallJob({ panel: 'panel/ostler-s-8' })
const walk = (job: SmallJob) => walkOf(job.doc, catalogue)
const spotOf = (job: SmallJob, place: string) => walk(job)[0]?.spots.find((one) => one.place === place)

describe('a reading that was noted wrong', () => {
  const last = () => `spot:${count}`

  it('counts no more once another is noted in its place, also at another spot', () => {
    const job = tried(tried(ostler(), 'attic', { reading: 1 }), 'lott', { reading: 3 })
    const wrong = last()
    tried(job, 'loft', { reading: 3, corrects: wrong })
    expect(walk(job)[0]?.spots.map(({ place, direct }) => [place, direct?.reading])).toEqual([
      ['attic', 1],
      ['loft', 3],
    ])
  })

  it('leaves the reading before it standing where the new one is of another spot', () => {
    const job = tried(tried(ostler(), 'attic', { reading: 4 }), 'attic', { reading: 1 })
    expect(spotOf(job, 'attic')?.direct?.reading).toBe(1)
    tried(job, 'cellar', { reading: 1, corrects: last() })
    expect(spotOf(job, 'attic')?.direct?.reading).toBe(4)
    expect(spotOf(job, 'cellar')?.direct?.reading).toBe(1)
  })

  it('is put right once, though two people did so: the later of the two counts', () => {
    const job = tried(ostler(), 'attic', { reading: 1 })
    const wrong = last()
    tried(tried(job, 'attic', { reading: 3, corrects: wrong }), 'attic', { reading: 4, corrects: wrong })
    expect(spotOf(job, 'attic')?.direct?.reading).toBe(4)
  })
})

describe('what a spot needs', () => {
  // Curlew 8 reads in per cent: best from 70, holds from 40.
  it.each<[string, Partial<Spot>, string | null, string]>([
    ['the best band', { reading: 70 }, 'best', 'nothing'],
    ['just below it', { reading: 69 }, 'holds', 'better'],
    ['the least that holds', { reading: 40 }, 'holds', 'better'],
    ['below it', { reading: 39 }, 'fails', 'repeater-untried'],
    ['a word for strong', { link: 'strong' }, 'best', 'nothing'],
    ['a word for middling', { link: 'middling' }, 'holds', 'better'],
    ['a word for weak', { link: 'weak' }, 'fails', 'repeater-untried'],
    ['nothing heard', { link: 'none' }, 'fails', 'repeater-untried'],
  ])('%s', (_name, over, band, need) => {
    const spot = spotOf(tried(ostler(), 'attic', over), 'attic')
    expect([spot?.band, spot?.need.need]).toEqual([band, need])
  })

  // Wider is told of a family only as far as it states it.
  it.each<[string, Partial<Family['placement']>, number, string, string]>([
    ['nothing stated', {}, 90, 'unjudged', 'unjudged'],
    ['its best band alone', { best: 70 }, 70, 'best', 'nothing'],
    ['below a best band that stands alone', { best: 70 }, 69, 'unjudged', 'unjudged'],
    ['the least alone', { least: 40 }, 90, 'holds', 'better'],
    ['below a least that stands alone', { least: 40 }, 39, 'fails', 'repeater-untried'],
  ])('with %s', (_name, placement, reading, band, need) => {
    const curlew = catalogue.get('family', 'family/curlew-8') ?? expect.fail()
    const changed = catalogue.with([keepEntry({ ...curlew, placement })])
    const [spot] = walkOf(tried(ostler(), 'attic', { reading }).doc, changed)[0]?.spots ?? []
    expect([spot?.band, spot?.need.need]).toEqual([band, need])
  })

  it('a repeater’s own link comes first', () => {
    const job = tried(ostler(), 'attic', { reading: 20 })
    tried(job, 'attic', { reading: 75, repeater: 'landing' })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater-link', at: 'landing' })
    tried(job, 'landing', { reading: 30 })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater-nearer', at: 'landing' })
    tried(job, 'Landing ', { reading: 45 })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater', at: 'landing' })
    // With the receiver elsewhere the repeater's link is another one.
    tried(job, 'attic', { reading: 20, receiver: 'porch' })
    tried(job, 'attic', { reading: 75, repeater: 'landing', receiver: 'porch' })
    expect(walk(job).find(({ receiver }) => receiver === 'porch')?.spots[0]?.need).toEqual({
      need: 'repeater-link',
      at: 'landing',
    })
  })

  it('what a repeater’s spot hears through another repeater is not its own link', () => {
    const job = tried(ostler(), 'attic', { reading: 75, repeater: 'landing' })
    tried(job, 'landing', { reading: 90, repeater: 'hall' })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater-link', at: 'landing' })
  })

  it('a repeater that does not reach is no way out, another that does is', () => {
    const job = tried(ostler(), 'attic', { reading: 20 })
    tried(job, 'attic', { reading: 30, repeater: 'stairs' })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater-short', at: 'stairs' })
    tried(job, 'landing', { reading: 80 })
    tried(job, 'attic', { reading: 72, repeater: 'landing' })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater', at: 'landing' })
  })

  it('a spot that holds takes the repeater only where that is proved to work', () => {
    const job = tried(ostler(), 'attic', { reading: 50 })
    tried(job, 'attic', { reading: 72, repeater: 'landing' })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'better', cm: 9 })
    tried(job, 'landing', { reading: 80 })
    expect(spotOf(job, 'attic')?.need).toEqual({ need: 'repeater', at: 'landing' })
  })

  it('the last reading of a spot counts, however its name is spaced', () => {
    const job = tried(ostler(), 'North  Attic', { reading: 20 })
    tried(job, 'north attic', { reading: 90 })
    expect(walk(job)[0]?.spots.map((one) => [one.direct?.reading, one.need.need])).toEqual([[90, 'nothing']])
  })

  it.each([
    // What repeats belongs to family and panel: a Quillet hears Curlew 8 and takes no repeater.
    ['panel/ostler-s-8', 'family/curlew-8', 'repeater-untried'],
    ['panel/ostler-s-9', 'family/curlew-9', 'repeater-untried'],
    ['panel/quillet-32', 'family/curlew-8', 'no-repeater'],
    ['panel/tarn-40', 'family/wren', 'no-repeater'],
    ['panel/morrow-60', 'family/dunlin', 'no-repeater'],
    ['panel/pinfold-16', 'family/plover', 'no-repeater'],
    ['panel/sallow-m', 'family/shearwater', 'mesh'],
  ])('nothing heard on %s with %s: %s', (panel, family, need) => {
    const job = tried(new SmallJob({ panel, radioFirmware: null }), 'attic', { family, link: 'none' })
    expect(spotOf(job, 'attic')?.need.need).toBe(need)
  })

  it('nothing inside metal gets radio, however it was read', () => {
    const job = tried(ostler().room('shed', { metal: true }), 'shed', { reading: 90 })
    expect(spotOf(job, 'shed')?.need.need).toBe('no-radio')
  })

  it('counts what is heard at each place of the receiver, families apart, the best place first', () => {
    const job = tried(ostler(), 'attic', { reading: 20 })
    tried(job, 'hall', { reading: 90 })
    tried(job, 'attic', { reading: 50, receiver: 'landing' })
    tried(job, 'attic', { reading: 20, receiver: 'landing', family: 'family/curlew-9' })
    tried(job, 'hall', { reading: 60, receiver: 'landing' })
    expect(
      walk(job).map(({ receiver, family, best, hold, spots }) => [
        receiver,
        family.id,
        best,
        hold,
        spots.length,
      ]),
    ).toEqual([
      ['landing', 'family/curlew-8', 0, 2, 2],
      ['hall', 'family/curlew-8', 1, 0, 2],
      ['landing', 'family/curlew-9', 0, 0, 1],
    ])
    // As many are heard from both; more of them in the best band from the hall.
    tried(job, 'attic', { reading: 45 })
    expect(walk(job)[0]).toMatchObject({ receiver: 'hall', best: 1, hold: 1 })
  })

  it('puts readings of devices that hang there since beside it', () => {
    const job = learned(ostler().add('attic', 'sill-8', { use: 'opening' }).number(), 'attic')
    tried(job, 'Attic', { reading: 80 })
    record(job, itemOf(job, 'attic', 'placement'), { reading: 55 })
    expect(spotOf(job, 'Attic')?.later).toEqual([{ reading: 55, band: 'holds', at: '2026-05-04T12:00:00Z' }])
    // What was mounted there without a reading tells nothing of the link.
    pass(job, 'attic', 'mount')
    expect(spotOf(job, 'Attic')?.later).toHaveLength(1)
    tried(job, 'Attic', { reading: 80, family: 'family/wren', receiver: 'den' })
    expect(walk(job).at(-1)?.spots[0]?.later).toEqual([])
  })
})

it('a quarter wave follows from the band', () => {
  const cm = (family: string): number => {
    const found = catalogue.get('family', family)
    if (!found) throw new Error(family)
    return quarterWaveCm(found)
  }
  // 299.8 / 433.92 = 0.691 m; a quarter is 17 cm. 345 MHz: 22 cm. 868.3: 9 cm. 912 to 918: 8 cm.
  expect(['wren', 'dunlin', 'curlew-8', 'curlew-9'].map((name) => cm(`family/${name}`))).toEqual([
    17, 22, 9, 8,
  ])
})

describe('where the receiver goes', () => {
  const advice = (job: SmallJob) => {
    const system = systemOf(job.doc, catalogue)
    return receiverAdvice(houseOf(job.doc, system, defaultHouseRules.figures), system, catalogue)
  }

  it('into the middle of a house of two floors or a long way, to the panel in a small flat', () => {
    // Porch, hall, kitchen 10 m on one floor; the landing is up.
    expect(advice(cleanHouse())).toMatchObject({ place: 'middle', floors: 2, longest: 11 })
    const flat = (metres: number) => new SmallJob().room('a').room('b').way('a', 'b', metres)
    expect(advice(flat(14.9))).toMatchObject({ place: 'panel', floors: 1, longest: 14.9 })
    expect(advice(flat(15))).toMatchObject({ place: 'middle' })
  })

  it('knows nothing of a house that nobody described, and names metal and receivers apart', () => {
    expect(advice(new SmallJob())).toBeNull()
    const morrow = SmallJob.morrow().room('hall').room('barn', { metal: true })
    expect(advice(morrow)).toMatchObject({
      longest: null,
      metal: ['barn'],
      apart: ['Morrow keypad radio', 'Morrow radio module'],
    })
    expect(advice(new SmallJob().room('hall'))?.apart).toEqual([])
  })
})
