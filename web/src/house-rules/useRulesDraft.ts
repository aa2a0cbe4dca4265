import { computed, ref, shallowRef, type ComputedRef, type Ref } from 'vue'
import { check, houseRulesSchema, sameJson, type HouseRules, type Json, type SchoolKey } from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'

/** A job whose findings the draft would change. */
interface ChangedJob {
  readonly id: string
  readonly name: string
  readonly come: readonly string[]
  readonly go: readonly string[]
}

/** What a preview of the draft found. */
interface RulesOutlook {
  readonly jobs: readonly ChangedJob[]
  readonly judged: number
  readonly more: boolean
}

/** House rules being changed. */
export interface RulesDraft {
  readonly rules: Ref<HouseRules>
  readonly faults: Ref<Readonly<Record<string, string>>>
  readonly changed: ComputedRef<boolean>
  readonly outlook: Ref<RulesOutlook | null>
  readonly trouble: Ref<string>
  reset(): void
  setSchool(key: SchoolKey, choice: string): void
  setNumber(part: 'figures' | 'costs', key: string, text: string): void
  look(): Promise<void>
  save(): Promise<void>
}

/** House rules being changed: nothing is saved before its effect on the firm's jobs was shown. */
export function useRulesDraft(): RulesDraft {
  const session = useSession()
  const rules = shallowRef<HouseRules>(session.houseRules)
  const faults = ref<Record<string, string>>({})
  const outlook = shallowRef<RulesOutlook | null>(null)
  const trouble = ref('')
  const changed = computed(
    () => !sameJson(rules.value as unknown as Json, session.houseRules as unknown as Json),
  )

  function reset(): void {
    rules.value = session.houseRules
    faults.value = {}
    outlook.value = null
    trouble.value = ''
  }

  /** Takes a value in if it is allowed; else says what is, and keeps the value before. */
  function put(path: string, next: unknown): void {
    const result = check(houseRulesSchema, next)
    const { [path]: _gone, ...others } = faults.value
    faults.value = result.ok ? others : { ...others, [path]: result.problems[0]?.message ?? 'is not allowed' }
    if (!result.ok) return
    rules.value = result.value
    outlook.value = null
  }

  function setSchool(key: SchoolKey, choice: string): void {
    put(`schools.${key}`, { ...rules.value, schools: { ...rules.value.schools, [key]: choice } })
  }

  function setNumber(part: 'figures' | 'costs', key: string, text: string): void {
    const plain = text.trim().replace(',', '.')
    const value = plain === '' ? null : Number(plain)
    put(`${part}.${key}`, { ...rules.value, [part]: { ...rules.value[part], [key]: value } })
  }

  async function look(): Promise<void> {
    trouble.value = ''
    try {
      outlook.value = await api<RulesOutlook>('POST', '/api/house-rules/preview', { rules: rules.value })
    } catch (thrown) {
      trouble.value = thrown instanceof ApiError ? thrown.message : String(thrown)
    }
  }

  async function save(): Promise<void> {
    trouble.value = ''
    try {
      await api('PUT', '/api/house-rules', {
        rules: rules.value,
        revision: session.houseRulesRevision,
      })
      await session.loadHouseRules()
      reset()
    } catch (thrown) {
      trouble.value = thrown instanceof ApiError ? thrown.message : String(thrown)
      await session.loadHouseRules()
    }
  }

  return { rules, faults, changed, outlook, trouble, reset, setSchool, setNumber, look, save }
}
