import { SmallJob } from '../../testing/small-job.ts'

/* Clean jobs on panels that couple their settings. */

export const ostler = (): SmallJob =>
  new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
    .add('front', 'sill-8', { use: 'entry', position: 'door' })
    .add('attic', 'brander-8')
    .add('study', 'brander-8')
    .number()
export const pinfold = (): SmallJob =>
  new SmallJob({ panel: 'panel/pinfold-16', grade: 1 })
    .apply(
      [1, 2, 3, 4, 5, 6, 7, 8].map((number) => ({
        op: 'add' as const,
        record: { id: `terminal:${number}`, type: 'terminal' as const, number, state: 'off' as const },
      })),
    )
    .add('front', 'pebble', { use: 'entry', position: 'door' })
    .add('study', 'pebble-two', { use: 'opening', position: 'window' })
    .number()
export const quillet = (): SmallJob =>
  new SmallJob({ panel: 'panel/quillet-32', entry2: 50 })
    .add('front', 'sill-8', { use: 'entry', position: 'door' })
    .number()
