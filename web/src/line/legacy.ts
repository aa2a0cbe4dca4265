import { withMaker, type Edit, type JobRecord } from '#core'
import type { Owner, QueueStore } from './queue.ts'

/**
 * Takes over what a page of an earlier build left unsent: it kept the edits of a job under one key, whoever made them. Only
 * those in this person's name are taken; the others stay for whoever made them.
 */
export async function adoptLegacy(
  storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>,
  queue: QueueStore,
  owner: Owner & { readonly name: string },
): Promise<void> {
  const key = `kapelle.unsent.${owner.job}`
  const left: unknown[] = []
  for (const edit of readEdits(storage.getItem(key))) {
    if (isNamed(edit, owner.name)) await queue.add(owner, withMaker<JobRecord>(edit as Edit))
    else left.push(edit)
  }
  if (left.length > 0) storage.setItem(key, JSON.stringify(left))
  else storage.removeItem(key)
}

function readEdits(text: string | null): readonly unknown[] {
  try {
    const kept: unknown = JSON.parse(text ?? '[]')
    return Array.isArray(kept) ? kept : []
  } catch {
    return []
  }
}

function isNamed(edit: unknown, name: string): boolean {
  return typeof edit === 'object' && edit !== null && 'id' in edit && 'by' in edit && edit.by === name
}
