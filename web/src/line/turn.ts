/**
 * Takes turns between the tabs of this browser: `got` is called once this page has the turn of that name, which it keeps
 * until it lets go or is closed. Where the browser has no locks every page has it at once; the server takes an edit once
 * however often it is sent.
 */
export function holdTurn(name: string, got: () => void): () => void {
  const locks = (navigator as { readonly locks?: LockManager }).locks
  if (!locks) {
    got()
    return () => undefined
  }
  const leaving = new AbortController()
  let release: () => void = () => undefined
  const held = new Promise<void>((done) => (release = done))
  locks
    .request(name, { signal: leaving.signal }, () => {
      got()
      return held
    })
    .catch(() => undefined)
  return () => {
    leaving.abort()
    release()
  }
}
