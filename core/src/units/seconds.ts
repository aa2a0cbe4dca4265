/** Words for a duration of whole seconds: `45 s`, `2 min`, `2 min 30 s`. Below two minutes it stays in seconds. */
export function formatSeconds(seconds: number): string {
  if (seconds < 120) return `${seconds} s`
  const minutes = Math.floor(seconds / 60)
  const rest = seconds % 60
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`
}
