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

/** Quillet: an everyday front door, a garage 20 m behind the hall with a door of its own, a keypad in the hall, glass and windows. */
export const farm = (): SmallJob =>
  new SmallJob({ panel: 'panel/quillet-32', entry1: 20, entry2: 40 })
    .room('hall', { kind: 'hall' })
    .room('garage', { kind: 'garage' })
    .room('study')
    .room('bedroom', { kind: 'bedroom', sleeps: true })
    .way('hall', 'garage', 20)
    .way('hall', 'study', 4)
    .way('hall', 'bedroom', 4)
    .opening('front door', 'hall')
    .opening('garage door', 'garage')
    .opening('inner door', 'hall', { to: 'room:garage' })
    .opening('study window', 'study', { use: 'never' })
    .add('front', 'sill-8', { room: 'hall', position: 'front door', opening: 'opening:front door' })
    .add('far', 'sill-8', { room: 'garage', position: 'garage door', opening: 'opening:garage door' })
    .add('inner', 'sill-8', { room: 'hall', position: 'inner door', opening: 'opening:inner door' })
    .add('study', 'sill-8', { room: 'study', position: 'window' })
    .add('bedroom', 'watcher-8', { room: 'bedroom' })
    .add('watch', 'watcher-8', { room: 'garage' })
    .add('pane', 'crackle-8', { room: 'study' })
    .add('panes', 'crackle-8', { room: 'garage' })
    .add('keypad', 'scriber-8', { room: 'hall' })
    .sees('watch', { opening: 'garage door' })
    .number()
