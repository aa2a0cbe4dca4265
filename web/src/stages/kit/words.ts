import type { DeviceClass, Use } from '#core'

/** Uses as a person chooses them, with the ones that make sense per class first. */
const useItems: readonly { title: string; value: Use }[] = [
  { title: 'not stated', value: 'none' },
  { title: 'everyday door', value: 'entry' },
  { title: 'entry door, far from keypad', value: 'entry-far' },
  { title: 'entry door, not in stay', value: 'entry-not-in-stay' },
  { title: 'window or unused door', value: 'opening' },
  { title: 'inner door on the way in', value: 'inner-way' },
  { title: 'sees an entry door’s leaf', value: 'sees-entry' },
  { title: 'on the way to the keypad', value: 'on-way' },
  { title: 'on the way down at night', value: 'on-way-night' },
  { title: 'off every way', value: 'off-way' },
  { title: 'safe, gun cabinet, hatch: never opened', value: 'always-on' },
]

const byClass: Partial<Record<DeviceClass, readonly Use[]>> = {
  contact: ['none', 'entry', 'entry-far', 'entry-not-in-stay', 'opening', 'inner-way', 'always-on'],
  motion: ['none', 'sees-entry', 'on-way', 'on-way-night', 'off-way'],
  'glass-break': ['none', 'opening'],
  shock: ['none', 'opening', 'always-on'],
}

/** Uses that a class of device can have. */
export function usesOf(deviceClass: DeviceClass): readonly { title: string; value: Use }[] {
  const allowed = byClass[deviceClass] ?? ['none']
  return useItems.filter((item) => allowed.includes(item.value))
}
