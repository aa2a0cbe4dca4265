import { expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanHouse, type SmallJob } from '../testing/small-job.ts'
import { contentsOf } from './contents.ts'
import { houseOf } from './house.ts'
import { placesOf } from './places.ts'

/** Rooms with the models on their openings and elsewhere in them; last what is in no described room. */
function inside(job: SmallJob): Readonly<Record<string, readonly unknown[]>> {
  const system = systemOf(job.doc, catalogue)
  const house = houseOf(job.doc, system, defaultHouseRules.figures)
  const { rooms, elsewhere } = contentsOf(house, system.devices, placesOf(job.doc, system, defaultHouseRules))
  const ids = (items: readonly { readonly device: { readonly id: string } }[]) =>
    items.map(({ device }) => device.id.replace('device:', ''))
  const told = Object.fromEntries(
    house.rooms.map((room) => {
      const here = rooms.get(room.id)
      return [
        room.name,
        [
          ...(here?.openings.map(({ name, guards }) => [name, ...ids(guards)]) ?? []),
          ...ids(here?.devices ?? []),
        ],
      ]
    }),
  )
  return { ...told, elsewhere: ids(elsewhere) }
}

it('puts what guards an opening on it, and everything else into its room', () => {
  const job = cleanHouse()
    .room('shed', {})
    .opening('shed door', 'shed')
    .add('on-door', 'sill-8', { room: 'shed', position: 'door' })
    .add('eye', 'watcher-8', { room: 'Shed ', position: 'corner' })
    .add('lost', 'watcher-8', { room: 'barn' })
    .add('carried', 'watcher-8', { room: '' })
  const found = inside(job)
  expect(found.shed).toEqual([['shed door', 'on-door'], 'eye'])
  expect(found.elsewhere).toEqual(expect.arrayContaining(['lost', 'carried']))
})

it('leaves a motion that sees a leaf in its room', () => {
  const job = cleanHouse().add('eye', 'watcher-8', { room: 'porch' })
  job.sees('eye', { opening: 'front door' })
  expect(inside(job).porch).toContain('eye')
})
