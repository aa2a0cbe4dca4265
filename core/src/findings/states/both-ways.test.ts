import { evidenceBy } from '../../job/testing/records.ts'
import { blankState } from '../../job/blank.ts'
import { cleanTarn } from '../../testing/small-job.ts'
import { describeBothWays } from '../testing/both-ways.ts'

/* It is half past nine. */
const until = (clock: string) =>
  cleanTarn().apply([
    {
      op: 'add',
      record: {
        ...{ id: 'state:one', ...blankState, kind: 'chime-demo', who: 'Nell', why: 'shown' },
        ...evidenceBy('Nell', '2026-05-04T08:00:00Z'),
        until: `2026-05-04T${clock}:00Z`,
      },
    },
  ])
describeBothWays('state-overdue', [
  { what: 'it runs on', job: () => until('10:00'), says: [] },
  { what: 'it ends now', job: () => until('09:30'), says: [] },
  {
    what: 'it was to end a minute ago',
    job: () => until('09:29'),
    says: ['Chime is on for a demonstration, by Nell, was to end at 2026-05-04 09:29 UTC and is still open.'],
  },
])
