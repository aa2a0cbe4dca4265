import { createEvents, type EventAttributes } from 'ics'
import { saveFile } from './save-file.ts'

/** A clock as it stands in a calendar. */
export interface CalendarClock {
  /** The same as long as it is the same clock: a later file moves it. */
  readonly id: string
  readonly words: string
  /** When it ends, ISO 8601. */
  readonly ends: string
  /** What is to be done then; empty where it is not known. */
  readonly then: string
  /** Name of the job. */
  readonly job: string
  /** Where the job is opened. */
  readonly link: string
}

/** How long an entry stands in the day, minutes: long enough to be seen. */
const LONG_MINUTES = 10

/**
 * Clocks as a calendar file (iCalendar, RFC 5545): one entry each, with an alarm at its end. Times are UTC, so that a clock change
 * on the way moves nothing. Throws where the package refuses an entry, with its reason.
 */
export function calendarOf(clocks: readonly CalendarClock[]): string {
  const events = clocks.map(({ id, words, ends, then, job, link }): EventAttributes => ({
    uid: `${encodeURIComponent(id)}@kapelle`,
    title: `${words} – ${job}`,
    description: then,
    url: link,
    start: Date.parse(ends),
    startInputType: 'utc',
    startOutputType: 'utc',
    duration: { minutes: LONG_MINUTES },
    productId: 'kapelle',
    transp: 'TRANSPARENT',
    // At the moment itself: of a trigger of no minutes the package makes one that cannot be read.
    alarms: [{ action: 'display', description: words, trigger: Date.parse(ends) }],
  }))
  const { error, value } = createEvents(events)
  if (error || typeof value !== 'string')
    throw new RangeError(`calendarOf: ${error?.message ?? 'nothing made'}`)
  return value
}

/** Saves a calendar file on this device. */
export function saveCalendar(clocks: readonly CalendarClock[], name: string): void {
  const file = `${name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'clocks'}.ics`
  saveFile(file, 'text/calendar;charset=utf-8', calendarOf(clocks))
}
