import type { ServiceAnswer } from '#core'

/** Bytes as a person reads them. */
export function inMB(bytes: number): string {
  if (bytes < 1_000_000) return `${Math.ceil(bytes / 1000)} kB`
  return bytes < 1_000_000_000
    ? `${Math.round(bytes / 1_000_000)} MB`
    : `${(bytes / 1_000_000_000).toFixed(1)} GB`
}

/** What an owner must see to, one sentence each; nothing when all is well. */
export function serviceTroubles({ room, free, backups }: ServiceAnswer): string[] {
  const left = free === null ? '' : ` (${inMB(free)} left)`
  return [
    ...(room === 'full'
      ? [`The disk is full${left}: nothing more is taken until there is room. People keep what they do.`]
      : room === 'low'
        ? [`The disk fills up${left}: make room before it is full, for nothing more is taken then.`]
        : []),
    ...(backups.failed ? [`The last backup failed: ${backups.failed}`] : []),
    ...(backups.late && !backups.failed ? ['The last backup is more than three days old.'] : []),
  ]
}
