import { writtenIn } from '#core'
import { useJob } from '../store/job-store.ts'

/** How the region of the job that is open writes days, times and amounts of money. */
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
