/** Regions decide bands, units and presets; `own` is typed by the firm. */
export const regions = ['europe', 'north-america', 'own'] as const
export type Region = (typeof regions)[number]
