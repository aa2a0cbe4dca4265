import { computed, ref, shallowRef } from 'vue'
import { moveZone, printNumber, recordOf, type ZoneMove } from '#core'
import { useJob } from '../../store/job-store.ts'

/** Moving a zone to another place of the rack, by dragging or by keys: each place says at once whether it takes it. */
export function useRackMove() {
  const job = useJob()
  const lifted = ref<string | null>(null)
  const over = ref<number | null>(null)
  const verdict = shallowRef<ZoneMove | null>(null)
  const done = ref('')

  const says = computed(() => {
    const zone = recordOf(job.doc, 'zone', lifted.value)
    if (!zone) return done.value || 'Drag a zone to another place, or press M on it, then arrows and Enter.'
    if (!verdict.value)
      return `Zone ${printNumber(job.system?.panel ?? null, zone.number)} is lifted: go to its new place and press Enter; Escape leaves it.`
    return verdict.value.ok ? verdict.value.says : verdict.value.reason
  })

  function lift(zone: string, event?: DragEvent): void {
    lifted.value = zone
    over.value = null
    verdict.value = null
    done.value = ''
    // Some browsers begin a drag only when it carries something.
    event?.dataTransfer?.setData('text/plain', zone)
    if (event?.dataTransfer) event.dataTransfer.effectAllowed = 'move'
  }

  function look(number: number): void {
    const zone = recordOf(job.doc, 'zone', lifted.value)
    if (!zone || !job.system || over.value === number) return
    over.value = number
    verdict.value = moveZone({ doc: job.doc, system: job.system, rules: job.rules }, zone, number)
  }

  /** Over a place that takes it the pointer shows so; over another the reason stands below. */
  function hover(number: number, event: DragEvent): void {
    look(number)
    if (verdict.value?.ok) event.preventDefault()
  }

  function drop(number: number): void {
    look(number)
    const move = verdict.value
    if (!move?.ok) return
    job.edit('zone.move', move.ops)
    lifted.value = null
    over.value = null
    verdict.value = null
    done.value = `${move.says} It is pinned there.`
  }

  function cancel(): void {
    lifted.value = null
    over.value = null
    verdict.value = null
  }

  return { lifted, over, verdict, says, lift, look, hover, drop, cancel }
}
