import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeBothWays } from '../testing/both-ways.ts'

const learned = (...pairs: readonly (readonly [string, string])[]) =>
  pairs.reduce((job, [device, serial]) => job.learn(job.zone(device).id, serial), cleanTarn())
const known = (job: SmallJob, ...elsewhere: { serial: string; job: string }[]) => {
  job.elsewhere = elsewhere
  return job
}
const heron = { serial: '12345678', job: 'Heron Weir' }
const used = 'ID 1234 5678 is also used in the job “Heron Weir”.'

describeBothWays('sticker-differs', [
  { what: 'no sticker is noted', job: () => learned(['porch', '12345678']), says: [] },
  {
    what: 'the sticker’s ID was learned',
    job: () => learned(['porch', '12345678']).set('device:porch', { sticker: '12345678' }),
    says: [],
  },
  {
    what: 'nothing was learned',
    job: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    says: [],
  },
])

describeBothWays('serial-elsewhere', [
  {
    what: 'an ID of another job that nobody has here',
    job: () => known(learned(['porch', '12345679']), heron),
    says: [],
  },
  { what: 'it was learned here', job: () => known(learned(['porch', '12345678']), heron), says: [used] },
  {
    what: 'it is noted as a sticker here',
    job: () => known(cleanTarn().set('device:porch', { sticker: '12345678' }), heron),
    says: [used],
  },
  {
    what: 'a fob is known by it in its slot',
    job: () => known(cleanTarn().learn('device:fob', '12345678'), heron),
    says: [used],
  },
])

describeBothWays('serial-twice', [
  { what: 'each has its own', job: () => learned(['porch', '12345678'], ['hall', '12345679']), says: [] },
  {
    what: 'two zones of one device have one',
    job: () =>
      ((j) =>
        j.learn(j.zone('landing', 'smoke').id, '12345678').learn(j.zone('landing', 'heat').id, '12345678'))(
        cleanTarn(),
      ),
    says: [],
  },
  {
    what: 'three devices with one',
    job: () => learned(['porch', '12345678'], ['hall', '12345678'], ['lounge', '12345678']),
    says: [
      'The Stilt Hound motion in hall is known by ID 1234 5678, and so is the Reedling contact in porch (front door): one of them is never heard. Take it out at Enrol and learn it by its own transmission.',
      'The Pane Ear glass break in lounge is known by ID 1234 5678, and so is the Reedling contact in porch (front door): one of them is never heard. Take it out at Enrol and learn it by its own transmission.',
    ],
  },
])

describeBothWays('sticker-twice', [
  {
    what: 'no sticker is noted twice',
    job: () =>
      cleanTarn().set('device:porch', { sticker: '12345678' }).set('device:hall', { sticker: '12345679' }),
    says: [],
  },
  {
    what: 'both are known by it, which is found as that',
    job: () =>
      learned(['porch', '12345678'], ['hall', '12345678'])
        .set('device:porch', { sticker: '12345678' })
        .set('device:hall', { sticker: '12345678' }),
    says: [],
  },
  {
    what: 'one of them is known by it',
    job: () =>
      learned(['porch', '12345678'])
        .set('device:porch', { sticker: '12345678' })
        .set('device:hall', { sticker: '12345678' }),
    says: [
      'The sticker 1234 5678 is noted for the Stilt Hound motion in hall and for the Reedling contact in porch (front door): read both again.',
    ],
  },
])

/** A contact that is to go, still in the panel, and another one. */
const beside = (
  old: Record<string, unknown>,
  next: Record<string, unknown>,
  { model = 'reedling', learns = true } = {},
) => {
  const job = new SmallJob()
    .room('hall')
    .room('den')
    .opening('front door', 'hall')
    .opening('side door', 'hall')
    .add('old', 'reedling', { room: 'hall', use: 'opening', ...old })
    .add('next', model, { room: 'hall', use: 'opening', ...next })
    .number()
    .set('device:old', { existing: true, plan: 'replace' })
  job.learn(job.zone('old').id, '12345678')
  return learns ? job.learn(job.zone('next').id, '12345679') : job
}
const shows = [
  'Reedling contact in hall is to be replaced and the panel still knows it, beside Reedling contact in its place: take it out at Enrol, or it shows as lost and holds its zones.',
]
describeBothWays('replaced-beside', [
  { what: 'one in the same room', job: () => beside({}, {}), says: shows },
  { what: 'one that is not learned yet', job: () => beside({}, {}, { learns: false }), says: [] },
  { what: 'one of another class', job: () => beside({}, {}, { model: 'stilt' }), says: [] },
  { what: 'one in another room', job: () => beside({}, { room: 'den' }), says: [] },
  { what: 'neither has a room', job: () => beside({ room: '' }, { room: '' }), says: [] },
  {
    what: 'one at the same position',
    job: () => beside({ position: 'door' }, { position: 'door' }),
    says: shows,
  },
  {
    what: 'one at another position',
    job: () => beside({ position: 'door' }, { position: 'window' }),
    says: [],
  },
  { what: 'of the other nobody said the position', job: () => beside({ position: 'door' }, {}), says: shows },
  {
    what: 'of the old one nobody said the position',
    job: () => beside({}, { position: 'window' }),
    says: shows,
  },
  {
    what: 'one at the same opening, called otherwise',
    job: () =>
      beside(
        { opening: 'opening:front door', position: 'door' },
        { opening: 'opening:front door', position: 'frame' },
      ),
    says: shows,
  },
  {
    what: 'one at another opening, called alike',
    job: () =>
      beside(
        { opening: 'opening:front door', position: 'door' },
        { opening: 'opening:side door', position: 'door' },
      ),
    says: [],
  },
  {
    what: 'the other is to go, too',
    job: () => beside({}, {}).set('device:next', { existing: true, plan: 'replace' }),
    says: [],
  },
  { what: 'it is kept', job: () => beside({}, {}).set('device:old', { plan: 'keep' }), says: [] },
])
