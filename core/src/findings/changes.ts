import type { Finding } from './finding.ts'

/** Findings that a change of job or catalogue would bring and take away. */
export interface FindingChanges {
  readonly come: readonly Finding[]
  readonly go: readonly Finding[]
}

/** Compares findings by rule, subject and facts: one whose figures change goes and comes. */
export function findingChanges(before: readonly Finding[], after: readonly Finding[]): FindingChanges {
  const key = (finding: Finding): string =>
    `${finding.rule}|${finding.subject}|${JSON.stringify(finding.facts)}`
  const had = new Set(before.map(key))
  const has = new Set(after.map(key))
  return {
    come: after.filter((finding) => !had.has(key(finding))),
    go: before.filter((finding) => !has.has(key(finding))),
  }
}
