import type { SmallJob } from '../../testing/small-job.ts'

/** A way to make one rule speak: on which clean job, by what, what it says, and whether a fix cures it. */
export interface RuleCase {
  readonly rule: string
  readonly clean: () => SmallJob
  readonly spoil: (job: SmallJob) => SmallJob
  readonly says: string
  readonly fix: string | null
}
