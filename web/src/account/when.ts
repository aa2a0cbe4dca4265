const form = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})

/** Day and time of a moment given as UTC, as clocks here show it. */
export function dayTime(time: string): string {
  return form.format(new Date(time))
}
