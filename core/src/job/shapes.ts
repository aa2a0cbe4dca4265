/** Which record types changed at a number of the record shapes, each with the hash of its shape then. */
export interface Shape {
  readonly schema: number
  /** What changed, for whoever reads an old journal. */
  readonly says: string
  readonly types: Readonly<Record<string, string>>
}

/**
 * The numbers so far. A shape never changes without a new number: a test holds each type's hash to its latest row here. The
 * hash is the SHA-256 of the JSON Schema of the type, its first sixteen digits. Numbers before 4 kept no hashes: shape 3 grew
 * while it was in force.
 */
export const shapes: readonly Shape[] = [
  { schema: 1, says: 'The first shapes.', types: {} },
  { schema: 2, says: 'Devices of a takeover: what becomes of them, their year and battery.', types: {} },
  {
    schema: 3,
    says: 'Premises in words, placement facts, contact switches, common zones, what a panel couples.',
    types: {},
  },
  {
    schema: 4,
    says: 'Makers as persons; evidence carries a copy of what it names; what is learned is no field any more.',
    types: {
      area: 'eb7bea06d3af4842',
      departure: '372559ba666ca10b',
      device: '27a08ac0f1fe420d',
      'fixed-rules': 'fd10e02246fa22e6',
      heard: 'a6db5ef7b30ced51',
      job: 'd319623dfca39d63',
      opening: 'eaae68a54b2819c8',
      pin: '7152d517acfa1ff0',
      receiver: '221c1229855627e4',
      room: 'e920daef84718491',
      serves: '57373f443a1a6445',
      sight: '8e5d4203db9dd0db',
      signoff: '1a8184a079468765',
      state: 'fc54ae348909717e',
      'state-end': '917a9d3ed66a8208',
      terminal: 'b501b0e1deb34960',
      test: '5d57c86337d2d73b',
      user: '378579dbe72bd293',
      waiver: '79a1467173a16396',
      'waiver-end': 'c2dd1d087a06db98',
      way: '04d13ee20f0c1a1d',
      zone: '11907c406a978ae8',
    },
  },
  {
    schema: 5,
    says: 'Evidence may be told by an owner, who handed it in for somebody who left the firm.',
    types: {
      departure: '4f2b41f41a0f7e2c',
      'fixed-rules': '7ae9da84d880829f',
      heard: '8b35dec74ae5c90c',
      signoff: 'd23fdd44a2d5d016',
      state: '35f912379f4871cf',
      'state-end': 'c4ad825145952588',
      test: 'c78a1c493373432b',
      waiver: '3665236b354a0b62',
      'waiver-end': '75bb704990045783',
    },
  },
  {
    schema: 6,
    says: 'Practice and real jobs; where evidence comes from; proofs of each event, of what was proved; states about something.',
    types: {
      job: '55cf8a8e544708d8',
      device: '00392dead35444a0',
      heard: 'e599709144672cf6',
      test: '2e8921bbc41c8225',
      state: '31739859849a8d6b',
      'state-end': '77269045b07339e1',
      signoff: 'd4c3fc80912562a9',
    },
  },
  {
    schema: 7,
    says: 'A waiver is bound to facts, not to a sentence.',
    types: { waiver: '94d4f85778084154' },
  },
  {
    schema: 8,
    says: 'Listed installations; zones that are left as the panel has them.',
    types: { job: 'ff1346243cde8ed0', zone: '10396fcf7b8014e0' },
  },
  {
    schema: 9,
    says: 'Inputs of a contact that has a reed and terminals; places that are never opened.',
    types: { device: 'a7bd5701fd8b15ac' },
  },
  {
    schema: 10,
    says: 'How the panel is keyed can be pinned; what it was seen to hold is evidence; the order of the sheet is a rule.',
    types: { pin: 'ddc20f59ae823b3b', held: 'edb21fffae2e01ad', 'fixed-rules': '64677af24976bb9b' },
  },
  {
    schema: 11,
    says: 'What ends the readings of a panel: unsaved answers dropped, or all of it brought back to how it came.',
    types: { held: '9fc1e54be1cc10c2' },
  },
  {
    schema: 12,
    says: 'What was tried when a device was not heard is evidence.',
    types: { tried: '5bb68d065a2a5e3e' },
  },
  {
    schema: 13,
    says: 'How a device is mounted and a customer’s timed way in are proofs; links tried at spots are evidence; a pace can be timed.',
    types: { job: '957b6ea685d8be02', test: '6378517a1a213903', spot: 'a547ce10e46d0f91' },
  },
  {
    schema: 14,
    says: 'How the panel came; when a device was moved; that a panel was told to learn is evidence.',
    types: { job: 'ab0f2640c4f7f2dc', device: '9ab694611632d134', told: '906a0b61740c8a4b' },
  },
  {
    schema: 15,
    says: 'A second unset that clears is a proof; mains that are off are a temporary state.',
    types: { test: '07b22ede7c3ef647', state: '171f17bb38f0cac9', 'state-end': '7e58a2c57e3ad051' },
  },
  {
    schema: 16,
    says: 'Coming home is timed at each place where it can be unset, and says at which.',
    types: { test: 'f3cb1fd4f840f630' },
  },
  { schema: 17, says: 'How hot a room gets.', types: { room: '588d0d3719df7b2d' } },
]

/** The hash that a type must have now, from its latest row; null for a type in no row. */
export function shapeHash(type: string): string | null {
  for (let index = shapes.length - 1; index >= 0; index--) {
    const hash = shapes[index]?.types[type]
    if (hash !== undefined) return hash
  }
  return null
}
