import type { WordsOf } from '../finding.ts'
import type { IdentityFacts } from '../identity/rules.ts'
import { here } from './plural.ts'

/** How the rules on IDs read. */
export const identityWords: WordsOf<IdentityFacts> = {
  'sticker-differs': {
    title: 'learned ID is not the sticker’s',
    source: 'Compare the ID with the sticker every time',
    says: ({ zone, learned, sticker }) =>
      `Zone ${zone} learned ID ${learned}; the sticker of its device says ${sticker}. Take it out at Enrol and learn the right one.`,
  },
  'serial-elsewhere': {
    title: 'ID used in another job',
    source: 'A device belongs to one system',
    says: ({ serial, job }) => `ID ${serial} is also used in the job “${job}”.`,
  },
  'serial-twice': {
    title: 'two devices with one ID',
    source: 'An ID is one transmitter: what two devices are known by belongs to one of them, or to neither',
    says: ({ device, first, serial }) =>
      `${at(device)} is known by ID ${serial}, and so is ${at(first)}: one of them is never heard. Take it out at Enrol and learn it by its own transmission.`,
  },
  'sticker-twice': {
    title: 'two devices with one sticker',
    source: 'No two transmitters of a family bear one ID',
    says: ({ device, first, sticker }) =>
      `The sticker ${sticker} is noted for ${at(device)} and for ${at(first)}: read both again.`,
  },
  'two-readings': {
    title: 'two IDs for one device without a sticker',
    source: 'Compare the ID with the sticker every time; without one, the same ID twice, tripped alone',
    says: ({ of, serial, other }) =>
      `${of} was enrolled as ID ${other} and later as ID ${serial}, and no sticker is noted: one of the two is another device. Note its sticker, or trip the device alone once more.`,
  },
  'two-serials': {
    title: 'one device with two IDs',
    source: 'A transmitter sends one ID with all of its events',
    says: ({ zone, serial, model, first, other }) =>
      `Zone ${zone} knows ${model} by ID ${serial}, zone ${first} by ${other}: one of the two is another device. Compare both with the sticker, and learn the wrong one again.`,
  },
  'replaced-beside': {
    title: 'replaced device that the panel still knows',
    source: 'What was taken down is taken out of the panel, or its silence is a fault for ever',
    says: ({ model, room, successor }) =>
      `${model}${here(room)} is to be replaced and the panel still knows it, beside ${successor} in its place: take it out at Enrol, or it shows as lost and holds its zones.`,
  },
}

function at({ model, room, position }: IdentityFacts['serial-twice']['device']): string {
  return `the ${model}${here(room)}${position === '' ? '' : ` (${position})`}`
}
