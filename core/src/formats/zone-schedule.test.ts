import { describe, expect, it } from 'vitest'
import { proofRoute } from '../proof/owed.ts'
import { proofRecord } from '../proof/records.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { zoneSchedule, zoneScheduleCsv } from './zone-schedule.ts'

describe('the zone schedule', () => {
  it('says how each ID is known: heard, typed, as a sister, heard without a sticker until a trip settles it', () => {
    const job = cleanTarn()
    const zone = job.zone('porch').id
    const id = () => zoneSchedule(job.doc, catalogue)[0]?.id
    const learn = (over: Parameters<typeof job.learn>[2]) => job.learn(zone, '20417733', over)
    learn({})
    expect(id()).toBe('2041 7733')
    learn({ source: 'sticker', cause: 'typed' })
    expect(id()).toBe('2041 7733, typed, not heard')
    learn({ source: 'sticker', cause: 'sister' })
    expect(id()).toBe('2041 7733, as its sister zone, not heard')
    learn({ code: 'no-sticker' })
    expect(id()).toBe('2041 7733, no sticker compared')
    const trip = proofRoute(job.doc, catalogue, null)
      .flatMap((stop) => stop.items)
      .find((item) => item.subject === zone && item.kind === 'armed')
    if (!trip) throw new Error('no armed trip is owed')
    const made = { id: 'test:1', who: { id: 'idris', name: 'Idris' }, at: '2026-05-04T12:00:00Z' }
    const record = proofRecord({ doc: job.doc, catalogue }, trip, { made, result: { outcome: 'pass' } })
    job.apply([{ op: 'add', record }])
    expect(id()).toBe('2041 7733')
    // A trip of another ID settles nothing of this one.
    job.learn(zone, '20417738', { code: 'no-sticker', at: '2026-05-04T23:00:00Z' })
    expect(id()).toBe('2041 7738, no sticker compared')
  })

  it('says of each zone what the next installer needs', () => {
    const job = cleanTarn()
    job.learn(job.zone('porch').id, '20417733')
    expect(zoneSchedule(job.doc, catalogue)[0]).toEqual({
      number: '01',
      label: 'Porch Front Door',
      room: 'porch, front door',
      device: 'Reedling contact',
      event: 'reed',
      id: '2041 7733',
      loop: '3',
      response: 'Way in, first delay',
      area: 'Whole premises',
      report: 'yes',
      supervised: 'yes',
      proof: '7 owed',
    })
  })

  it('shows what is not enrolled as owed', () => {
    expect(zoneSchedule(cleanTarn().doc, catalogue).every((line) => line.id === 'owed')).toBe(true)
  })

  it('neutralises what a spreadsheet would calculate', () => {
    const job = cleanTarn()
    job.set('device:porch', { room: '=HYPERLINK("x")', position: '' })
    job.set(job.zone('study').id, { label: '+1, "two"' })
    const lines = zoneScheduleCsv(job.doc, catalogue).split('\r\n')
    expect(lines[0]).toBe('\uFEFFZone,Label,Room,Device,Event,ID,Loop,Response,Area,Report,Supervision,Proof')
    expect(lines[1]).toContain('"\'=HYPERLINK(""x"")"')
    expect(lines[2]).toContain('"\'+1, ""two"""')
    expect(lines).toHaveLength(11)
  })

  it('neutralises it also behind what a spreadsheet skips, and by full-width signs', () => {
    const cell = (room: string): string => {
      const job = cleanTarn()
      job.set('device:porch', { room, position: '' })
      return zoneScheduleCsv(job.doc, catalogue)
    }
    const leads = ['', ' ', '   ', '\t', '\n', '\r\n', '\u00a0', '\u200b', '\ufeff', '\u3000']
    const signs = ['=', '+', '-', '@', '＝', '＋', '－', '＠', '−']
    for (const lead of leads)
      for (const sign of signs) expect(cell(`${lead}${sign}1+1`)).toContain(`'${lead}${sign}1+1`)
    for (const room of ['Hall', 'A = B', '1-2', '(+1)', '’tis', '– none']) {
      expect(cell(room)).toContain(`,${room},`)
      expect(cell(room)).not.toContain(`'${room}`)
    }
  })
})
