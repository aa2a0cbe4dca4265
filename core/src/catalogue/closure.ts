import type { Catalogue } from './catalogue.ts'

/** Entries that these need to be judged: a panel brings its built-in receiver and how it is keyed, a receiver and a device their families. */
export function closureOf(catalogue: Catalogue, ids: readonly (string | null)[]): string[] {
  const found = new Set<string>()
  const visit = (id: string | null): void => {
    if (id === null || found.has(id)) return
    found.add(id)
    visit(catalogue.get('panel', id)?.builtIn ?? null)
    visit(catalogue.get('panel', id)?.interface ?? null)
    for (const heard of catalogue.get('receiver', id)?.hears ?? []) visit(heard.family)
    visit(catalogue.get('device', id)?.family ?? null)
  }
  for (const id of ids) visit(id)
  return [...found].sort()
}
