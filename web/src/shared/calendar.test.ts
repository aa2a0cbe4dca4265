import ICAL from 'ical.js'
import { expect, it } from 'vitest'
import { calendarOf, type CalendarClock } from './calendar.ts'

const clock = (over: Partial<CalendarClock> = {}): CalendarClock => ({
  ...{ id: 'average', words: 'Average of a whole day: 9 devices', ends: '2026-10-25T09:15:30.000Z' },
  ...{ then: 'Then the last of them can be read.', job: 'Fennel Bank' },
  ...{ link: 'http://127.0.0.1:4680/jobs/1/prove' },
  ...over,
})
/** Read by another package than the one that writes. */
function read(clocks: readonly CalendarClock[]) {
  const text = calendarOf(clocks)
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
  return { text, events: calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one)) }
}

it('has an entry for each clock, at its end in UTC over a clock change, with an alarm then', () => {
  const { events } = read([
    clock(),
    clock({ id: 'state:1', words: 'The station is on test', ends: '2026-10-24T10:00:00.000Z', then: '' }),
  ])
  expect(events.map(({ summary, startDate }) => [summary, startDate.toJSDate().toISOString()])).toEqual([
    ['Average of a whole day: 9 devices – Fennel Bank', '2026-10-25T09:15:30.000Z'],
    ['The station is on test – Fennel Bank', '2026-10-24T10:00:00.000Z'],
  ])
  const [first] = events
  expect(first?.startDate.zone.tzid).toBe('UTC')
  expect(first?.duration.toSeconds()).toBe(600)
  expect(first?.description).toBe('Then the last of them can be read.')
  expect(first?.component.getFirstPropertyValue('url')).toBe('http://127.0.0.1:4680/jobs/1/prove')
  const alarm = first?.component.getFirstSubcomponent('valarm')
  expect([alarm?.getFirstPropertyValue('action'), String(alarm?.getFirstPropertyValue('trigger'))]).toEqual([
    'DISPLAY',
    '2026-10-25T09:15:30Z',
  ])
})

it('keeps the name of a clock, so that a later file moves it, and tells two apart', () => {
  const [now] = read([clock()]).events
  const [later, other] = read([
    clock({ ends: '2026-10-26T09:15:30.000Z' }),
    clock({ id: 'answer device:1' }),
  ]).events
  expect(now?.uid).toBe(later?.uid)
  expect(other?.uid).not.toBe(later?.uid)
})

it('leaves signs of names as they are, breaks long lines, and is whole without a clock', () => {
  const job = 'Mill; “North”, flat 2\\b – très long '.repeat(4).trim()
  const { text, events } = read([clock({ job, then: 'One, two; three' })])
  expect(events[0]?.summary).toBe(`Average of a whole day: 9 devices – ${job}`)
  expect(events[0]?.description).toBe('One, two; three')
  for (const line of text.split('\r\n')) expect(line.length).toBeLessThanOrEqual(75)
  expect(read([]).events).toEqual([])
})
