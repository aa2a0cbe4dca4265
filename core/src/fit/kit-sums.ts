import type { System } from '../system/system.ts'

/** Batteries of one type over the kit. */
interface BatteryLine {
  readonly type: string
  readonly count: number
}

/** A sum of money in one currency. */
export interface Money {
  readonly currency: string
  readonly amount: number
}

/** What a kit needs and costs, as far as the catalogue states it. */
export interface KitSums {
  /** Batteries of every device that is fitted or kept, most first. */
  readonly batteries: readonly BatteryLine[]
  /** Prices of the devices to be bought, by currency. */
  readonly toBuy: readonly Money[]
  /** Prices of the existing devices that are kept: what keeping them saves. */
  readonly saved: readonly Money[]
  /** Devices to be bought for which no price is stated. */
  readonly unpriced: number
}

/** Sums a kit up. An existing device is bought anew only where it is to be replaced; undecided ones count as kept. */
export function kitSums(system: System): KitSums {
  const batteries = new Map<string, number>()
  const toBuy = new Map<string, number>()
  const saved = new Map<string, number>()
  let unpriced = 0
  for (const { device, model } of system.devices) {
    if (model.batteries && model.batteries.count > 0)
      batteries.set(model.batteries.type, (batteries.get(model.batteries.type) ?? 0) + model.batteries.count)
    const kept = device.existing && device.plan !== 'replace'
    const { price } = model
    if (!price) {
      if (!kept) unpriced += 1
      continue
    }
    const sums = kept ? saved : toBuy
    sums.set(price.currency, (sums.get(price.currency) ?? 0) + price.amount / price.pack)
  }
  const money = (sums: ReadonlyMap<string, number>): Money[] =>
    [...sums].map(([currency, amount]) => ({ currency, amount: Math.round(amount * 100) / 100 }))
  return {
    batteries: [...batteries]
      .map(([type, count]) => ({ type, count }))
      .sort((a, b) => b.count - a.count || (a.type < b.type ? -1 : 1)),
    toBuy: money(toBuy),
    saved: money(saved),
    unpriced,
  }
}
