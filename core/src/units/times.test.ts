import { describe, expect, it } from 'vitest'
import { utcTimes, writtenIn } from './times.ts'

// Node and browsers put a narrow space before AM and PM.
const plain = (text: string) => text.replace(/[\u202f\u00a0]/g, ' ')
const time = new Date(2026, 4, 4, 17, 5, 9).toISOString()

describe('days, times and amounts', () => {
  it('are written as in Europe', () => {
    const { day, moment, second, time: minute, money } = writtenIn('europe')
    expect([day, moment, second, minute].map((write) => plain(write(time)))).toEqual([
      '4 May 2026',
      '4 May 2026, 17:05',
      '4 May 2026, 17:05:09',
      '17:05',
    ])
    expect(money(1234.5, 'EUR')).toBe('€1,234.50')
  })

  it('are written as in North America', () => {
    const { day, moment, second, time: minute, money } = writtenIn('north-america')
    expect([day, moment, second, minute].map((write) => plain(write(time)))).toEqual([
      'May 4, 2026',
      'May 4, 2026, 5:05 PM',
      'May 4, 2026, 5:05:09 PM',
      '5:05 PM',
    ])
    expect(money(1234.5, 'USD')).toBe('$1,234.50')
  })

  it('are as the browser has them with figures of one’s own', () => {
    const own = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(time))
    expect(writtenIn('own').day(time)).toBe(own)
    expect(writtenIn(undefined).day(time)).toBe(own)
  })

  it('are those of the zone that is named', () => {
    const noon = '2026-05-04T12:00:00Z'
    expect(plain(writtenIn('europe', 'UTC').moment(noon))).toBe('4 May 2026, 12:00')
    expect(plain(writtenIn('europe', 'America/Chicago').moment(noon))).toBe('4 May 2026, 07:00')
    expect(plain(writtenIn('north-america', 'Asia/Tokyo').moment('2026-05-04T16:00:00Z'))).toBe(
      'May 5, 2026, 1:00 AM',
    )
  })

  it('stay as they are written where they are none', () => {
    const { day, moment } = writtenIn('europe', 'UTC')
    expect([day(''), moment('2026-99-99T99:99:99Z')]).toEqual(['', '2026-99-99T99:99:99Z'])
  })

  it('are UTC and say so where nobody knows who reads them', () => {
    expect(utcTimes.moment('2026-05-04T12:34:56Z')).toBe('2026-05-04 12:34 UTC')
    expect(utcTimes.day('2026-05-04T12:34:56Z')).toBe('2026-05-04')
  })
})
