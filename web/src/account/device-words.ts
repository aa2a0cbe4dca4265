const systems: readonly (readonly [RegExp, string])[] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X|Macintosh/, 'macOS'],
  [/Linux/, 'Linux'],
]
const browsers: readonly (readonly [RegExp, string])[] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\/|Chromium\//, 'Chrome'],
  [/Safari\//, 'Safari'],
]

/** What a browser calls itself, in two words; as it is where it says neither. */
export function deviceWords(agent: string): string {
  const found = [browsers, systems].flatMap((list) => list.find(([sign]) => sign.test(agent))?.[1] ?? [])
  return found.length > 0 ? found.join(' on ') : agent.slice(0, 60) || 'not stated'
}
