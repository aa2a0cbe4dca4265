import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { CLEAN_START, readingsOf, systemOf, type PanelSheet, type SheetLine } from '#core'
import { useJob } from '../../store/job-store.ts'

/** A line of the sheet with the heading that it stands under. */
interface Step {
  readonly part: string
  readonly line: SheetLine
  /** Whether it is the last under its heading. */
  readonly ends: boolean
}

/** Most values of one record. */
const MOST = 400

/**
 * Keying a sheet line by line at the panel. What was keyed is noted heading by heading, by address and value, so that a colleague goes
 * on from there; what the panel keeps only at the end is noted as saved when it stood there.
 */
export function useKeying(sheet: Extract<PanelSheet, { ok: true }>) {
  const job = useJob()
  const { panel } = systemOf(job.doc, job.catalogue)
  const keeping = job.catalogue.get('interface', panel?.interface ?? null)?.keeping
  const steps: readonly Step[] = sheet.parts.flatMap((part) =>
    part.lines.map((line, index) => ({ part: part.title, line, ends: index === part.lines.length - 1 })),
  )

  /** What was keyed since it was last saved, by address, and who did it last. */
  const unsaved = computed(() => {
    const { unsaved: values, last } = readingsOf(job.doc, panel?.id ?? '')
    return { values, last }
  })
  const isKeyed = ({ line }: Step): boolean =>
    line.sets.length > 0 &&
    line.sets.every(({ address, value }) => unsaved.value.values.get(address)?.value === value)

  const lastKeyed = steps.findLastIndex(isKeyed)
  /** Where somebody was before; 0 where nobody was. */
  const resumedAt = lastKeyed < 0 ? 0 : lastKeyed + 1
  const at = ref(resumedAt)
  const step = computed(() => steps[at.value] ?? null)
  const problem = ref('')

  function note(section: string, lines: readonly SheetLine[], saved: boolean): boolean {
    const values = lines
      .filter(({ kind }) => kind !== 'learn')
      .flatMap(({ sets }) => sets.map(({ address, value }) => ({ address, value })))
      // What was read off the display otherwise meanwhile is kept as it stood there, not as it was to be keyed.
      .filter(({ address, value }) => !saved || (unsaved.value.values.get(address)?.value ?? value) === value)
    if (values.length === 0 || !panel) return true
    for (let from = 0; from < values.length; from += MOST)
      if (
        !job.edit('panel.keyed', [
          {
            op: 'add',
            record: {
              id: `held:${uuid()}`,
              type: 'held',
              ...job.fresh(),
              panel: panel.id,
              how: 'keyed',
              saved,
              section: section.slice(0, 90),
              values: values.slice(from, from + MOST),
            },
          },
        ])
      )
        return false
    return true
  }

  /** What ends the readings of before: the panel is as it came, or what was not saved is gone. */
  function ended(how: 'wiped' | 'dropped', section: string): boolean {
    return (
      panel !== null &&
      job.edit(how === 'wiped' ? 'panel.wiped' : 'panel.left', [
        {
          op: 'add',
          record: {
            ...{ id: `held:${uuid()}`, type: 'held', ...job.fresh(), panel: panel.id, how },
            ...{ saved: how === 'wiped', section, values: [] },
          },
        },
      ])
    )
  }

  /** Nothing of what was keyed and not saved is there any more: from the first step again. */
  function again(): void {
    if (ended('dropped', 'Begin again')) at.value = 0
  }

  /** It shows what it should: the next line; what a heading keyed is noted behind its last. */
  function shows(): void {
    const here = step.value
    if (!here) return
    const end = at.value === steps.length - 1
    const lines = sheet.parts.find((part) => part.lines.includes(here.line))?.lines ?? []
    const noted =
      (!here.ends || here.part !== CLEAN_START || ended('wiped', here.part)) &&
      (!here.ends || note(here.part, lines, keeping === 'at-once')) &&
      (!end ||
        keeping === 'at-once' ||
        note(
          here.part,
          steps.map((one) => one.line),
          true,
        ))
    problem.value = noted ? '' : 'This could not be noted: see the message below. Try again.'
    if (noted) at.value += 1
  }

  function goTo(index: number): void {
    at.value = Math.max(0, Math.min(steps.length, index))
  }

  return { steps, step, at, resumedAt, unsaved, problem, keeping, shows, goTo, again }
}
