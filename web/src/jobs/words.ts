import type { Region } from '#core'

/** Wording of the choices that describe a job. */
export const regionItems: readonly { title: string; value: Region }[] = [
  { title: 'Europe (EN 50131)', value: 'europe' },
  { title: 'North America (CP-01)', value: 'north-america' },
  { title: 'Own figures', value: 'own' },
]
/** Kinds of job. */
export const kindItems = [
  { title: 'New system', value: 'new' },
  { title: 'Takeover of an earlier system', value: 'takeover' },
]
/** Whether a station listens. */
export const monitoredItems = [
  { title: 'Monitored by a station', value: true },
  { title: 'Local only', value: false },
]
/** Grades. */
export const gradeItems = [
  { title: 'Grade 1', value: 1 },
  { title: 'Grade 2', value: 2 },
  { title: 'Grade 3', value: 3 },
]
/** How fast the slowest person walks. */
export const paceItems = [
  { title: 'Ordinary pace (1.2 m/s)', value: 'ordinary' },
  { title: 'Slow (0.6 m/s)', value: 'slow' },
]
/** Real or practice. */
export const practiceItems = [
  { title: 'Real: a system on the wall', value: false },
  { title: 'Practice: simulated air, nothing counts', value: true },
]
/** How a practice air behaves. */
export const exerciseItems = [
  { title: 'Plain: every device sends', value: 'plain' },
  { title: 'With surprises of a real house', value: 'surprises' },
]

/** Whether a listing or certificate is asked for, which holds some figures tighter. */
export const listedItems = [
  { title: 'None asked for', value: false },
  { title: 'Asked for', value: true },
]
