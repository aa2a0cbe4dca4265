import type { PanelInterface, PanelModel, ZoneField } from '../../catalogue/schema.ts'
import { slug } from '../../memory/memory.ts'
import { fieldsAsked, zoneCells } from '../../memory/zone-cells.ts'
import { delayNames, type DelayKey } from '../../response/delays.ts'
import { panelSettings } from '../../response/panel-settings.ts'
import { lowerFirst } from '../../units/words.ts'
import type { FieldKind } from './field-cells.ts'

/* What a panel stores, by meaning: the addresses that a plan of it has words for. */

type Field = PanelInterface['fields'][string]

/** An address that a plan has words for, and what is probably stored there. */
export interface KnownAddress {
  readonly address: string
  readonly title: string
  /** The field as it is usual; what only the panel tells is left empty. */
  readonly usual: { readonly form: { readonly kind: FieldKind }; readonly factory?: string }
}

const usual = (
  form: { readonly kind: FieldKind } & Readonly<Record<string, unknown>>,
): KnownAddress['usual'] => ({
  form,
})
const bit = usual({ kind: 'bit', on: '', off: '' })
const list = usual({ kind: 'list', values: [] })

/** Every address that a plan of a panel has words for. */
export function knownAddresses(panel: PanelModel): readonly KnownAddress[] {
  const areas =
    panel.areas.count > 1 ? Array.from({ length: panel.areas.count }, (_, index) => index + 1) : []
  return [
    ...delayAddresses(panel, 'system', ''),
    ...(panel.couplings?.delaysPerArea ? delayAddresses(panel, 'area.{area}', 'area: ') : []),
    ...settingAddresses(panel),
    ...fieldsAsked(panel).flatMap((field) => zoneAddresses(panel, field, areas)),
    ...(['fob', 'keypad', 'siren'] as const).flatMap((slot): KnownAddress[] =>
      panel.slots[`${slot}s`].count === 0
        ? []
        : [
            {
              address: `${slot}.{${slot}}.serial`,
              title: `${slot}: ID`,
              usual: usual({ kind: 'serial' }),
            },
            ...(slot === 'siren'
              ? []
              : areas.map((area) => ({
                  address: `${slot}.{${slot}}.areas.${area}`,
                  title: `${slot}: in area ${area}`,
                  usual: bit,
                }))),
          ],
    ),
  ]
}

function delayAddresses(panel: PanelModel, group: string, of: string): readonly KnownAddress[] {
  const keys: readonly DelayKey[] = ['entry1', 'entry2', 'exit', 'exitStay', 'abort']
  return keys
    .filter((key) => (key === 'abort' ? group === 'system' && panel.delays.abort !== null : true))
    .filter((key) => key !== 'exitStay' || panel.couplings?.exitInStay === 'own')
    .map((key) => ({
      address: `${group}.${key}`,
      title: `${of}${delayNames[key]}`,
      usual: usual({ kind: 'stated', of: key }),
    }))
}

function settingAddresses(panel: PanelModel): readonly KnownAddress[] {
  const asked = new Set((panel.programming.settings ?? []).map(({ setting }) => setting))
  return panelSettings
    .filter((setting) => asked.has(setting.key))
    .flatMap(({ address, form, key, label, choices }): KnownAddress[] => {
      const title = lowerFirst(label)
      if (form === 'keys')
        return (panel.couplings?.functionKeys ?? []).map((name) => ({
          address: `${address}.${slug(name)}`,
          title: `${name} off`,
          usual: bit,
        }))
      if (key === 'siren' || key === 'swinger')
        return [{ address, title, usual: usual({ kind: 'stated', of: key }) }]
      if (form === 'number') return [{ address, title, usual: usual({ kind: 'number' }) }]
      const isFlag = form === 'flag' || choices(panel).every(({ value }) => typeof value !== 'string')
      return [{ address, title, usual: isFlag ? bit : list }]
    })
}

/** What is usually stored for a field of a zone that is no yes or no. */
const zoneForms: Partial<Readonly<Record<ZoneField, (panel: PanelModel) => KnownAddress['usual']>>> = {
  response: () => usual({ kind: 'of-entry', list: 'responseTypes' }),
  equipmentCode: () => usual({ kind: 'digits' }),
  equipmentKind: () => usual({ kind: 'of-entry', list: 'kinds' }),
  serial: () => usual({ kind: 'serial' }),
  loop: () => usual({ kind: 'number', from: 1, to: 8 }),
  fireGroup: () => usual({ kind: 'number' }),
  label: () => usual({ kind: 'label' }),
  wiring: () => list,
  chime: (panel) =>
    (panel.couplings?.chimeStyles ?? []).length > 0 ? usual({ kind: 'of-entry', list: 'chimeStyles' }) : bit,
}

function zoneAddresses(
  panel: PanelModel,
  field: ZoneField,
  areas: readonly number[],
): readonly KnownAddress[] {
  const { address, words } = zoneCells[field]
  if (address === null) return []
  const at = address.replace('{n}', '{zone}')
  const members =
    field === 'area'
      ? areas.map((area) => [String(area), `in area ${area}`])
      : field === 'inputs'
        ? [
            ['reed', 'reed switch on'],
            ['terminals', 'terminals on'],
            ['end-of-line', 'end of line on'],
          ]
        : field === 'sirens'
          ? [1, 2, 3, 4].map((number) => [String(number), `siren output ${number}`])
          : null
  if (members)
    return members.map(([member = '', title = '']) => ({
      address: `${at}.${member}`,
      title: `zone: ${title}`,
      usual: bit,
    }))
  return [{ address: at, title: `zone: ${words}`, usual: zoneForms[field]?.(panel) ?? bit }]
}

/** The usual field of an address, as it is first offered; null for one that no plan has words for. */
export function usualField(panel: PanelModel, address: string): Field | null {
  return (knownAddresses(panel).find((one) => one.address === address)?.usual as Field | undefined) ?? null
}
