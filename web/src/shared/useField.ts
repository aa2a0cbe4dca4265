import { computed, ref, type ComputedRef, type Ref } from 'vue'
import { fieldProblems, typeOfId, type RecordType } from '#core'
import { useJob } from '../store/job-store.ts'

/** A number as typed, with comma or point; nothing typed is none, and what is no number is kept to be refused by its schema. */
export function readNumber(typed: string): number | string | null {
  const text = typed.trim().replace(',', '.')
  if (text === '') return null
  return Number.isNaN(Number(text)) ? text : Number(text)
}

/** A field being edited. */
export interface Field<T> {
  /** What stands there now. */
  readonly value: ComputedRef<T>
  /** Why the last value was not taken; empty when it was. */
  readonly error: Ref<string>
  /** Remembers what the person saw when they began; a colleague's change in between then shows as a conflict. */
  begin(): void
  /** Checks the value and makes one edit of it. */
  commit(to: T): boolean
}

/** One field of one record as a form control needs it: shown, checked by its schema, and set by one edit. */
export function useField<T>(id: () => string, field: () => string, kind: () => string): Field<T> {
  const job = useJob()
  const error = ref('')
  let seen: { value: unknown } | null = null
  const value = computed(
    () => (job.doc.records[id()] as unknown as Record<string, unknown> | undefined)?.[field()] as T,
  )
  return {
    value,
    error,
    begin() {
      seen = { value: value.value }
    },
    commit(to) {
      const from = seen ? seen.value : value.value
      seen = null
      const problems = fieldProblems({ type: typeOfId(id()) as RecordType, field: field() }, to)
      error.value = problems.map((problem) => problem.message).join('; ')
      if (problems.length > 0) return false
      if (Object.is(from, to)) return true
      return job.set(kind(), id(), field(), from, to)
    },
  }
}
