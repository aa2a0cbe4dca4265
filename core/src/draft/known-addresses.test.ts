import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { knownAddresses, usualField } from './at-panel/known-addresses.ts'

const panels = catalogue.entries.flatMap((entry) =>
  entry.kind === 'panel' && entry.interface !== null ? [entry] : [],
)

describe('what a panel stores, by meaning', () => {
  it.each(panels.map((panel) => [panel.name, panel] as const))(
    '%s: every address of its description is offered, with the kind of value that it has',
    (_name, panel) => {
      const fields = Object.entries(catalogue.get('interface', panel.interface ?? null)?.fields ?? {})
      const known = knownAddresses(panel)
      expect(fields.length).toBeGreaterThan(20)
      const missing = fields.filter(([address]) => !known.some((one) => one.address === address))
      expect(missing.map(([address]) => address)).toEqual([])
      const other = fields.filter(
        ([address, { form }]) => usualField(panel, address)?.form.kind !== form.kind,
      )
      expect(other.map(([address]) => address)).toEqual([])
      expect(known.every(({ title }) => title !== '' && !title.includes('{'))).toBe(true)
    },
  )

  it('offers no area, fob or hold that a panel does not have', () => {
    const [first] = panels
    if (!first) throw new RangeError('no panel is described')
    const small = {
      ...first,
      areas: { ...first.areas, count: 1 },
      slots: { ...first.slots, fobs: { ...first.slots.fobs, count: 0 } },
      delays: { ...first.delays, abort: null },
    }
    const addresses = knownAddresses(small).map(({ address }) => address)
    expect(addresses.filter((one) => /areas|^fob|abort/.test(one))).toEqual([])
    expect(usualField(small, 'system.abort')).toBeNull()
  })
})
