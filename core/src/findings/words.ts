/** ` in Hall`, or nothing where no room is known. */
export function here(room: string): string {
  return room === '' ? '' : ` in ${room}`
}

/** The text with a capital at its beginning. */
export function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
