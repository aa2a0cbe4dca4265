import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { Catalogue } from '../../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel } from '../../catalogue/schema.ts'
import { blankState } from '../../job/blank.ts'
import { recordsOf } from '../../job/document.ts'
import { evidenceBy } from '../../job/testing/records.ts'
import { catalogue, SmallJob } from '../../testing/small-job.ts'
import type { Finding } from '../finding.ts'

/*
 * Plans as rows of a table: what is planned, in words, on which panels; and what one rule finds there. A row stands for every panel
 * it names, each with devices of its own families.
 */

interface Row {
  readonly rule: string
  /** Panels by their short names; `all` for each of the demo catalogue, `all but …` for the rest. */
  readonly panels: string
  /** Steps of the plan, a semicolon between. */
  readonly plan: string
  /** What is found: subjects by their short names, in the order of the list, or `nothing`. */
  readonly finds: string
  /** What else must be so of the first finding: facts as `name=value`. */
  readonly facts: string
}

/** Reads a table and holds the rules that it names to it. */
export function describePlans(name: string, table: URL): void {
  const rows = Papa.parse<Row>(readFileSync(table, 'utf8').trim(), { header: true, comments: '#' }).data
  const cases = rows.flatMap((row) => panelsOf(row.panels).map((panel) => ({ ...row, panel })))
  const found = ({ rule, panel, plan }: (typeof cases)[number], without?: ReadonlySet<string>): Finding[] =>
    jobOf(panel, plan)
      .findings(without)
      .filter((one) => one.rule === rule)

  describe(name, () => {
    it.each(cases)('$rule, $panel: $plan', (row) => {
      const all = found(row)
      expect(all.map(({ subject }) => shortOf(subject, row.panel, row.plan)).join(' ') || 'nothing').toBe(
        row.finds,
      )
      const facts = Object.entries((all[0]?.facts ?? {}) as Record<string, unknown>)
      for (const fact of listed(row.facts)) {
        const [key = '', value] = fact.split('=')
        expect([key, String(facts.find(([one]) => one === key)?.[1])]).toEqual([key, value])
      }
    })

    it('has a wrong plan and a right one for each rule', () => {
      const rules = [...new Set(rows.map(({ rule }) => rule))]
      const with_ = (rule: string, wrong: boolean) =>
        rows.some((row) => row.rule === rule && (row.finds !== 'nothing') === wrong)
      expect(rules.filter((rule) => !with_(rule, true) || !with_(rule, false))).toEqual([])
    })

    it.each(cases.filter(({ finds }) => finds !== 'nothing'))(
      '$rule, $panel, is missed where it is off: $plan',
      (row) => {
        expect(found(row, new Set([row.rule]))).toEqual([])
      },
    )
  })
}

const short = ({ id }: PanelModel): string => id.slice('panel/'.length)

function panelsOf(text: string): string[] {
  const all = catalogue.all('panel').map(short)
  if (text === 'all') return all
  const names = text.replace(/^all but /, '').split(' ')
  const strange = names.filter((name) => !all.includes(name))
  if (strange.length > 0) throw new RangeError(`no panel ${strange.join(', ')}`)
  return text.startsWith('all but ') ? all.filter((name) => !names.includes(name)) : names
}

const listed = (text: string | undefined): string[] =>
  (text ?? '').split(';').flatMap((one) => one.trim() || [])

/** A record's short name: a zone goes by its device. */
function shortOf(subject: string, panel: string, plan: string): string {
  const zone = recordsOf(jobOf(panel, plan).doc, 'zone').find(({ id }) => id === subject)
  return (zone?.device ?? subject).replace(/^[a-z]+:/, '')
}

/** The plan of a row on one panel. */
function jobOf(panel: string, plan: string): SmallJob {
  const model = catalogue.get('panel', `panel/${panel}`)
  if (!model) throw new RangeError(panel)
  const steps = listed(plan)
  const job = new SmallJob({
    panel: model.id,
    region: model.regions[0] ?? 'europe',
    radioFirmware: model.radioFirmware.at(-1) ?? null,
  })
  for (const id of model.receivers) if (id !== model.builtIn) job.receiver(id.slice('receiver/'.length))
  for (const step of steps) take(job, model, step)
  return job
}

/** `name` and `field=value` of a step; names are single words. */
function take(job: SmallJob, panel: PanelModel, step: string): void {
  const [verb = '', ...words] = step.split(' ')
  const over = Object.fromEntries(
    words.flatMap((word) =>
      word.includes('=')
        ? [[word.slice(0, word.indexOf('=')), valueOf(word.slice(word.indexOf('=') + 1))]]
        : [],
    ),
  ) as Record<string, never>
  const [first = '', second = '', third = ''] = words.filter((word) => !word.includes('='))
  switch (verb) {
    case 'job':
      return void job.set('job:main', over)
    case 'area':
      return void job.area(Number(first), second, over)
    case 'room':
      return void job.room(first, over)
    case 'way':
      return void job.way(first, second, Number(third))
    case 'opening':
      return void job.opening(first, second, over)
    case 'add': {
      // `add smoke attic`: a device of that class in that room, called by its room, or by `as=`.
      const { as: key = second, model, ...rest } = over as Record<string, string>
      const use = model ?? modelOf(panel, first).id.slice('device/'.length)
      return void job.add(key, use, { room: second, ...(rest as object) })
    }
    case 'sees':
      return void job.sees(first, over)
    case 'number':
      return void job.number()
    case 'zone':
      return void zonesNamed(job, first).forEach(({ id }) => job.set(id, over))
    case 'device':
      return void job.set(`device:${first}`, over)
    case 'serves':
      return void job.serves(first, ...words.slice(1).map(Number))
    case 'learn':
      return void zonesNamed(job, first).forEach(({ id }) =>
        job.learn(id, 'id' in over ? over['id'] : '20417733'),
      )
    case 'forget':
      // The panel's entry says nothing of this coupling.
      return forget(job, panel, first)
    case 'asks':
      // No type of the panel hides this question.
      return asks(job, panel, first)
    case 'ships':
      // The panel's interface has the setting so when it comes.
      return ships(job, panel, over)
    case 'remove':
      return void job.apply(
        zonesNamed(job, first).map(({ id }) => ({
          op: 'set',
          id,
          field: 'device',
          from: `device:${first}`,
          to: null,
        })),
      )
    case 'unused':
      return void zonesNamed(job, first).forEach(({ id }) =>
        job.apply([
          {
            op: 'add',
            record: {
              ...{
                ...blankState,
                ...evidenceBy('Idris', '2026-05-04T09:00:00Z'),
                id: `state:${id}`,
                kind: 'zone-not-used',
              },
              ...{ about: id, who: 'Idris', why: 'a test', until: '2026-05-05T09:00:00Z' },
            },
          },
        ]),
      )
    default:
      throw new RangeError(`no step ${step}`)
  }
}

function ships(job: SmallJob, panel: PanelModel, over: Readonly<Record<string, unknown>>): void {
  job.catalogue = new Catalogue(
    catalogue.kept.map((kept) => {
      if (kept.entry.id !== panel.interface || kept.entry.kind !== 'interface') return kept
      const fields = Object.entries(over).map(([address, factory]) => {
        const field = kept.entry.kind === 'interface' ? kept.entry.fields[address] : undefined
        return [address, { ...field, factory }]
      })
      return {
        ...kept,
        entry: { ...kept.entry, fields: { ...kept.entry.fields, ...Object.fromEntries(fields) } },
      }
    }) as typeof catalogue.kept,
  )
}

function asks(job: SmallJob, panel: PanelModel, question: string): void {
  const responseTypes = panel.responseTypes.map((type) => ({
    ...type,
    hides: type.hides.filter((hidden) => hidden !== question),
  }))
  job.catalogue = new Catalogue(
    catalogue.kept.map((kept) =>
      kept.entry.id === panel.id ? { ...kept, entry: { ...panel, responseTypes } } : kept,
    ) as typeof catalogue.kept,
  )
}

function forget(job: SmallJob, panel: PanelModel, coupling: string): void {
  const couplings = { ...panel.couplings, [coupling]: undefined }
  job.catalogue = new Catalogue(
    catalogue.kept.map((kept) =>
      kept.entry.id === panel.id ? { ...kept, entry: { ...panel, couplings } } : kept,
    ) as typeof catalogue.kept,
  )
}

/** Zones of a device: `attic`, or one of its events: `attic/smoke`. */
function zonesNamed(job: SmallJob, name: string): ReturnType<SmallJob['zone']>[] {
  const [device = '', event] = name.split('/')
  const found = recordsOf(job.doc, 'zone').filter(
    (zone) => zone.device === `device:${device}` && (event === undefined || zone.event === event),
  )
  if (found.length === 0) throw new RangeError(`no zone of ${name}`)
  return found
}

/** The first model of a class, or of an event, that the panel takes in its region: by radio, and keypads by wire where it has no others. */
function modelOf(panel: PanelModel, wanted: string): DeviceModel {
  const families = panel.receivers.flatMap(
    (id) => catalogue.get('receiver', id)?.hears.map(({ family }) => family) ?? [],
  )
  const fits = catalogue
    .all('device')
    .filter(
      (model) =>
        (model.family === null ? model.class === 'keypad' : families.includes(model.family)) &&
        model.regions.some((region) => panel.regions.includes(region)),
    )
  const model =
    fits.find((one) => one.class === wanted && one.loops.some(({ event }) => event === wanted)) ??
    fits.find((one) => one.class === wanted && one.family !== null) ??
    fits.find((one) => one.class === wanted) ??
    fits.find((one) => one.loops.some(({ event }) => event === wanted))
  if (!model) throw new RangeError(`${panel.name} hears no ${wanted}`)
  return model
}

function valueOf(text: string): unknown {
  if (text === 'null') return null
  if (text === 'yes' || text === 'no') return text === 'yes'
  if (/^-?\d+(\.\d+)?$/.test(text)) return Number(text)
  return text.replaceAll('_', ' ')
}
