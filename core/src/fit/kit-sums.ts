import type { System } from '../system/system.ts'

/** Batteries of one type over the kit. */
interface BatteryLine {
  /** Null for those whose type nobody states. */
  readonly type: string | null
  readonly count: number
}

/** What a kit needs and costs, as far as the catalogue states it. */
export interface KitSums {
  /** Batteries of every device that is fitted or kept, most first. */
  readonly batteries: readonly BatteryLine[]
  /** The one currency of the job: that of most of its prices. Null where no price is stated. */
  readonly currency: string | null
  /** Prices of the devices to be bought, in that currency. */
  readonly toBuy: number
  /** Prices of the existing devices that are kept: what keeping them saves. */
  readonly saved: number
  /** Devices that are priced in another currency, and so in no sum. */
  readonly elsewhere: number
  /** Devices to be bought for which no price is stated. */
  readonly unpriced: number
}

/** Sums a kit up. An existing device is bought anew only where it is to be replaced; undecided ones count as kept. */
export function kitSums(system: System): KitSums {
  const batteries = new Map<string | null, number>()
  const currency = currencyOf(system)
  let [toBuy, saved, elsewhere, unpriced] = [0, 0, 0, 0]
  for (const { device, model } of system.devices) {
    if (model.batteries && model.batteries.count > 0) {
      const type = model.batteries.type ?? null
      batteries.set(type, (batteries.get(type) ?? 0) + model.batteries.count)
    }
    const kept = device.existing && device.plan !== 'replace'
    const { price } = model
    if (!price) {
      if (!kept) unpriced += 1
      continue
    }
    const each = price.amount / price.pack
    if (price.currency !== currency) elsewhere += 1
    else if (kept) saved += each
    else toBuy += each
  }
  return {
    batteries: [...batteries]
      .map(([type, count]) => ({ type, count }))
      .sort((a, b) => b.count - a.count || ((a.type ?? '') < (b.type ?? '') ? -1 : 1)),
    currency,
    toBuy: cents(toBuy),
    saved: cents(saved),
    elsewhere,
    unpriced,
  }
}

/** What most prices of the kit are stated in; of several the first by name. */
function currencyOf(system: System): string | null {
  const counts = new Map<string, number>()
  for (const { model } of system.devices)
    if (model.price) counts.set(model.price.currency, (counts.get(model.price.currency) ?? 0) + 1)
  const [first] = [...counts].sort(([a, many], [b, more]) => more - many || (a < b ? -1 : 1))
  return first?.[0] ?? null
}

function cents(amount: number): number {
  return Math.round(amount * 100) / 100
}
