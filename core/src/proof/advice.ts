import type { DeviceModel, Family } from '../catalogue/schema.ts'
import { levelWords, quarterWaveCm } from '../fit/spots.ts'
import type { ProofItem } from './owed.ts'
import { proofHow, proofRules } from './table.ts'

/** Cautions that belong to a proof, in the order of harm. */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
export function cautions(item: ProofItem, model: DeviceModel | null): string[] {
  const { kind, alarm, event } = item
  if (kind === 'mount' && (model === null || model.class === 'repeater'))
    return [
      'Mains: wiring and outlets are for those who are licensed; switch off by the breaker and see that it is dead before a cover comes off.',
    ]
  if (kind === 'mount' || kind === 'placement' || kind === 'average')
    return ['On a ladder: have it held, both feet on the rungs, never reach sideways.']
  if (kind === 'mains')
    return ['Mains: switch off by the breaker and see that it is dead; wiring is for those who are licensed.']
  if (kind === 'battery' && model === null)
    return ['Batteries: no metal across the poles; lead-acid ones are heavy and give off gas when charged.']
  if (!proofRules[kind].alarms) return []
  const list: string[] = []
  if (item.silent && (alarm === 'panic' || event === 'panic-silent'))
    list.push('A silent panic test can bring armed police: the station must know before it is pressed.')
  else if (alarm === 'panic' || kind === 'calls')
    list.push('A panic test can bring police: the station must know before it is pressed.')
  if (alarm === 'medical') list.push('A medical call brings an ambulance: the station must know first.')
  if (alarm === 'fire')
    list.push(
      'Test smoke and heat with the maker’s aerosol, warm air or button only, by the fire code’s method; never with a flame. A fire alarm may bring the fire service.',
    )
  if (alarm === 'gas')
    list.push('Test CO with the maker’s test gas or button only; never with exhaust or charcoal.')
  if (
    kind === 'sounds' ||
    (kind !== 'report' && kind !== 'path' && (alarm === 'burglary' || alarm === 'fire'))
  )
    list.push('Siren sound harms hearing: protect your ears, keep people away from it, sound it briefly.')
  return list
}

/** What a proof shows and how it is done without fooling oneself. */
export function hints(item: ProofItem, model: DeviceModel | null, family: Family | null): string[] {
  const how = [...proofHow(item.kind, { event: item.event, class: model?.class ?? 'panel' })]
  if ((item.kind === 'placement' || item.kind === 'average') && family) {
    const { readAt } = family.placement
    how.unshift(
      [
        ...(readAt === undefined ? [] : [`Read it at the ${readAt}.`]),
        aimWords(family),
        `Moving it a quarter wave (${quarterWaveCm(family)} cm) often helps.`,
      ].join(' '),
    )
    if (family.answerMinutes !== undefined && readAt === 'device')
      how.push(
        `It answers for about ${family.answerMinutes} minutes after its cover closes; opening and closing it again starts them anew.`,
      )
  }
  if (item.kind === 'armed' && model?.class === 'motion' && family?.way === 'one-way')
    how.push(
      `One-way motions sleep after a trip: leave the room for ${model.sleepsSeconds === undefined ? 'the sleep time' : `${model.sleepsSeconds} s`} first, else it is inconclusive.`,
    )
  return how
}

/** Which reading is aimed at, as far as its family states it. */
function aimWords(family: Family): string {
  const { best, least } = family.placement
  const aim = best === undefined ? '' : `Aim for ${levelWords(family, best)} or more`
  const below = least === undefined ? '' : `below ${levelWords(family, least)} it does not hold`
  if (aim === '' && below === '')
    return `It is not stated from which reading on a link of ${family.name} holds: note how you judged it.`
  const missing =
    aim === '' ? 'from where on it is good is not stated' : 'below which it no longer holds is not stated'
  const words = [aim, below, ...(aim === '' || below === '' ? [missing] : [])].filter((word) => word !== '')
  return `${words.join('; ').replace(/^./, (first) => first.toUpperCase())}.`
}
