import type { Opening, Room, Sight } from '../job/records.ts'
import type { House } from './house.ts'
import { innerDoorsBetween } from './passing.ts'

/* Which leaves of entry doors a motion may see. */

/** The leaf of an entry door, as a motion may see it. */
export interface Leaf {
  readonly door: Opening
  /** The inner door between them; null where none is, or where it is said to stand open while the system is set. */
  readonly behind: Opening | null
  /** The inner door between them, whatever is said of it; null where none is. */
  readonly inner: Opening | null
  /** Whether somebody said that the motion sees this leaf. */
  readonly said: boolean
}

/**
 * Every entry door's leaf for a motion in a room. A motion sees neither through glass nor through a closed door, so that a leaf behind an
 * inner door counts only where the motion is said to see into the room of that leaf: the inner door stands open.
 */
export function leavesFrom(house: House, room: Room, sights: readonly Sight[]): readonly Leaf[] {
  return house.doors.map((door) => {
    const [inner = null] = door.room === room.id ? [] : innerDoorsBetween(house, room.id, door.room)
    const isOpen = sights.some((sight) => sight.room === door.room)
    return {
      ...{ door, inner, behind: isOpen ? null : inner },
      said: sights.some((sight) => sight.opening === door.id),
    }
  })
}

/** What a motion is said to see once a leaf is ticked or not: the leaf, and the room behind an inner door that stands open. */
export function sightsWith(leaf: Leaf, seen: boolean): readonly Pick<Sight, 'opening' | 'room'>[] {
  if (!seen) return []
  const { door, inner } = leaf
  return [{ opening: door.id, room: null }, ...(inner ? [{ opening: null, room: door.room }] : [])]
}
