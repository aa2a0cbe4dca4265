import { expect, it } from 'vitest'
import { blankArea, blankDevice, blankJob, blankZone } from './blank.ts'
import { fieldProblems } from './edit.ts'

/* What a field takes at its edges, and what it says beyond them: what is allowed. */

const said = (at: string, value: unknown): readonly string[] => {
  const [type = '', field = ''] = at.split('.')
  return fieldProblems({ type, field }, value).map(({ message }) => message)
}

/** Field, the least and most it takes, how much is a step beyond, and what is said there; said of both sides, or of each. */
const ranges: readonly (readonly [string, number, number, number, string | readonly [string, string]])[] = [
  ['job.pace', 0.1, 3, 0.01, 'must be a pace from 0.1 to 3 m/s'],
  ['job.petKg', 0, 100, 0.5, ['must be at least 0', 'must be at most 100']],
  ...['job.entry1', 'job.entry2', 'job.exit', 'job.exitStay', 'job.abortWindow', 'job.sirenSeconds'].map(
    (at) => [at, 0, 3600, 1, ['must be at least 0', 'must be at most 3600']] as const,
  ),
  ['job.swinger', 0, 15, 1, ['must be at least 0', 'must be at most 15']],
  ['job.superviseMinutes', 0, 10_000, 1, ['must be at least 0', 'must be at most 10000']],
  ['job.unheatedFrom', -60, 40, 1, ['must be at least -60', 'must be at most 40']],
  ['job.unheatedTo', 0, 90, 1, ['must be at least 0', 'must be at most 90']],
  ['area.number', 1, 64, 1, ['must be at least 1', 'must be at most 64']],
  ['area.entry1', 0, 3600, 1, ['must be at least 0', 'must be at most 3600']],
  ['device.madeYear', 1980, 2100, 1, 'must be a year from 1980 to 2100'],
  ['device.slot', 1, 999, 1, ['must be at least 1', 'must be at most 999']],
  ['device.mappedOver', 1, 999, 1, 'must be a whole number from 1 to 999'],
  ['device.heightM', 0, 10, 0.1, 'must be a height from 0 to 10 m'],
  ['device.gapMm', 0, 200, 0.5, 'must be a gap from 0 to 200 mm'],
  ['zone.number', 1, 999, 1, 'must be a whole number from 1 to 999'],
  ['zone.loop', 1, 16, 1, ['must be at least 1', 'must be at most 16']],
  ['zone.fireGroup', 1, 16, 1, 'must be a group from 1 to 16'],
  ['zone.resistorOhm', 1, 100_000, 1, 'must be from 1 to 100000 ohms'],
  ['terminal.number', 1, 999, 1, ['must be at least 1', 'must be at most 999']],
  ['room.petKg', 0, 100, 0.5, 'must be a weight from 0 to 100 kg'],
  ['way.metres', 0.5, 500, 0.1, 'must be a length from 0.5 to 500 m'],
]
it.each(ranges)('%s takes %d to %d and nothing beyond', (at, least, most, step, words) => {
  const [below, above] = typeof words === 'string' ? [words, words] : words
  expect([said(at, least), said(at, most)]).toEqual([[], []])
  expect([said(at, least - step), said(at, most + step)]).toEqual([[below], [above]])
  expect(said(at, 'ten')).not.toEqual([])
})

it.each([
  'job.entry1',
  'job.swinger',
  'job.superviseMinutes',
  'area.number',
  'device.madeYear',
  'device.slot',
  'zone.number',
  'zone.loop',
  'zone.fireGroup',
  'terminal.number',
])('%s is a whole number', (at) => {
  expect(said(at, 2000.5).length + said(at, 2.5).length).toBeGreaterThan(1)
})

/** Field and all that it can be. */
const choices: readonly (readonly [string, readonly string[]])[] = [
  ['job.region', ['europe', 'north-america', 'own']],
  ['job.kind', ['new', 'takeover']],
  ['job.slowest', ['ordinary', 'slow']],
  ['job.panelCame', ['new', 'used', 'there']],
  ['job.exitBy', ['timer', 'door', 'either']],
  ['job.openAtExit', ['exclude', 'alarm']],
  ['job.keySwitch', ['none', 'momentary', 'latching']],
  ['job.outputs', ['momentary', 'latched']],
  ['job.exercise', ['plain', 'surprises']],
  ['device.inputs', ['reed', 'terminals', 'both']],
  ['device.plan', ['keep', 'replace']],
  ['device.storedIn', ['panel', 'keypad']],
  ['zone.wiring', ['closed', 'open', 'end-of-line', 'double']],
  ['terminal.state', ['live', 'off', 'sealed']],
  ['opening.use', ['everyday', 'occasional', 'never']],
]
it.each(choices)('%s is one of %j', (at, all) => {
  for (const one of all) expect(said(at, one)).toEqual([])
  expect(said(at, 'else')).toEqual([`must be one of: ${all.join(', ')}`])
})

/** Field, texts that it takes, texts that it does not, and what it then says. */
const written: readonly (readonly [string, readonly string[], readonly string[], string])[] = [
  [
    'job.radioFirmware',
    ['1.2', '1.20', '123.456'],
    ['1', '1.', '.2', '1.2.3', 'v1.2', '1.2b', '1234.1', '1.2345', ' 1.2'],
    'must be a version such as 1.20',
  ],
  [
    'device.batteryAt',
    ['2026-03-31', '2026-01-01', '2026-12-09', '1999-10-20'],
    ['2026-3-31', '2026-00-10', '2026-13-10', '2026-20-10', '2026-03-00', '2026-03-32', '2026-03-40']
      .concat(['2026-03-311', '12026-03-31', 'at 2026-03-31', '2026-03-31T10:00', 'abcd-03-31'])
      .concat(['2026-0x-10', '2026-1x-10', '2026-03-0x', '2026-03-1x', '2026-03-3x']),
    'must be a day such as 2026-03-31',
  ],
  [
    'device.sticker',
    ['7', '20417733', 'A204118', 'Z'.repeat(20)],
    ['', 'a204118', '2041-7733', '2041 7733', '7'.repeat(21), ' 7', '7 '],
    'must be a transmitter ID of 1 to 20 digits and capital letters, without spaces',
  ],
  [
    'pin.hash',
    ['0'.repeat(64), 'a1'.repeat(32)],
    ['', '0'.repeat(63), '0'.repeat(65), 'G'.repeat(64), 'A1'.repeat(32)],
    'must be a SHA-256 in 64 hexadecimal digits',
  ],
  [
    'job.airStartedAt',
    ['2026-05-04T09:30:00Z', '2026-05-04T09:30:00.123Z'],
    ['2026-05-04', '2026-05-04T09:30:00', '2026-05-04T09:30:00+02:00', 'x2026-05-04T09:30:00Z', ' '],
    'must be a UTC time such as 2026-05-04T09:30:00Z',
  ],
]
it.each(written)('%s is written so and no other way', (at, right, wrong, words) => {
  for (const one of right) expect([one, said(at, one)]).toEqual([one, []])
  for (const one of wrong) expect([one, said(at, one)]).toEqual([one, [words]])
})

it('a list holds as many as there can be, each of its kind', () => {
  expect(said('zone.sirens', [1, 2, 3, 4, 5, 6, 7, 8])).toEqual([])
  expect(said('zone.sirens', [])).toEqual([])
  expect(said('zone.sirens', [0])).toEqual(['must be at least 1'])
  expect(said('zone.sirens', [9])).toEqual(['must be at most 8'])
  expect(said('zone.sirens', [1, 1, 1, 1, 1, 1, 1, 1, 1])).toHaveLength(1)
  expect(said('job.keysOff', ['fire key'])).toEqual([])
  expect(said('job.keysOff', Array(9).fill('k'))).toHaveLength(1)
})

it('what nobody said is nothing: no flag is on, nothing is noted', () => {
  const flags = (record: object) =>
    Object.entries(record).flatMap(([key, value]) => (value === true ? key : []))
  expect([flags(blankJob), flags(blankArea), flags(blankDevice), flags(blankZone)]).toEqual([[], [], [], []])
  expect(blankJob.keysOff).toEqual([])
  expect([blankJob.slowest, blankJob.keySwitch, blankJob.exercise]).toEqual(['ordinary', 'none', 'plain'])
  expect(blankDevice.use).toBe('none')
})
