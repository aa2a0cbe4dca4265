import { computed } from 'vue'
import { fitAll, fitPair, rankPanels, type Fit, type FitReason, type PanelChoice, type Verdict } from '#core'
import { useJob } from '../../store/job-store.ts'

/** The fit of one device with one column. */
export interface GridCell {
  readonly column: string
  readonly verdict: Verdict
  readonly reasons: readonly FitReason[]
  /** Receiver or panel the cell speaks of. */
  readonly name: string
}

/** A receiver or a panel. */
export interface GridColumn {
  readonly key: string
  readonly title: string
  readonly kind: 'receiver' | 'panel'
}

/** A device. */
export interface GridRow {
  readonly device: string
  readonly name: string
  readonly place: string
  readonly fit: Fit | undefined
  readonly cells: readonly GridCell[]
}

/** The fit grid: each device against each receiver that is there and each other panel. */
export function useFitGrid() {
  const job = useJob()
  const choices = computed((): readonly PanelChoice[] =>
    job.system ? rankPanels(job.system, job.catalogue) : [],
  )
  const columns = computed((): readonly GridColumn[] => [
    ...(job.system?.receivers ?? []).map((receiver) => ({
      key: receiver.id,
      title: receiver.model.name,
      kind: 'receiver' as const,
    })),
    ...choices.value
      .filter((choice) => !choice.current)
      .map((choice) => ({ key: choice.panel.id, title: choice.panel.name, kind: 'panel' as const })),
  ])
  const rows = computed((): readonly GridRow[] => {
    const { system } = job
    if (!system) return []
    const now = fitAll(system)
    return system.devices.map(({ device, model, family }) => ({
      device: device.id,
      name: model.name,
      place: [device.room, device.position].filter(Boolean).join(', '),
      fit: now.get(device.id),
      cells: [
        ...system.receivers.map((receiver): GridCell => {
          const pair = family
            ? fitPair({ model, family, receiver, system })
            : { verdict: 'works' as const, reasons: [] }
          return { column: receiver.id, name: receiver.model.name, ...pair }
        }),
        ...choices.value
          .filter((choice) => !choice.current)
          .map((choice): GridCell => {
            const fit = choice.fits.get(device.id)
            return {
              column: choice.panel.id,
              name: choice.panel.name,
              verdict: fit?.verdict ?? 'unknown',
              reasons: fit?.reasons ?? [],
            }
          }),
      ],
    }))
  })
  return { choices, columns, rows }
}
