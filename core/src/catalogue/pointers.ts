import type { Catalogue } from './catalogue.ts'
import type { CatalogueEntry } from './schema.ts'

/* Which entries an entry points at: what a pack must have with it, and what is written anew where an id is given anew. */

/** The fields of an entry that point at others, each with the id that it points at. */
export function pointersOf(entry: CatalogueEntry): readonly (readonly [field: string, id: string])[] {
  switch (entry.kind) {
    case 'family':
    case 'interface':
      return []
    case 'receiver':
      return entry.hears.map((item, index) => [`hears.${index}.family`, item.family])
    case 'device':
      return devicePointers(entry)
    case 'panel': {
      const receivers = entry.receivers.map((id, index) => [`receivers.${index}`, id] as const)
      return [
        ...receivers,
        ...(entry.builtIn ? [['builtIn', entry.builtIn] as const] : []),
        ...(entry.interface ? [['interface', entry.interface] as const] : []),
      ]
    }
  }
}

function devicePointers(entry: Extract<CatalogueEntry, { kind: 'device' }>): (readonly [string, string])[] {
  const successor = entry.discontinued?.successor ?? null
  const apart = entry.joined?.apart ?? null
  return [
    ...(entry.family ? [['family', entry.family] as const] : []),
    ...(successor ? [['discontinued.successor', successor] as const] : []),
    ...(apart ? [['joined.apart', apart] as const] : []),
  ]
}

/** These entries and all that they point at, at any remove: a pack of them can be read where nothing else is known. By id. */
export function withNeeded(catalogue: Catalogue, ids: Iterable<string>): string[] {
  const found = new Set<string>()
  const open = [...ids]
  const byId = new Map(catalogue.entries.map((entry) => [entry.id, entry]))
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const entry = byId.get(id)
    if (!entry || found.has(id)) continue
    found.add(id)
    open.push(...pointersOf(entry).map(([, target]) => target))
  }
  return [...found].sort()
}
