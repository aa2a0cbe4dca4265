import { expect, it } from 'vitest'
import { jobOnEach } from '../testing/panels.ts'
import { SmallJob } from '../testing/small-job.ts'
import { itemsOf, learned, record } from './testing/proved-jobs.ts'

type Spoil = (job: SmallJob) => SmallJob
/** A contact at a porch that fits, on every panel; and what makes it fit no more and again. */
const rows: readonly (readonly [
  what: string,
  job: () => SmallJob,
  key: string,
  spoil: Spoil,
  mend: Spoil,
])[] = [
  [
    'firmware read lower than planned',
    () => new SmallJob().add('porch', 'reedling-c', { use: 'entry' }).number(),
    'porch',
    (job) => job.set('job:main', { radioFirmware: '1.10' }),
    (job) => job.set('job:main', { radioFirmware: '1.31' }),
  ],
  [
    'said to be reached through what is no repeater',
    () => jobOnEach.find(([panel]) => panel === 'pinfold-16')?.[1]() ?? expect.fail(),
    'porch',
    (job) => job.set('device:porch', { via: 'device:porch' }),
    (job) => job.set('device:porch', { via: null }),
  ],
  // The devices of the other two are made for both regions.
  ...jobOnEach
    .filter(([panel]) => panel !== 'tarn-40' && panel !== 'pinfold-16')
    .map(([panel, make]) => {
      const { region } = make().input().doc.records['job:main'] as { region: string }
      return [
        `another region, ${panel}`,
        make,
        panel === 'morrow-60' ? 'front' : 'porch',
        (job: SmallJob) => job.set('job:main', { region: region === 'europe' ? 'north-america' : 'europe' }),
        (job: SmallJob) => job.set('job:main', { region }),
      ] as const
    }),
]

it.each(rows)(
  'proofs of a device that no longer fits are doubtful until it does: %s',
  (_, make, key, spoil, mend) => {
    const job = learned(make(), key)
    for (const item of itemsOf(job, key).filter(({ waits }) => waits === ''))
      record(job, item, { reading: 99 })
    const states = () => itemsOf(job, key).map(({ key: proof, state }) => [proof, state])
    const before = itemsOf(job, key)
    expect(before.some(({ kind, state }) => kind === 'toggle' && state === 'pass')).toBe(true)
    const was = states()
    spoil(job)
    for (const item of itemsOf(job, key)) {
      const passed = before.some((one) => one.key === item.key && one.state === 'pass')
      // How it hangs is the same.
      if (!passed || item.kind === 'mount') continue
      expect([item.kind, item.state, item.changed]).toEqual([
        item.kind,
        'stale',
        ['it does not fit the panel and its receivers any more'],
      ])
    }
    mend(job)
    expect(states()).toEqual(was)
  },
)
