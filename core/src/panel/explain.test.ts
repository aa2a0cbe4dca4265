import { describe, expect, it } from 'vitest'
import { evidenceBy } from '../job/testing/records.ts'
import { oneDoor } from '../testing/panels.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { explainFor, MOST_SIGNS, type Explained, type ExplainStart, type KeyEffect } from './explain.ts'
import { panelSheet } from './sheet.ts'

type Told = Extract<Explained, { ok: true }>

function told(job: SmallJob, keys: string, start: ExplainStart = 'factory'): Told {
  const answer = explainFor(job.doc, catalogue)?.(keys, start)
  return answer?.ok ? answer : expect.fail(JSON.stringify(answer))
}
function why(job: SmallJob, keys: string): { at: number; reason: string } {
  const answer = explainFor(job.doc, catalogue)?.(keys, 'factory')
  return answer?.ok === false ? answer : expect.fail('it was read')
}
function effect(did: KeyEffect): string {
  switch (did.kind) {
    case 'answered':
      return `${did.field}: ${did.words} (${did.plan}${did.plan === 'otherwise' ? ` ${did.wanted}` : ''})`
    case 'kept':
    case 'dropped':
      return `${did.kind} ${did.count}`
    case 'says':
      return `says ${did.text}`
    case 'listens':
      return `listens ${did.seconds}`
    default:
      return did.kind
  }
}
const table = ({ lines }: Told): string[][] =>
  lines.map(({ keys, shows, did }) => [keys, shows.join(' | ').trim(), did.map(effect).join('; ')])

const inside = '[tick] for 5 s (main-user code) [tick] (installer code) [tick]'

describe('keys explained on a panel that keeps at the end', () => {
  // The plan: first way in 30 s as shipped, second 45 s, one front door on line 1 with ID 2041 7733 at input 3, gong on.
  it('says line by line what the display shows and what was answered, beside the plan', () => {
    const keys = `${inside} [next] 450 [tick] 45 [tick] [go] 50 [tick] 01 [tick] 318 [tick] 23 [tick] [home] [tick] wait 40 s`
    expect(table(told(oneDoor(), keys))).toEqual([
      ['[tick] for 5 s', 'who is there? |', ''],
      ['(main-user code) [tick]', 'and who fits it? |', ''],
      ['(installer code) [tick]', '14 first way in, s | 30', ''],
      ['[next]', '15 second way in, s | 60', ''],
      ['450 [tick]', '15 second way in, s | no such answer', 'says no such answer'],
      ['45 [tick]', '16 leaving, s | 60', 'entry delay 2: 45 s (planned)'],
      ['[go]', 'go to question | _', ''],
      ['50 [tick]', '50 lines | which? _', ''],
      ['01 [tick]', '01 what is it? |', ''],
      ['318 [tick]', '01 does |', 'equipment code: 318, Reedling contact (planned)'],
      [
        '23 [tick]',
        '01 id |',
        'response type: 23, Way in, at once in stay (otherwise 21, Way in, first delay)',
      ],
      ['[home]', 'keep all answers? |', ''],
      ['[tick]', 'saving, then | restarting', ''],
      ['wait 40 s', 'ready | ·····', 'kept 3'],
    ])
  })

  it('counts what stands at the end, what is not kept yet and what is still missing', () => {
    const some = told(oneDoor(), `${inside} [next] 45 [tick] [go] 50 [tick] 01 [tick] 318 [tick] 23 [tick]`)
    expect(some.answers.map(({ part, field, plan }) => [part, field, plan])).toEqual([
      ['Whole system', 'entry delay 2', 'planned'],
      ['Zone 01 — Front door', 'equipment code', 'planned'],
      ['Zone 01 — Front door', 'response type', 'otherwise'],
    ])
    expect(some.unsaved).toBe(3)
    // Type, ID, input, gong and label are not there yet; what else the plan wants came with the panel.
    expect(some.missing).toBe(5)
    const none = told(oneDoor(), '')
    expect(none).toMatchObject({ lines: [], inputs: 0, answers: [], unsaved: 0, missing: 7 })
    expect(none.wanted).toBeGreaterThan(7)
  })

  it('puts an answer that was put right at what it is in the end', () => {
    const { answers } = told(oneDoor(), `${inside} 45 [tick] [back] 30 [tick]`)
    expect(answers.map(({ words, plan }) => [words, plan])).toEqual([['30 s', 'planned']])
  })

  it('tells what was lost', () => {
    const left = told(oneDoor(), `${inside} 45 [tick] 50 [tick] [home] [cross]`)
    expect(table(left).slice(-1)).toEqual([['[cross]', 'ready | ·····', 'dropped 2']])
    expect(left.unsaved).toBe(0)
    expect(left.answers.map(({ words, plan, wanted }) => [words, plan, wanted])).toEqual([
      ['30 s', 'planned', '30 s'],
      ['60 s', 'otherwise', '45 s'],
    ])
    const idle = told(oneDoor(), `${inside} 45 [tick] wait 240 s`)
    expect(table(idle).slice(-1)).toEqual([['wait 240 s', 'ready | ·····', 'dropped 1']])
    // The panel as planned, brought back to how it came: that is more than a lost answer.
    const wiped = told(oneDoor(), `${inside} 40 [tick] [go] 99 [tick] 777 [tick] wait 20 s`, 'plan')
    expect(table(wiped).slice(-1)).toEqual([['wait 20 s', 'ready | ·····', 'wiped']])
  })

  it('tells a key that means nothing apart from what was typed before it', () => {
    expect(table(told(oneDoor(), `${inside} 240 5 [tick]`)).slice(3)).toEqual([
      ['240', '14 first way in, s | 240_', ''],
      ['5', '14 first way in, s | 240_', 'nothing'],
      ['[tick]', '15 second way in, s | 60', 'entry delay 1: 4 min (otherwise 30 s)'],
    ])
    // Nothing listens at the door.
    expect(table(told(oneDoor(), '(hears 20417733 3)'))).toEqual([
      ['(hears 20417733 3)', 'ready | ·····', 'nothing'],
    ])
  })

  it('tells what it hears, and that it listens', () => {
    const rows = table(
      told(oneDoor(), `${inside} [go] 50 [tick] 01 [tick] [next] [next] [ear] (hears 20417801 2)`),
    )
    expect(rows.slice(-2)).toEqual([
      ['[ear]', '01 id | listening', 'listens 60'],
      [
        '(hears 20417801 2)',
        '01 input | 2',
        'transmitter ID: 2041 7801 (otherwise 2041 7733, from the sticker, not learned yet); loop: 2 (otherwise 3)',
      ],
    ])
  })

  it('tells what the plan leaves, and what is asked of another type only', () => {
    const job = oneDoor()
    job.set(job.zone('porch').id, { response: 'fire', chime: false })
    // Another line than the plan's, and the gong that a fire line is not asked for.
    const { answers } = told(
      job,
      `${inside} [go] 50 [tick] 01 [tick] [next] ×6 [tick] [go] 50 [tick] 09 [tick] 318 [tick]`,
    )
    expect(answers.map(({ part, field, plan, wanted }) => [part, field, plan, wanted])).toEqual([
      ['Zone 01 — Front door', 'chime', 'unasked', ''],
      ['Zone 09', 'equipment code', 'open', ''],
    ])
  })
})

describe('where keys begin', () => {
  it('as shipped, as last keyed or as planned', () => {
    const job = oneDoor().apply([
      {
        op: 'add',
        record: {
          ...evidenceBy('Idris', '2026-05-04T10:00:00Z'),
          ...{ id: 'held:1', type: 'held', panel: 'panel/tarn-40', how: 'keyed', saved: true },
          ...{ section: 'Whole system', values: [{ address: 'system.entry2', value: '75' }] },
        },
      },
    ])
    const second = (start: ExplainStart): string => table(told(job, `${inside} [next]`, start))[3]?.[1] ?? ''
    expect(second('factory')).toBe('15 second way in, s | 60')
    expect(second('keyed')).toBe('15 second way in, s | 75')
    expect(second('plan')).toBe('15 second way in, s | 45')
    expect(told(job, '', 'plan').missing).toBe(0)
  })
})

describe('keys explained on a panel that keeps each answer', () => {
  it('tells the answer, and nothing of keeping', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', exit: 50 })
    const rows = told(job, '(main-user code) [YES] (installer code) [yes] [yes] [no] [no] [yes] 50 [yes]')
    expect(table(rows).slice(-2)).toEqual([
      ['[yes]', 'T3 exit | #', ''],
      ['50 [yes]', 'T4 exit, part set? | 0', 'exit delay: 50 s (planned)'],
    ])
    expect(rows.unsaved).toBe(0)
  })
})

describe('the sheet that Kapelle makes', () => {
  it('explained, answers all that the plan wants and nothing otherwise', () => {
    const job = oneDoor()
    const sheet = panelSheet({
      doc: job.doc,
      catalogue,
      start: 'factory',
      order: 'shortest',
      identity: 'type',
    })
    const keys = sheet?.ok ? sheet.parts.flatMap(({ lines }) => lines.map((line) => line.keys)) : []
    const answer = told(job, keys.join('\n'))
    expect(answer.missing).toBe(0)
    expect(answer.unsaved).toBe(0)
    expect(answer.answers.filter(({ plan }) => plan !== 'planned')).toEqual([])
    expect(answer.lines.flatMap(({ did }) => did.filter(({ kind }) => kind === 'nothing'))).toEqual([])
    expect(answer.lines.map(({ keys: text }) => text).join(' ')).toContain('[home] [tick] wait 40 s')
  })
})

describe('keys that cannot be read', () => {
  it.each([
    ['[go] 14 [tock]', 8, 'Tarn 40 has no key tock; it has 1, 2, 3, home'],
    ['[go] 14\n  what?', 10, '“what?” is no key of Tarn 40: a key stands in brackets'],
    ['A', 0, '“A” is no key of Tarn 40'],
    ['[tick] for a while', 7, '“for” is no key of Tarn 40'],
    ['[next] ×', 7, '“×” is no key of Tarn 40'],
    ['[next', 0, '“[next” is no key of Tarn 40'],
  ])('%j', (keys, at, reason) => {
    const problem = why(oneDoor(), keys)
    expect([problem.at, problem.reason.slice(0, reason.length)]).toEqual([at, reason])
  })

  it('takes large and small letters, more spaces, lines, and a count', () => {
    expect(table(told(oneDoor(), ` ${inside}\n\n [NEXT]x2`)).slice(3)).toEqual([
      ['[next]', '15 second way in, s | 60', ''],
      ['[next]', '16 leaving, s | 60', ''],
    ])
  })

  it('nor more than so many signs, or keys', () => {
    expect(why(oneDoor(), '[next]×99 '.repeat(250)).reason).toBe('at most 20000 keys are acted out at once')
    expect(why(oneDoor(), '[next] ×100').at).toBe(7)
    expect(why(oneDoor(), '1'.repeat(MOST_SIGNS + 1)).reason).toBe('at most 20000 signs are read at once')
    expect(told(oneDoor(), '1'.repeat(MOST_SIGNS)).inputs).toBe(MOST_SIGNS)
  })
})

it('is not there for a panel that nobody has described, and for no panel', () => {
  expect(explainFor(new SmallJob({ panel: null }).doc, catalogue)).toBeNull()
})
