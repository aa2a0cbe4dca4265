import type { RouteLocationRaw } from 'vue-router'
import { useRoute, useRouter } from 'vue-router'
import { stageOf, typeOfId, type RecordType, type Stage } from '#core'

/** Places on a stage where records are kept that have no row to be marked. */
const places: Partial<Record<RecordType, string>> = {
  room: '#house-head',
  way: '#house-head',
  opening: '#house-head',
  area: '#areas',
}

/** Where a record, or a field of it, is worked on and marked; `at` names the stage where several show it. Null where none does. */
export function placeOf(id: string, field: string | null, at: Stage | null = null): RouteLocationRaw | null {
  const record = id === 'premises' ? 'room:' : id
  const type = typeOfId(record)
  const stage = type === 'device' && at ? at : (stageOf(record, field) ?? at)
  if (stage === null) return null
  const hash = type ? places[type] : undefined
  return hash ? { name: stage, hash } : { name: stage, query: { show: id } }
}

/** Goes to where a record or a field of it is worked on. */
export function useShow(): (place: RouteLocationRaw) => void {
  const route = useRoute()
  const router = useRouter()
  return (place) => void router.push({ params: route.params, ...(place as object) })
}
