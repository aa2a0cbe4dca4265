/** One step of a sheet: what is keyed, what the display should then show, and what it means. */
export interface SheetStep {
  readonly keys: string
  readonly shows: string
  /** The field in plain words. */
  readonly field: string
  /** The value in plain words, with both numbers where the panel stores units. */
  readonly meaning: string
  readonly note: string
  /** True where the plan has nothing to key yet: it is owed. */
  readonly open: boolean
}

/** Steps that belong together, under a title. */
export interface SheetSection {
  readonly title: string
  readonly steps: readonly SheetStep[]
}

/** Fills a panel's own text for a step; what the plan leaves open prints as a line to write on. */
export function makeStep(opts: {
  step: { readonly keys: string; readonly shows: string; readonly note: string }
  fill: Readonly<Record<string, string>>
  field: string
  meaning: string
  open?: boolean
  /** Said behind the step's own note. */
  note?: string
}): SheetStep {
  const put = (text: string): string =>
    text.replace(/\{([a-z]+)\}/g, (_whole, key: string) => opts.fill[key] ?? '______')
  return {
    keys: put(opts.step.keys),
    shows: put(opts.step.shows),
    field: opts.field,
    meaning: opts.meaning,
    note: [opts.step.note, opts.note ?? ''].filter((part) => part !== '').join(' '),
    open: opts.open ?? false,
  }
}
