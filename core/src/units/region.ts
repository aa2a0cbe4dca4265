/** Regions decide bands, units and presets; `own` is typed by the firm. */
export const regions = ['europe', 'north-america', 'own'] as const
/** Where the premises are, as far as presets go. */
export type Region = (typeof regions)[number]

/** What a region is called within a sentence. */
export const regionNames: Readonly<Record<Region, string>> = {
  europe: 'Europe',
  'north-america': 'North America',
  own: 'a region of its own',
}
