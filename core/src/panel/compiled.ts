import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Family, Move, PanelInterface, PanelModel, Screen, Target } from '../catalogue/schema.ts'
import type { Memory } from '../memory/memory.ts'
import { valuesOf, type Values } from './forms.ts'

/** A panel's interface made ready to be acted out: forms looked up, walks laid over screens, shipped values spread over numbers. */
export interface Compiled {
  readonly description: PanelInterface
  readonly panel: PanelModel
  /** How the panel comes. */
  readonly factory: Memory
  /** Names of its keys. */
  readonly keys: ReadonlySet<string>
  /** Each screen's walk and place in it. */
  readonly places: ReadonlyMap<string, Place>
  /** Where each address comes from: its template, and the numbers of its pointers. */
  readonly addresses: ReadonlyMap<
    string,
    { readonly template: string; readonly pointers: Readonly<Record<string, number>> }
  >
  /** Values of an address as it is written in the description; null for one without a field. */
  readonly values: (template: string, memory: (address: string) => string) => Values | null
}

/** Where a screen stands in its walk. */
interface Place {
  readonly at: number
  readonly screens: readonly string[]
  readonly after: Target
  readonly before: Target
}

/** A panel's interface as the catalogue describes it, made ready; null where nobody has described it. */
export function interfaceOf(catalogue: Catalogue, panel: PanelModel): Compiled | null {
  const description = catalogue.get('interface', panel.interface ?? null)
  if (!description) return null
  const heard = panel.receivers.flatMap((id) => catalogue.get('receiver', id)?.hears ?? [])
  const families = [...new Set(heard.map(({ family }) => family))]
  return compiled(
    description,
    panel,
    families.flatMap((id) => catalogue.get('family', id) ?? []),
  )
}

/** Makes an interface ready for a panel that has it, and the families that the panel can hear. */
export function compiled(
  description: PanelInterface,
  panel: PanelModel,
  families: readonly Family[],
): Compiled {
  const forms = new Map(
    Object.entries(description.fields).map(([template, { form }]) => [
      template,
      valuesOf(form, { panel, families }),
    ]),
  )
  const places = new Map<string, Place>()
  for (const { screens, after, before } of Object.values(description.walks))
    screens.forEach((name, at) => places.set(name, { at, screens, after, before }))
  return {
    description,
    panel,
    factory: shipped(description),
    addresses: addressesOf(description),
    keys: new Set(description.keys.flat()),
    places,
    values: (template, memory) => forms.get(template)?.(memory) ?? null,
  }
}

/** Every address that a template stands for, with the numbers of its pointers. */
export function spread(
  description: PanelInterface,
  template: string,
): readonly { readonly address: string; readonly pointers: Readonly<Record<string, number>> }[] {
  let all: { address: string; pointers: Readonly<Record<string, number>> }[] = [
    { address: template, pointers: {} },
  ]
  for (const name of pointersIn(template)) {
    const range = description.pointers[name]
    if (!range) return []
    const numbers = numbersIn(range)
    all = all.flatMap(({ address, pointers }) =>
      numbers.map((number) => ({
        address: address.replaceAll(`{${name}}`, String(number)),
        pointers: { ...pointers, [name]: number },
      })),
    )
  }
  return all
}

/** Every number of a pointer. */
export function numbersIn({ from, to }: { readonly from: number; readonly to: number }): number[] {
  return Array.from({ length: to - from + 1 }, (_, index) => from + index)
}

/** Names of the pointers in a template, each once. */
export function pointersIn(template: string): readonly string[] {
  return [...new Set([...template.matchAll(/\{([a-zA-Z0-9-]+)\}/g)].map((match) => match[1] ?? ''))]
}

/** Templates taken apart, text and names by turns: each is filled a million times for one sheet. */
const apart = new Map<string, readonly string[]>()

/** A template with its pointers filled in. */
export function filled(template: string, pointers: Readonly<Record<string, number>>): string {
  if (!template.includes('{')) return template
  let parts = apart.get(template)
  if (!parts) apart.set(template, (parts = template.split(/\{([a-zA-Z0-9-]+)\}/)))
  return parts.reduce(
    (text, part, index) => text + (index % 2 === 0 ? part : String(pointers[part] ?? '?')),
    '',
  )
}

/** A screen of a name that the checker has found to be there; RangeError for one that is not. */
export function screenOf({ description }: Compiled, name: string): Screen {
  const screen = description.screens[name]
  if (!screen) throw new RangeError(`screenOf: ${description.id} has no screen ${name}`)
  return screen
}

/** The moves of a target, in the order in which they are tried. */
export function movesOf(target: Target): readonly Move[] {
  if (typeof target === 'string') return [{ go: target }]
  return Array.isArray(target) ? target : [target]
}

function addressesOf(description: PanelInterface): Compiled['addresses'] {
  return new Map(
    Object.keys(description.fields).flatMap((template) =>
      spread(description, template).map(
        ({ address, pointers }) => [address, { template, pointers }] as const,
      ),
    ),
  )
}

function shipped(description: PanelInterface): Memory {
  const memory = new Map<string, string>()
  for (const [template, { factory }] of Object.entries(description.fields))
    if (factory !== undefined)
      for (const { address } of spread(description, template)) memory.set(address, factory)
  return memory
}
