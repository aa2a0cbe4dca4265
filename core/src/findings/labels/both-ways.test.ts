import type { SmallJob } from '../../testing/small-job.ts'
import { cleanMorrow, cleanTarn } from '../../testing/small-job.ts'
import { but, by, describeBothWays } from '../testing/both-ways.ts'

const called = (job: SmallJob, device: string, label: string, event?: string) =>
  but(job, device, { label }, event)
/** A pendant has no room of its own, and a fob no place at all. */
const carried = () => cleanTarn().set('device:bedroom', { room: '' })
const withFob = () =>
  cleanMorrow().user('Ola').add('keys', 'fourkey', { user: 'user:Ola', room: '' }).number()

describeBothWays('label-missing', [
  { what: 'all say where', job: () => cleanTarn(), says: [] },
  {
    what: 'nothing at all',
    job: () => called(cleanTarn(), 'hall', ''),
    says: ['Zone 03 has no label: it does not say where.'],
    ways: ['Call it “Hall Motion”'],
  },
  {
    what: 'blanks are nothing',
    job: () => called(cleanTarn(), 'hall', '  '),
    says: ['Zone 03 has no label: it does not say where.'],
    ways: ['Call it “Hall Motion”'],
  },
  {
    what: 'a word before the number says where',
    job: () => called(cleanTarn(), 'hall', 'Hall zone 3'),
    says: [],
  },
  {
    what: 'what the firm puts first comes first',
    job: () => called(by(cleanTarn(), { labelOrder: 'thing-place' }), 'hall', 'Zone 3'),
    says: ['Zone 03 has only the label “Zone 3”: it does not say where.'],
    ways: ['Call it “Motion Hall”'],
  },
  {
    what: 'on a panel of letters',
    job: () => called(cleanMorrow(), 'study', 'LINE 8'),
    says: ['Zone 08 has only the label “LINE 8”: it does not say where.'],
    ways: ['Call it “STUDY WINDOW”'],
  },
  {
    what: 'the place of a thing that nobody placed is not made up',
    job: () => called(cleanTarn().set('device:hall', { room: '' }), 'hall', 'Zone 3'),
    says: ['Zone 03 has only the label “Zone 3”: it does not say where.'],
    ways: [],
  },
  {
    what: 'without a panel nobody knows what it can show',
    job: () => called(cleanTarn(), 'hall', 'Zone 3').set('job:main', { panel: null }),
    says: ['Zone 3 has only the label “Zone 3”: it does not say where.'],
    ways: [],
  },
  {
    what: 'a zone that nothing hangs on',
    job: () => called(cleanTarn(), 'hall', 'Zone 3').set('zone:3', { device: null }),
    says: ['Zone 03 has only the label “Zone 3”: it does not say where.'],
    ways: [],
  },
])

describeBothWays('label-bare', [
  { what: 'a place alone', job: () => called(cleanTarn(), 'hall', 'Hall'), says: [] },
  { what: 'a number of a place', job: () => called(cleanTarn(), 'hall', 'Hall 2'), says: [] },
  {
    what: 'a thing and its number',
    job: () => called(cleanTarn(), 'hall', 'PIR 2'),
    says: ['Zone 03 is labelled “PIR 2”: it says what or which, and not where.'],
    ways: ['Call it “Hall Motion”'],
  },
  { what: 'what is carried has no place to say', job: () => called(carried(), 'bedroom', 'Panic'), says: [] },
  {
    what: 'a label of the panel’s own is told once, as such',
    job: () => called(cleanTarn(), 'hall', 'Zone 3'),
    says: [],
  },
])

describeBothWays('label-twice', [
  { what: 'all differ', job: () => cleanMorrow(), says: [] },
  {
    what: 'two that say nothing are told as such',
    job: () => called(called(cleanTarn(), 'hall', ''), 'lounge', ''),
    says: [],
  },
  {
    what: 'capitals and blanks do not tell them apart',
    job: () => called(cleanTarn(), 'lounge', ' hall  motion'),
    says: ['Zone 04 is labelled “ hall  motion” like zone 03.'],
    ways: ['Call it “Lounge Glass”'],
  },
  {
    what: 'alike within what the panel shows',
    job: () =>
      called(called(cleanMorrow(), 'hall', 'UPPER GUEST ROOM EAST'), 'study', 'UPPER GUEST ROOM WEST'),
    says: ['Zone 09 is labelled “UPPER GUEST ROOM EAST” like zone 08 once the panel has cut it to length.'],
    ways: ['Call it “HALL MOTION”'],
  },
  {
    what: 'three alike are told of two',
    job: () => called(called(cleanMorrow(), 'hall', 'FRONT DOOR'), 'study', 'FRONT DOOR'),
    says: [
      'Zone 08 is labelled “FRONT DOOR” like zone 07.',
      'Zone 09 is labelled “FRONT DOOR” like zone 07.',
    ],
    ways: ['Call it “STUDY WINDOW”'],
  },
])

describeBothWays('label-long', [
  {
    what: 'as long as the panel shows',
    job: () => called(cleanMorrow(), 'study', 'UPPER STUDY SIDE'),
    says: [],
  },
  {
    what: 'a sign that it has not',
    job: () => called(cleanMorrow(), 'study', 'STUDY § WINDOW'),
    says: ['“STUDY § WINDOW” of zone 08: the panel cannot show “§”.'],
    ways: ['Use “STUDY WINDOW”'],
  },
  {
    what: 'small letters are shown as capitals',
    job: () => called(cleanMorrow(), 'study', 'Study window'),
    says: [],
  },
  {
    what: 'a word that its list lacks is not left out unsaid',
    job: () => called(cleanTarn(), 'hall', 'Solarium Motion'),
    says: ["“Solarium Motion” of zone 03: “solarium” is not in the panel's word list."],
    ways: ['Call it “Hall Motion”'],
  },
  {
    what: 'nothing to show is told elsewhere',
    job: () => called(cleanMorrow(), 'study', 'A NEW ZONE §').set('zone:2', { label: '' }),
    says: [],
  },
  {
    what: 'without a panel nobody knows',
    job: () => called(cleanMorrow(), 'study', 'BEDROOM WINDOW LEFT').set('job:main', { panel: null }),
    says: [],
  },
  { what: 'the names of a fob’s buttons', job: () => withFob(), says: [] },
])
