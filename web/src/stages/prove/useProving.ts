import { v4 as uuid } from 'uuid'
import {
  alsoShows,
  proofRecord,
  recordProblems,
  type Op,
  type ProofItem,
  type ProofStop,
  type TestResult,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { proofTitle } from './words.ts'

/** What one observation came to. */
interface Observed {
  readonly outcome: TestResult['outcome']
  readonly reading: number | null
  readonly note: string
  readonly method: string
}

/** Writes results of proofs down, with what the same observation shows besides. */
export function useProving() {
  const job = useJob()

  /** Proofs of a device that those seen show by themselves: an armed trip shows that trips arrive. */
  function implied(entry: ProofStop, seen: readonly ProofItem[]): readonly ProofItem[] {
    return entry.items.filter(
      (other) =>
        seen.some((one) => one.subject === other.subject && alsoShows[one.kind]?.includes(other.kind)) &&
        other.state !== 'pass' &&
        other.waits === '',
    )
  }

  /** The results that one observation of `of` gives; each its own record. */
  function resultsOf(of: ProofItem, items: readonly ProofItem[], observed: Observed): TestResult[] {
    const at = new Date().toISOString()
    return items.map((item) =>
      proofRecord({ doc: job.doc, catalogue: job.catalogue }, item, {
        made: { id: `test:${uuid()}`, who: job.me, at },
        result: {
          ...observed,
          method: item.kind === of.kind ? observed.method : `seen at ${proofTitle(of)}`.slice(0, 80),
        },
      }),
    )
  }

  /** Records results, with what the plan learns of them; what is wrong with them, in words, or the empty text. */
  function write(results: readonly TestResult[], ops: readonly Op[] = []): string {
    const fault = results
      .flatMap((result) => recordProblems(result))
      .map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`)
      .join('; ')
    if (fault === '')
      job.edit('prove.record', [...results.map((result): Op => ({ op: 'add', record: result })), ...ops])
    return fault
  }

  return { implied, resultsOf, write }
}
