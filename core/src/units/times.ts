import type { Region } from './region.ts'

/** How days and moments are written in a text. */
export interface WrittenTimes {
  /** A day, such as 4 May 2026. */
  readonly day: (time: string) => string
  /** Day and minute. */
  readonly moment: (time: string) => string
}

/** As kept: UTC, and said to be. For texts that travel where nobody knows who reads them. */
export const utcTimes: WrittenTimes = {
  day: (time) => time.slice(0, 10),
  moment: (time) => `${time.slice(0, 10)} ${time.slice(11, 16)} UTC`,
}

/** How dates and amounts are written where a job is; with figures of one's own as the machine is set. */
const locales: Readonly<Record<Region, string | undefined>> = {
  europe: 'en-GB',
  'north-america': 'en-US',
  own: undefined,
}

/**
 * How a region writes days, times and amounts of money (Unicode CLDR, by Intl).
 * @param timeZone IANA name of the zone whose clock is shown; that of the machine where it is left out.
 * @throws RangeError for a zone that is none. A time that is none stays as it is written.
 */
export function writtenIn(region: Region | undefined, timeZone?: string) {
  const locale = region && locales[region]
  const zone = timeZone === undefined ? {} : { timeZone }
  const write = (time: string, style: Intl.DateTimeFormatOptions): string =>
    Number.isNaN(Date.parse(time))
      ? time
      : new Intl.DateTimeFormat(locale, { ...style, ...zone }).format(new Date(time))
  return {
    day: (time: string) => write(time, { dateStyle: 'medium' }),
    moment: (time: string) => write(time, { dateStyle: 'medium', timeStyle: 'short' }),
    /** Day and second, as a log has it. */
    second: (time: string) => write(time, { dateStyle: 'medium', timeStyle: 'medium' }),
    /** Minute of today. */
    time: (time: string) => write(time, { timeStyle: 'short' }),
    money: (amount: number, currency: string) =>
      new Intl.NumberFormat(locale, { style: 'currency', currency }).format(amount),
  }
}
