import { describe, expect, it } from 'vitest'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { learned } from '../proof/testing/proved-jobs.ts'
import { boxLabels, labelLink, labelPapers, labelPlaces, readLabelLink, zoneCard } from './labels.ts'

const labelsOf = (job: SmallJob) => boxLabels(job.doc, catalogue)
const JOB = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001'

describe('what stands on the labels', () => {
  it('is zone, label, place, model and ID of each device, kind by kind, motions last', () => {
    const job = cleanTarn()
    job.set('device:porch', { sticker: '20417733' })
    const labels = labelsOf(job)
    expect(labels.map(({ id }) => id).sort()).toEqual(
      ['bedroom', 'fob', 'hall', 'kitchen', 'landing', 'lounge', 'porch', 'study'].map(
        (key) => `device:${key}`,
      ),
    )
    expect(labels.at(-1)?.id).toBe('device:hall')
    const label = (key: string) => labels.find(({ id }) => id === `device:${key}`)
    expect(label('porch')).toEqual({
      id: 'device:porch',
      numbers: 'zone 01',
      names: [job.zone('porch').label],
      place: 'porch, front door',
      model: 'Reedling contact',
      serial: expect.stringMatching(/^2041 ?7733$/) as string,
    })
    // Three events of one detector: one label with all of them.
    expect(label('landing')?.numbers).toBe('zone 05, 06, 07')
    expect(label('landing')?.names).toHaveLength(3)
    expect(label('fob')).toMatchObject({ numbers: 'fob 1', names: ['Nell'], place: '', serial: '' })
  })

  it('takes the ID that was learned where no sticker is noted, and leaves out what is deferred', () => {
    const job = learned(cleanTarn(), 'study')
    job.set('device:lounge', { deferred: 'the glazier comes first' })
    const labels = labelsOf(job)
    expect(labels.find(({ id }) => id === 'device:study')?.serial.replace(/ /g, '')).toBe('10000000')
    expect(labels.some(({ id }) => id === 'device:lounge')).toBe(false)
  })

  it('is nothing for a job without devices', () => {
    expect(labelsOf(new SmallJob())).toEqual([])
  })
})

describe('where labels lie', () => {
  const paper = (key: string) => {
    const found = labelPapers.find((one) => one.key === key)
    return found ?? expect.fail(`no paper ${key}`)
  }

  it('is row by row, from the first free label of a begun sheet', () => {
    // Three across: the 23rd and 24th are the last of eight rows, the next begins a page.
    expect(labelPlaces(paper('a4-24'), 3, 23)).toEqual([
      { page: 0, x: 70, y: 259.5 },
      { page: 0, x: 140, y: 259.5 },
      { page: 1, x: 0, y: 0.5 },
    ])
    expect(labelPlaces(paper('roll-62'), 2)).toEqual([
      { page: 0, x: 0, y: 0 },
      { page: 1, x: 0, y: 0 },
    ])
    expect(labelPlaces(paper('a4-24'), 0)).toEqual([])
  })

  it.each(labelPapers.map((one) => [one.title, one] as const))(
    'keeps to the page and to itself: %s',
    (_, one) => {
      const places = labelPlaces(one, one.columns * one.rows)
      for (const [index, { page, x, y }] of places.entries()) {
        expect(page).toBe(0)
        expect(x).toBeGreaterThanOrEqual(0)
        expect(x + one.label[0]).toBeLessThanOrEqual(one.page[0] + 0.01)
        expect(y + one.label[1]).toBeLessThanOrEqual(one.page[1] + 0.01)
        for (const other of places.slice(index + 1))
          expect(other.x >= x + one.label[0] - 0.01 || other.y >= y + one.label[1] - 0.01).toBe(true)
      }
    },
  )
})

describe('the code of a label', () => {
  it('leads back to its job and device', () => {
    const link = labelLink('https://kapelle.example:4680', JOB, 'device:a b')
    expect(link).toBe(`https://kapelle.example:4680/jobs/${JOB}/enrol?show=device%3Aa%20b`)
    expect(readLabelLink(` ${link}\n`)).toEqual({ job: JOB, device: 'device:a b' })
    expect(readLabelLink(link.toUpperCase().replace('DEVICE%3AA%20B', 'device%3Ax'))).toMatchObject({
      job: JOB,
    })
  })

  it.each([
    ['an ID', '2041 7733'],
    ['nothing', ''],
    ['another address', 'https://elsewhere.example/devices/1'],
    ['another stage', `https://a.example/jobs/${JOB}/kit?show=device%3Ax`],
    ['a zone', `https://a.example/jobs/${JOB}/enrol?show=zone%3Ax`],
    ['broken signs', `https://a.example/jobs/${JOB}/enrol?show=device%3Ax%E0%A4%A`],
    ['more behind it', `https://a.example/jobs/${JOB}/enrol?show=device%3Ax&and=more`],
  ])('is not %s', (_, text) => {
    expect(readLabelLink(text)).toBeNull()
  })
})

describe('the zone card', () => {
  it('is for panels that show no label, and for no other', () => {
    for (const panel of catalogue.all('panel')) {
      const job = new SmallJob({ panel: panel.id })
      const shows = panel.label.style !== 'text' || panel.label.insteadOn === undefined
      expect(zoneCard(job.doc, catalogue) === null, panel.name).toBe(shows)
    }
    expect(zoneCard(new SmallJob({ panel: null }).doc, catalogue)).toBeNull()
  })

  it('tells each zone by number, label and room', () => {
    const panel = catalogue
      .all('panel')
      .find(({ label }) => label.style === 'text' && label.insteadOn !== undefined)
    const contact = catalogue
      .all('device')
      .find((model) => model.class === 'contact' && model.family === null)
    const job = new SmallJob({ panel: panel?.id ?? '' })
    job.add('porch', (contact?.id ?? 'device/reedling').replace('device/', ''), { use: 'entry' }).number()
    const card = zoneCard(job.doc, catalogue)
    expect(card?.on).toBe('a card beside the keypad')
    expect(card?.lines.map(({ room }) => room)).toEqual(['porch'])
    expect(card?.lines[0]?.label).toBe(job.zone('porch').label)
  })
})
