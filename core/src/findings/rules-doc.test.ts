import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { rules } from './registry.ts'

const text = readFileSync(new URL('../../../docs/rules.md', import.meta.url), 'utf8')
const words = { stops: 'stops', risks: 'risk', advice: 'advice' } as const

it('docs/rules.md names every rule with its severity and who may take it on', () => {
  for (const rule of rules) {
    const who = rule.waive ? `, ${rule.waive}` : ''
    expect(text).toContain(`\`${rule.id}\` ${words[rule.severity]}${who}`)
  }
})

it('docs/rules.md names no rule that is not there', () => {
  const named = [...text.matchAll(/`([a-z0-9-]+)` (?:stops|risk|advice)/g)].map((match) => match[1] ?? '')
  expect(named.filter((id) => !rules.some((rule) => rule.id === id))).toEqual([])
})
