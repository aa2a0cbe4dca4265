import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  Catalogue,
  jobInfo,
  judge,
  owedList,
  readJournalFile,
  readPack,
  recordsOf,
  writeJournalFile,
  defaultHouseRules,
} from '#core'
import { fennelBank } from './fennel-bank.ts'
import { ropewalk } from './ropewalk.ts'
import { saltmarsh } from './saltmarsh.ts'

const text = (path: string): string => readFileSync(new URL(path, import.meta.url), 'utf8')
const now = '2026-01-15T12:00:00Z'

function load(name: string) {
  const read = readJournalFile(JSON.parse(text(`./jobs/${name}.json`)))
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  const catalogue = new Catalogue(read.entries)
  const findings = judge({ doc: read.document, catalogue, now, elsewhere: [], houseRules: defaultHouseRules })
  return { doc: read.document, catalogue, findings }
}

/** Rule ids in the tables of README.md, by the heading they stand under. */
function listed(heading: string): string[] {
  const part = text('./README.md').split(`## ${heading}`)[1]?.split('\n## ')[0] ?? ''
  return [...part.matchAll(/^\| ([a-z-]+) +\|/gm)]
    .map((match) => match[1] ?? '')
    .filter((id) => id !== 'rule' && !/^-+$/.test(id))
}

describe('The Old Ropewalk', () => {
  it('has the findings that the README lists and no other', () => {
    const { doc, findings } = load('the-old-ropewalk')
    expect(recordsOf(doc, 'device')).toHaveLength(23)
    expect(findings.map((finding) => finding.rule).sort()).toEqual(listed('The Old Ropewalk').sort())
    expect(new Set(findings.map((finding) => finding.rule)).size).toBeGreaterThanOrEqual(5)
  })
})

describe('Saltmarsh Row 14', () => {
  it('has nine old devices and the finding that the README lists', () => {
    const { doc, findings } = load('saltmarsh-row-14')
    expect(recordsOf(doc, 'device').filter((device) => device.existing)).toHaveLength(9)
    expect(findings.map((finding) => finding.rule)).toEqual(listed('Saltmarsh Row 14'))
  })
})

describe('Fennel Bank', () => {
  it('waits for its 24-hour readings, says so, and has only the risks that the README lists', () => {
    const { doc, catalogue, findings } = load('fennel-bank')
    const input = { doc, catalogue, now, elsewhere: [], houseRules: defaultHouseRules }
    expect(owedList(input, findings).map(({ key, blocks }) => [key, blocks])).toEqual([
      ['averages', true],
      ['batteries', false],
      ['task state:test', false],
    ])
    expect(owedList(input, findings)[0]?.text).toMatch(/^9 24-hour readings wait for their day to pass/)
    expect([...new Set(findings.map((finding) => finding.rule))]).toEqual(listed('Fennel Bank'))
    expect(findings.every((finding) => finding.severity === 'risks')).toBe(true)
  })

  it('keeps a failed and an inconclusive result beside their retests', () => {
    const outcomes = recordsOf(load('fennel-bank').doc, 'test').map((result) => result.outcome)
    expect(outcomes.filter((outcome) => outcome !== 'pass').sort()).toEqual(['fail', 'inconclusive'])
  })
})

it('the journals are what the scripts write, and replay to their documents', () => {
  const pack = readPack(JSON.parse(text('./packs/world.json')))
  if (!pack.ok) throw new Error(JSON.stringify(pack.problems))
  const catalogue = new Catalogue(pack.entries)
  for (const [name, draft] of [
    ['the-old-ropewalk', ropewalk(catalogue)],
    ['fennel-bank', fennelBank(catalogue)],
    ['saltmarsh-row-14', saltmarsh(catalogue)],
  ] as const) {
    const file = text(`./jobs/${name}.json`)
    const read = readJournalFile(JSON.parse(file))
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    expect(writeJournalFile(read.id, draft.edits, catalogue.kept)).toBe(file)
    expect(read.document).toEqual(draft.doc)
    expect(read.edits.length).toBeGreaterThan(5)
  }
})

it.each(['the-old-ropewalk', 'saltmarsh-row-14', 'fennel-bank'])('%s is a practice job', (name) => {
  expect(jobInfo(load(name).doc).practice).toBe(true)
})
