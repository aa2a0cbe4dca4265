import { describe, expect, it } from 'vitest'
import type { AlarmKind, DeviceEvent, PanelModel, ResponseType, Trip } from '../catalogue/schema.ts'
import type { Use } from '../job/records.ts'
import { defaultHouseRules, type Schools } from '../house-rules/house-rules.ts'
import type { Region } from '../units/region.ts'
import { catalogue } from '../testing/small-job.ts'
import {
  advise,
  isLifeSafety,
  isOfLifeSafety,
  isWayIn,
  kindOf,
  needOf,
  whileMoving,
  type Need,
  type Place,
} from './advise.ts'

const tarn = catalogue.get('panel', 'panel/tarn-40')
const morrow = catalogue.get('panel', 'panel/morrow-60')
if (!tarn || !morrow) throw new Error('the demo pack lacks a panel')

const place = (
  use: Use,
  room = 'hall',
  region: Region = 'europe',
  schools: Partial<Schools> = {},
): Place => ({
  use,
  noisy: room === 'Kitchen',
  sleeps: false,
  delay: null,
  region,
  schools: { ...defaultHouseRules.schools, ...schools },
})

/** event, use, room, region → away, stay, kind: what each need asks. */
const needs: readonly [DeviceEvent, Use, string, Region, string, string, string][] = [
  ['open', 'entry', 'porch', 'europe', 'entry-1', 'entry-1', 'burglary'],
  ['open', 'entry-far', 'garage', 'europe', 'entry-2', 'entry-2', 'burglary'],
  ['open', 'entry-not-in-stay', 'porch', 'europe', 'entry-1', 'instant', 'burglary'],
  ['open', 'opening', 'study', 'europe', 'instant', 'instant', 'burglary'],
  ['open', 'inner-way', 'hall', 'europe', 'follow', 'ignore', 'burglary'],
  ['open', 'none', 'hall', 'europe', 'instant', 'instant', 'burglary'],
  ['motion', 'sees-entry', 'hall', 'europe', 'entry-1', 'ignore', 'burglary'],
  ['motion', 'on-way', 'hall', 'europe', 'follow', 'ignore', 'burglary'],
  ['motion', 'off-way', 'loft', 'europe', 'instant', 'ignore', 'burglary'],
  ['motion', 'off-way', 'loft', 'north-america', 'follow', 'ignore', 'burglary'],
  ['glass', 'opening', 'lounge', 'europe', 'instant', 'instant', 'burglary'],
  ['glass', 'opening', 'Kitchen', 'europe', 'instant', 'ignore', 'burglary'],
  ['smoke', 'none', 'hall', 'europe', 'instant', 'instant', 'fire'],
  ['heat', 'none', 'hall', 'europe', 'instant', 'instant', 'fire'],
  ['co', 'none', 'hall', 'europe', 'instant', 'instant', 'gas'],
  ['freeze', 'none', 'hall', 'europe', 'instant', 'instant', 'auxiliary'],
  ['flood', 'none', 'hall', 'europe', 'instant', 'instant', 'auxiliary'],
  ['panic', 'none', 'hall', 'europe', 'instant', 'instant', 'panic'],
  ['medical', 'none', 'hall', 'europe', 'instant', 'instant', 'medical'],
]

describe('what an event needs', () => {
  it.each(needs)('%s, %s in %s (%s)', (event, use, room, region, away, stay, kind) => {
    expect(needOf(event, place(use, room, region))).toMatchObject({ away, stay, kind })
  })
})

describe('the panel’s type for a need', () => {
  const typeOf = (panel: typeof tarn, event: DeviceEvent, use: Use) => {
    const advice = advise(panel, event, needOf(event, place(use)))
    return [advice.type?.key ?? null, advice.differs]
  }

  it('takes the one that gives it', () => {
    expect(typeOf(tarn, 'open', 'entry-not-in-stay')).toEqual(['entry-1-stay-instant', []])
    expect(typeOf(tarn, 'motion', 'sees-entry')).toEqual(['delay-away', []])
    expect(typeOf(morrow, 'co', 'none')).toEqual(['gas', []])
    expect(typeOf(morrow, 'panic-silent', 'none')).toEqual(['panic-silent', []])
    expect(typeOf(morrow, 'disarm', 'none')).toEqual(['command-disarm', []])
  })

  it('takes the nearest and says what differs', () => {
    expect(typeOf(morrow, 'open', 'entry-not-in-stay')).toEqual([
      'entry-1',
      ['stay: entry 1 instead of instant'],
    ])
  })

  it('weighs what it does at night where the panel has a night mode', () => {
    const ostler = catalogue.get('panel', 'panel/ostler-s-8')
    if (!ostler) throw new Error('the demo pack lacks a panel')
    expect(typeOf(ostler, 'motion', 'on-way-night')).toEqual(['follow-stay-delay', []])
    const nights = {
      ...ostler,
      responseTypes: ostler.responseTypes.map((type) => ({ ...type, night: 'ignore' as const })),
    }
    expect(typeOf(nights, 'open', 'opening')).toEqual(['instant', ['night: nothing instead of instant']])
  })

  it('takes none where the panel has no such kind', () => {
    const noGas = { ...tarn, responseTypes: tarn.responseTypes.filter((type) => type.kind !== 'gas') }
    expect(typeOf(noGas, 'co', 'none')).toEqual([null, []])
  })

  it('is never weaker than life safety needs', () => {
    for (const panel of catalogue.all('panel'))
      for (const event of ['smoke', 'heat', 'co', 'freeze', 'flood', 'panic', 'medical'] as const) {
        if (event === 'co' && panel.id === 'panel/pinfold-16') continue
        const { type, need } = advise(panel, event, needOf(event, place('none')))
        expect([
          type?.kind,
          type?.away,
          type?.stay,
          type?.disarmed,
          type?.transmissionDelayAllowed,
          type?.fire ?? 'plain',
        ]).toEqual([need.kind, 'instant', 'instant', 'instant', false, 'plain'])
      }
  })
})

describe('a place that is never opened', () => {
  const panels = catalogue.all('panel')
  it.each(panels)('is watched at any hour on $name where it has a burglary type for that', (panel) => {
    const has = ['panel/ostler-s-8', 'panel/ostler-s-9', 'panel/sallow-m'].includes(panel.id)
    for (const event of ['open', 'terminals', 'shock'] as const) {
      const { need, type, differs } = advise(panel, event, needOf(event, place('always-on')))
      expect(need).toMatchObject({ kind: 'burglary', away: 'instant', stay: 'instant', anyHour: true })
      expect([type?.kind, type?.away, type?.stay, type?.disarmed]).toEqual(
        has ? ['burglary', 'instant', 'instant', 'instant'] : ['burglary', 'instant', 'instant', 'ignore'],
      )
      expect(differs).toEqual(has ? [] : ['unset: nothing instead of instant'])
    }
  })

  it('makes no other device always on', () => {
    for (const panel of panels)
      for (const use of ['entry', 'opening', 'off-way', 'none'] as const)
        for (const event of ['open', 'motion', 'glass', 'shock'] as const) {
          const { need, type } = advise(panel, event, needOf(event, place(use)))
          expect([need.anyHour, type?.disarmed]).toEqual([false, 'ignore'])
        }
    expect(needOf('motion', place('always-on')).anyHour).toBe(false)
  })
})

/** event, use, region, schools → away, stay: what each school asks. */
const schooled: readonly [DeviceEvent, Use, Region, Partial<Schools>, string, string][] = [
  ['motion', 'sees-entry', 'europe', { seesLeaf: 'follow' }, 'follow', 'ignore'],
  ['motion', 'entry-far', 'europe', {}, 'entry-2', 'ignore'],
  ['motion', 'entry-far', 'europe', { seesLeaf: 'follow' }, 'follow', 'ignore'],
  ['motion', 'off-way', 'north-america', { offWay: 'instant' }, 'instant', 'ignore'],
  ['motion', 'off-way', 'europe', { offWay: 'follow' }, 'follow', 'ignore'],
  ['motion', 'on-way-night', 'europe', {}, 'follow', 'entry-1'],
  ['glass', 'opening', 'europe', { glass: 'away-only' }, 'instant', 'ignore'],
  ['glass', 'opening', 'europe', { glass: 'both' }, 'instant', 'instant'],
]
describe('schools', () => {
  it.each(schooled)('%s, %s in %s under %o', (event, use, region, schools, away, stay) => {
    expect(needOf(event, place(use, 'Kitchen', region, schools))).toMatchObject({ away, stay })
  })
})

describe('while people leave and come in', () => {
  const said = (panel: typeof tarn, key: string) => {
    const type = panel.responseTypes.find((item) => item.key === key)
    if (!type) throw new Error(key)
    return whileMoving(panel, type)
  }
  it('is told per type, by the panel’s data', () => {
    expect(said(tarn, 'instant')).toEqual({
      leaving: 'Leaving in away a trip is ignored; in stay it alarms at once.',
      entering: 'It alarms at once.',
    })
    expect(said(morrow, 'instant').leaving).toBe('A trip is ignored.')
    expect(said(morrow, 'entry-2').entering).toBe(
      'A shorter delay shortens the one that runs; none lengthens it.',
    )
    expect(said(tarn, 'follow-away').entering).toBe('It waits for the delay that runs.')
    expect(said(tarn, 'fire')).toEqual({
      leaving: 'A trip alarms at once.',
      entering: 'Always on: it alarms at once.',
    })
    const { couplings: _none, ...bare } = tarn
    expect(said(bare as typeof tarn, 'entry-1').entering).toContain('does not say')
  })
})

describe('what an event and a use are', () => {
  const kinds: readonly [DeviceEvent, AlarmKind][] = [
    ['smoke', 'fire'],
    ['heat', 'fire'],
    ['co', 'gas'],
    ['freeze', 'auxiliary'],
    ['flood', 'auxiliary'],
    ['panic', 'panic'],
    ['panic-silent', 'panic'],
    ['medical', 'medical'],
    ['arm-away', 'command'],
    ['arm-stay', 'command'],
    ['disarm', 'command'],
    ['output', 'command'],
    ['open', 'burglary'],
    ['terminals', 'burglary'],
    ['motion', 'burglary'],
    ['glass', 'burglary'],
    ['shock', 'burglary'],
  ]

  it.each(kinds)('%s is of the kind %s, wherever it stands', (event, kind) => {
    expect(kindOf(event)).toBe(kind)
    expect(needOf(event, place('opening')).kind).toBe(kind)
  })

  it('fire and gas are life safety, and nothing else', () => {
    const kinds: readonly AlarmKind[] = [
      'fire',
      'gas',
      'auxiliary',
      'panic',
      'medical',
      'burglary',
      'command',
    ]
    expect(kinds.filter(isLifeSafety)).toEqual(['fire', 'gas'])
  })

  it('a device is of life safety where any of its events is', () => {
    const is = (id: string) => {
      const model = catalogue.get('device', `device/${id}`)
      return model && isOfLifeSafety(model)
    }
    // The Ember Three tells smoke, heat and frost apart: frost alone would not make it one.
    expect([is('ember-three'), is('wick'), is('glow')]).toEqual([true, true, true])
    expect([is('rime'), is('puddle'), is('beckon'), is('stilt'), is('quartet')]).toEqual(Array(5).fill(false))
  })

  it('ways in are the entry doors and what sees their leaf', () => {
    const uses: readonly Use[] = ['entry', 'entry-far', 'entry-not-in-stay', 'sees-entry']
    const others: readonly Use[] = [
      'opening',
      'inner-way',
      'on-way',
      'on-way-night',
      'off-way',
      'always-on',
      'none',
    ]
    expect(uses.filter(isWayIn)).toEqual(uses)
    expect(others.filter(isWayIn)).toEqual([])
  })

  it('says in the reason what it is', () => {
    const reason = (event: DeviceEvent) => needOf(event, place('none')).reason
    expect(reason('smoke')).toMatch(/^Smoke is a fire/)
    expect(reason('heat')).toMatch(/^Heat is a fire/)
    expect(reason('freeze')).toMatch(/^Frost harms/)
    expect(reason('flood')).toMatch(/^Water harms/)
  })

  it('a fob button gives a command that is neither silent nor wanted at any hour', () => {
    for (const event of ['arm-away', 'arm-stay', 'disarm', 'output'] as const)
      expect(needOf(event, place('none'))).toMatchObject({
        ...{ kind: 'command', away: 'command', stay: 'command', night: 'command' },
        ...{ anyHour: false, silent: false },
      })
  })
})

/** A panel of two burglary types, each by what a trip does in away and stay; the second is taken only where it is nearer. */
describe('the nearer of two types', () => {
  const made = (key: string, away: Trip, stay: Trip): ResponseType => {
    const one = tarn.responseTypes.find((type) => type.kind === 'burglary')
    if (!one) throw new Error('no burglary type')
    return { ...one, key, away, stay } as ResponseType
  }
  const nearerOf = (
    need: readonly [Trip, Trip],
    one: readonly [Trip, Trip],
    other: readonly [Trip, Trip],
  ) => {
    const panel: PanelModel = { ...tarn, responseTypes: [made('one', ...one), made('other', ...other)] }
    const asked = needOf('open', place('opening'))
    // Nothing watches: how far a type is from what is asked decides alone.
    const wanted: Need = { ...asked, away: need[0], stay: need[1], night: need[1], watch: null }
    return advise(panel, 'open', wanted).type?.key
  }
  it.each<[string, readonly [Trip, Trip], readonly [Trip, Trip], readonly [Trip, Trip]]>([
    [
      'what is asked, to what starts a delay',
      ['instant', 'instant'],
      ['entry-1', 'instant'],
      ['instant', 'instant'],
    ],
    [
      'a delay too many, to being ignored',
      ['instant', 'instant'],
      ['ignore', 'instant'],
      ['entry-1', 'instant'],
    ],
    [
      'an alarm at once, to being ignored',
      ['entry-1', 'instant'],
      ['ignore', 'instant'],
      ['instant', 'instant'],
    ],
    ['entry 1 for follow, to an alarm', ['follow', 'ignore'], ['instant', 'ignore'], ['entry-1', 'ignore']],
    [
      'entry 1 for entry 2, to an alarm',
      ['entry-2', 'instant'],
      ['instant', 'instant'],
      ['entry-1', 'instant'],
    ],
    [
      'what differs in stay, to what differs in away',
      ['instant', 'instant'],
      ['entry-1', 'instant'],
      ['instant', 'entry-1'],
    ],
    [
      'what stays silent in stay, to what is live there unasked',
      ['entry-1', 'ignore'],
      ['entry-1', 'instant'],
      ['instant', 'ignore'],
    ],
  ])('is %s', (_what, need, far, near) => {
    expect(nearerOf(need, far, near)).toBe('other')
    expect(nearerOf(need, near, far)).toBe('one')
  })

  it('is the first of two alike', () => {
    expect(nearerOf(['instant', 'instant'], ['entry-1', 'instant'], ['entry-2', 'instant'])).toBe('one')
  })
})
