/* For whoever told their system that they want little motion: the style sheet stills what moves by style, this what moves by script. */

/** Vuetify's defaults for this: dialogs and menus are there at once. None where nobody asked for less motion. */
export function stillDefaults(): Readonly<Record<string, { readonly transition: false }>> {
  if (!matchMedia('(prefers-reduced-motion: reduce)').matches) return {}
  return { VDialog: { transition: false }, VMenu: { transition: false } }
}
