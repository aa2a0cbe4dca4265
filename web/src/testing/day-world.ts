import {
  inventId,
  ladderOf,
  recordsOf,
  seededRandom,
  systemOf,
  targetsOf,
  type Catalogue,
  type DeviceModel,
  type Family,
  type JobDocument,
  type LadderRung,
  type Target,
  type Transmission,
} from '#core'

/*
 * A house as it is, whatever the plan says of it: which device has which ID, what is wrong with it, who else sends near by. It is
 * asked by whoever trips something, and remembers what was really seen.
 */

/** A device that hangs there, or lies in its box. */
interface Thing {
  readonly id: string
  readonly serial: string
  readonly model: DeviceModel
  readonly family: Family
  /** What makes it send at last; null where nothing is wrong. */
  readonly cure: LadderRung['rung'] | null
  /** Whether its sticker can be read at all. */
  readonly readable: boolean
  /** Readings at its place, worst first: it is moved until the last. */
  readonly readings: readonly number[]
}

/** What a noted sticker is: right, one sign off, or not noted. */
type Noted = 'right' | 'off' | 'none'

export class DayWorld {
  readonly things = new Map<string, Thing>()
  /** Zones, and devices without zones, whose own event was seen to arrive at the panel from their place. */
  readonly seen = new Set<string>()
  /** What others near by send by: one is nearly the ID of a device of this job. */
  readonly foreign: readonly {
    readonly serial: string
    readonly family: Family
    readonly model: DeviceModel
  }[]
  readonly #random: () => number
  readonly #moved = new Map<string, number>()
  #asleepUntil = new Map<string, number>()
  #sent = 0
  ms = 0

  constructor(
    doc: JobDocument,
    readonly catalogue: Catalogue,
    seed: number,
  ) {
    this.#random = seededRandom(seed)
    const targets = targetsOf(doc, catalogue)
    for (const { device, model, family } of systemOf(doc, catalogue).devices) {
      if (!family) continue
      const mine = targets.find((target) => target.device.id === device.id)
      const rungs = mine
        ? (ladderOf({ doc, catalogue, target: mine, helped: [] })?.rungs ?? []).map(({ rung }) => rung)
        : []
      const cures = (['nearer', 'battery', 'other-way'] as const).filter((rung) => rungs.includes(rung))
      // Where a family states no level there is none to fall below.
      const { best = 5, least = best } = family.placement
      this.things.set(device.id, {
        ...{ id: device.id, model, family, serial: inventId(family, this.#random) },
        cure: this.#chance(0.2) ? this.#pick(cures) : null,
        readable: !this.#chance(0.1),
        readings: this.#chance(0.2) ? [least - 1, best] : [best],
      })
    }
    const families = [...new Map([...this.things.values()].map(({ family }) => [family.id, family])).values()]
    this.foreign = families.flatMap((family) => {
      const twin = this.#pick([...this.things.values()].filter((thing) => thing.family.id === family.id))
      if (!twin) return []
      const any = { serial: inventId(family, this.#random), family, model: twin.model }
      const clone = this.oneOff(twin.serial, family)
      return [any, { ...any, serial: clone }]
    })
  }

  /** The ID that a device really has. */
  truth(device: string): Thing {
    const thing = this.things.get(device)
    if (!thing) throw new RangeError(`truth: no ${device} here`)
    return thing
  }

  /** What the plan has of its sticker. */
  noted(device: string): string | null {
    const { serial, family } = this.truth(device)
    const dice = this.#random()
    const how: Noted = dice < 0.7 ? 'right' : dice < 0.85 ? 'off' : 'none'
    return how === 'none' ? null : how === 'right' ? serial : this.oneOff(serial, family)
  }

  /** Somebody makes a device send its event; everything that the panel hears in that window, in its order. */
  trip(doc: JobDocument, target: Target, alone = false): Transmission[] {
    const thing = this.truth(target.device.id)
    const from = this.ms
    this.ms += 20_000
    const sent: Transmission[] = []
    if (this.#answers(doc, thing, from)) {
      const slot = target.zone === null
      const button = thing.model.loops[0]?.loop ?? null
      const tamper = !slot && thing.model.ways.some(({ sends }) => sends === 'tamper') && this.#chance(0.1)
      sent.push(
        this.#transmission(thing, from + 3_000, {
          cause: slot ? 'button' : tamper ? 'tamper' : 'event',
          loop: slot ? button : tamper ? null : (target.loop?.loop ?? null),
        }),
      )
    }
    if (alone || !this.#chance(0.3)) return sent
    const other = this.#pick(this.foreign)
    if (!other) return sent
    // Before it, at the same time, or only checking in.
    const dice = this.#random()
    const at = from + (dice < 0.4 ? 0 : 2_400)
    const cause = dice > 0.8 ? 'check-in' : 'event'
    const loop = cause === 'event' ? (target.loop?.loop ?? other.model.loops[0]?.loop ?? null) : null
    return [this.#transmission(other, at, { cause, loop }), ...sent]
  }

  /** A reading at the place; each try is a little further aside. */
  reading(device: string): number {
    const { readings } = this.truth(device)
    const tries = this.#moved.get(device) ?? 0
    this.#moved.set(device, tries + 1)
    return readings[Math.min(tries, readings.length - 1)] ?? 0
  }

  /** An ID that differs by one sign, or two where a check digit must fit. */
  oneOff(serial: string, family: Family): string {
    for (let tries = 0; tries < 2_000; tries++) {
      const other = inventId(family, this.#random)
      const at = Math.floor(this.#random() * serial.length)
      const wide = family.sticker.check === 'none' ? 1 : 2
      const id = serial.slice(0, at) + other.slice(at, at + wide) + serial.slice(at + wide)
      const weights = [...id].reduce((sum, sign, index) => sum + Number(sign) * (index % 2 === 0 ? 3 : 1), 0)
      if (id !== serial && (family.sticker.check === 'none' || weights % 10 === 0)) return id
    }
    return inventId(family, this.#random)
  }

  #answers(doc: JobDocument, thing: Thing, at: number): boolean {
    const cured = recordsOf(doc, 'tried').some(
      ({ rung, of }) => rung === thing.cure && of?.device === thing.id,
    )
    if (thing.cure !== null && !cured) return false
    const sleeps = thing.model.class === 'motion' ? (thing.model.sleepsSeconds ?? 0) : 0
    if (at < (this.#asleepUntil.get(thing.id) ?? 0)) return false
    this.#asleepUntil.set(thing.id, at + sleeps * 1000)
    return !(thing.family.way === 'one-way' && this.#chance(0.1))
  }

  #transmission(
    { serial, family, model }: Pick<Thing, 'serial' | 'family' | 'model'>,
    atMs: number,
    what: Pick<Transmission, 'cause' | 'loop'>,
  ): Transmission {
    this.#sent += 1
    return {
      ...{ id: `day-${this.#sent}`, atMs, serial, family: family.id, ...what },
      ...{ encrypted: model.encryption === 'always', level: family.placement.best ?? 5, lowBattery: false },
      deviceClass: model.class,
    }
  }

  #chance(part: number): boolean {
    return this.#random() < part
  }

  #pick<T>(list: readonly T[]): T | null {
    return list[Math.floor(this.#random() * list.length)] ?? null
  }
}
