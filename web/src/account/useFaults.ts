import { ref } from 'vue'
import { ApiError } from '../line/api.ts'

/** Does work that the server may refuse: what is wrong stands at its field, the rest in one sentence. */
export function useFaults() {
  const error = ref('')
  const faults = ref<Record<string, string>>({})
  const busy = ref(false)

  /** Does the work and says whether it was done. */
  async function run(work: () => Promise<unknown>): Promise<boolean> {
    error.value = ''
    faults.value = {}
    busy.value = true
    try {
      await work()
      return true
    } catch (thrown) {
      error.value = thrown instanceof Error ? thrown.message : String(thrown)
      if (thrown instanceof ApiError)
        faults.value = Object.fromEntries(thrown.problems.map((problem) => [problem.path, problem.message]))
      return false
    } finally {
      busy.value = false
    }
  }

  return { error, faults, busy, run }
}
