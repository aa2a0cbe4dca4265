import type { Region } from '#core'
import { useJob } from '../store/job-store.ts'

/** How dates and amounts are written where a job is; with figures of one's own as the browser is set. */
const locales: Readonly<Record<Region, string | undefined>> = {
  europe: 'en-GB',
  'north-america': 'en-US',
  own: undefined,
}

/** How a region writes days, times and amounts of money. */
export function writtenIn(region: Region | undefined) {
  const locale = region && locales[region]
  const write = (time: string, style: Intl.DateTimeFormatOptions): string =>
    new Intl.DateTimeFormat(locale, style).format(new Date(time))
  return {
    /** A day, such as 4 May 2026. */
    day: (time: string) => write(time, { dateStyle: 'medium' }),
    /** Day and minute. */
    moment: (time: string) => write(time, { dateStyle: 'medium', timeStyle: 'short' }),
    /** Day and second, as a log has it. */
    second: (time: string) => write(time, { dateStyle: 'medium', timeStyle: 'medium' }),
    /** Minute of today. */
    time: (time: string) => write(time, { timeStyle: 'short' }),
    money: (amount: number, currency: string) =>
      new Intl.NumberFormat(locale, { style: 'currency', currency }).format(amount),
  }
}

/** The same for the job that is open. */
export function useWritten(): ReturnType<typeof writtenIn> {
  const job = useJob()
  const now = (): ReturnType<typeof writtenIn> => writtenIn(job.system?.info.region)
  return {
    day: (time) => now().day(time),
    moment: (time) => now().moment(time),
    second: (time) => now().second(time),
    time: (time) => now().time(time),
    money: (amount, currency) => now().money(amount, currency),
  }
}
