import type { Catalogue } from '../catalogue/catalogue.ts'
import { readPack } from '../catalogue/pack.ts'
import type { CatalogueEntry, DeviceModel, PanelInterface } from '../catalogue/schema.ts'
import { keepEntry, nextVersion, PACK_FORMAT, type KeptEntry } from '../catalogue/written.ts'
import type { Problem } from '../units/problem.ts'
import type { Form, KeyedForm, Question } from './form.ts'
import { openPoints, type OpenPoint } from './at-panel/open-points.ts'
import { readPath, sketchAnswers, sketchEntry, sketchOf, toldOps, writtenPath } from './at-panel/sketch.ts'
import { formProblem } from './form-problem.ts'
import { panelBase, panelFromEntry, panelToEntry } from './panel-entry.ts'
import { questionsOf, type DescribedKind } from './questions.ts'
import {
  answersOf,
  answerTo,
  draftInfo,
  draftKernel,
  type Answer,
  type DraftDocument,
  type DraftOp,
} from './records.ts'

/* From answers to an entry, and back. */

type Value = NonNullable<Answer['value']>
type Raw = Record<string, unknown>

/** What a draft comes to. */
export interface DraftEntry {
  /** The entry, once nothing stands against it. */
  readonly kept: KeptEntry | null
  /** What is wrong or missing, by the question it belongs to; an empty path for the whole. */
  readonly problems: readonly Problem[]
  /** Questions that must be answered and are not. */
  readonly missing: readonly string[]
}

/** Says of what an answer holds what an entry would. */
const toEntry: Readonly<Record<string, (value: Value) => unknown>> = {
  ...panelToEntry,
  joined: (value) => ({ apart: value === 'alone' ? null : value }),
  discontinued: (value) => ({ successor: value === 'alone' ? null : value }),
  grade: Number,
  checkInMinutes: (value) => (value === 0 ? null : value),
  hears: (value) => (value as Raw[]).map((row) => ({ fromFirmware: null, ...row })),
}
const fromEntry: Readonly<Record<string, (value: never) => Answer['value']>> = {
  ...panelFromEntry,
  joined: ({ apart }: { apart: string | null }) => apart ?? 'alone',
  discontinued: ({ successor }: { successor: string | null }) => successor ?? 'alone',
  grade: String,
}
/** What has no answer where it is empty. */
const emptyIsNone: readonly string[] = [
  ...['equipmentCodes', 'ways', 'radioFirmware', 'codes', 'equipment.kinds'],
]

/** The entry that a draft comes to, or what it still lacks, by question. */
export function draftEntry(doc: DraftDocument, catalogue: Catalogue): DraftEntry {
  const info = draftInfo(doc)
  const questions = questionsOf(doc, catalogue)
  if (!info || questions.length === 0) return { kept: null, problems: [], missing: [] }
  const answers = answersOf(doc)
  const missing = questions
    .filter(
      ({ path, unless, needed }) =>
        needed && (unless === '' ? answers.get(path) == null : !answers.has(path)),
    )
    .map(({ path }) => path)
  const current =
    info.corrects !== null && catalogue.has(info.corrects) ? catalogue.hash(info.corrects) : null
  if (current !== info.fromHash)
    return {
      kept: null,
      problems: [
        {
          path: '',
          message:
            'was corrected by somebody else meanwhile: begin its correction again from what now stands',
        },
      ],
      missing,
    }
  const odd = questions.flatMap(({ path, form }): Problem[] => {
    const value = answers.get(path)
    const message = value == null ? '' : formProblem(form, value) || goneProblem(form, value, catalogue)
    return message === '' ? [] : [{ path, message }]
  })
  if (missing.length + odd.length > 0) return { kept: null, problems: odd, missing }
  const open = info.kind === 'interface' ? openPoints(sketchOf(doc)) : []
  if (open.length > 0) return { kept: null, problems: open.map(openProblem), missing }
  const raw = rawEntry(doc, catalogue, questions)
  const others = catalogue.entries.filter(({ id }) => id !== raw.id)
  const read = readPack({ kapellePack: PACK_FORMAT, title: 'draft', entries: [raw] }, others)
  if (!read.ok)
    return {
      kept: null,
      problems: read.problems.map((one) => byQuestion(one, String(raw.id), questions)),
      missing,
    }
  const [kept] = read.entries
  return { kept: kept ? keepEntry(kept.entry) : null, problems: [], missing }
}

/** What nobody has told yet at the panel, at the display that it is about. */
function openProblem({ screen, words }: OpenPoint): Problem {
  return { path: writtenPath(`screens.${screen}`), message: `leaves open ${words}` }
}

/** Says of an answer that it names an entry which is not in the catalogue. */
function goneProblem(form: Form | KeyedForm, value: Value, catalogue: Catalogue): string {
  if (form.is === 'one-entry')
    return catalogue.get(form.kind, String(value))
      ? ''
      : `points at ${String(value)}, which is not in the catalogue`
  if (form.is !== 'rows' || !Array.isArray(value)) return ''
  for (const [index, row] of value.entries())
    for (const cell of form.cells) {
      const message = isPlain(row) ? goneProblem(cell.form, row[cell.key] as Value, catalogue) : ''
      if (message !== '') return `${index + 1}: ${message}`
    }
  return ''
}

function rawEntry(doc: DraftDocument, catalogue: Catalogue, questions: readonly Question[]): Raw {
  const info = draftInfo(doc)
  const answers = answersOf(doc)
  const kind = info?.kind as DescribedKind
  const raw: Raw = {
    kind,
    id: idOf(doc, catalogue),
    version: versionOf(doc, catalogue),
    ...bases[kind]({ answers, catalogue, asked: (path) => questions.some((one) => one.path === path) }),
    ...(kind === 'interface' ? sketchEntry(doc) : {}),
  }
  for (const { path, form } of questions) {
    const value = answers.get(path)
    // Of an interface its sketch has said all but its name.
    if (value == null || (kind === 'interface' && !named.includes(path))) continue
    const plain = form.is === 'rows' || form.is === 'group' ? withoutEmpty(value) : value
    const said = toEntry[path]
    put(raw, path, said ? said(plain) : plain)
  }
  const sources = questions.flatMap(({ path, ask }) => {
    const said = answerTo(doc, path)
    return said && said.value !== null && said.source !== '' ? [{ path, asked: ask, from: said.source }] : []
  })
  if (sources.length > 0) raw.sources = sources
  if (kind === 'family') {
    const { bandMHz } = raw as { bandMHz: { from: number; to?: number } }
    bandMHz.to ??= bandMHz.from
  }
  return raw
}

/** What is said of an interface besides its sketch. */
const named: readonly string[] = ['maker', 'name', 'regions']

type Answers = ReadonlyMap<string, Answer['value']>

interface Known {
  readonly answers: Answers
  readonly catalogue: Catalogue
  /** Whether a question is asked at all. */
  readonly asked: (path: string) => boolean
}

/** What is not asked, since it follows from what is. */
const bases: Readonly<Record<DescribedKind, (known: Known) => Raw>> = {
  family: () => ({ placement: {} }),
  receiver: () => ({}),
  interface: () => ({}),
  panel: () => structuredClone(panelBase),
  device({ answers, catalogue, asked }) {
    const family = catalogue.get('family', (answers.get('family') as string | null | undefined) ?? null)
    const of = answers.get('class') as DeviceModel['class']
    const encryption = family ? family.encryption : 'none'
    return {
      ...{ family: null, way: family?.way ?? null, temperatureC: {} },
      ...{ loops: [], slot: of === 'fob' || of === 'keypad' || of === 'siren' ? of : 'none', ways: [] },
      ...{ petKg: null, carried: of === 'fob', magnetGapMm: null, batteries: null },
      ...{ equipmentCodes: [], note: null },
      // What is asked and stays open is left away: a usual case would pass for an answer.
      ...(encryption === undefined || encryption === 'optional' ? {} : { encryption }),
      ...(asked('needsTwoWay') ? {} : { needsTwoWay: false }),
      ...(asked('disarms') ? {} : { disarms: false }),
      ...(asked('checkInMinutes') ? {} : { checkInMinutes: null }),
    }
  },
}

function put(raw: Raw, path: string, value: unknown): void {
  const [head = '', ...rest] = path.split('.')
  if (rest.length === 0) raw[head] = isPlain(raw[head]) && isPlain(value) ? { ...raw[head], ...value } : value
  else {
    if (!isPlain(raw[head])) raw[head] = {}
    put(raw[head] as Raw, rest.join('.'), value)
  }
}

/** Rows, or one, without the cells that were left empty. */
function withoutEmpty(value: Value): Value {
  if (Array.isArray(value)) return value.map((row) => (row === null ? null : withoutEmpty(row)))
  return isPlain(value)
    ? (Object.fromEntries(Object.entries(value).filter(([, cell]) => cell !== null && cell !== '')) as Value)
    : value
}

function isPlain(value: unknown): value is Raw {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** The id that it is published under: that of what it corrects, else one from its name that is free. */
function idOf(doc: DraftDocument, catalogue: Catalogue): string {
  const info = draftInfo(doc)
  if (info?.corrects) return info.corrects
  const name = answersOf(doc).get('name')
  const plain = (typeof name === 'string' ? name : '')
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
  const slug = plain.replace(/^-+|-+$/g, '').slice(0, 50) || 'unnamed'
  const taken = new Set(catalogue.entries.map(({ id }) => id))
  for (let count = 1; ; count += 1) {
    const id = `${info?.kind ?? 'device'}/${slug}${count === 1 ? '' : `-${count}`}`
    if (!taken.has(id)) return id
  }
}

/** One more than that of what it corrects. */
function versionOf(doc: DraftDocument, catalogue: Catalogue): string {
  const corrects = draftInfo(doc)?.corrects ?? null
  const before = catalogue.entries.find(({ id }) => id === corrects)
  return before ? nextVersion(before.version) : '1'
}

/** A problem of the entry, said at the question whose answer it is about. */
function byQuestion({ path, message }: Problem, id: string, questions: readonly Question[]): Problem {
  const field = path.startsWith(`${id}.`) ? path.slice(id.length + 1) : path
  const at = questions
    .filter((one) => {
      const path = readPath(one.path)
      return field === path || field.startsWith(`${path}.`)
    })
    .toSorted((a, b) => b.path.length - a.path.length)[0]
  const rest = at ? field.slice(readPath(at.path).length + 1) : field
  const row = /^(\d+)(?:\.(.+))?$/.exec(rest)
  const where = row
    ? `${String(Number(row[1]) + 1)}${row[2] ? `, ${row[2]}` : ''}: `
    : rest === ''
      ? ''
      : `${rest}: `
  return { path: at?.path ?? '', message: `${where}${message}` }
}

/** What another model does not share with the one that it is like, however alike they are: it is asked. */
const ownAlone: readonly string[] = [
  ...['name', 'equipmentCodes', 'variant.of', 'discontinued', 'price.amount', 'interface'],
]

/** A new draft: of a kind from nothing, like another entry, or to correct one. */
export function beginDraft(
  kind: DescribedKind,
  from: { readonly like: CatalogueEntry | null; readonly corrects: boolean },
  catalogue: Catalogue,
): readonly DraftOp[] {
  const { like, corrects } = from
  const first: DraftOp = {
    op: 'add',
    record: {
      ...{ id: 'draft:main', type: 'draft', kind },
      ...{ like: like && !corrects ? like.id : null, corrects: like && corrects ? like.id : null },
      fromHash: like && corrects ? catalogue.hash(like.id) : null,
    },
  }
  if (!like) return [first]
  const start = draftKernel.applyOps(draftKernel.empty, [first])
  if (!start.ok) throw new RangeError('beginDraft: an empty draft takes its first record')
  let { doc } = start
  const ops: DraftOp[] = [first]
  // Which questions are asked depends on answers: those that are new are answered until none is.
  for (;;) {
    const asked = questionsOf(doc, catalogue).filter(
      ({ path }) => !doc.records[`answer:${path}`] && (corrects || !ownAlone.includes(path)),
    )
    if (asked.length === 0)
      return like.kind === 'interface' ? [...ops, ...atPanelOps(like, { doc, catalogue })] : ops
    const more = asked.map(({ path }): DraftOp => {
      const record = {
        id: `answer:${path}`,
        type: 'answer' as const,
        path,
        value: answerFrom(like, path),
        // Of another model it was read elsewhere.
        source: corrects ? (like.sources?.find((one) => one.path === path)?.from ?? '') : '',
      }
      return { op: 'add', record }
    })
    const next = draftKernel.applyOps(doc, more)
    if (!next.ok) throw new RangeError(`beginDraft: ${like.id} is answered twice`)
    doc = next.doc
    ops.push(...more)
  }
}

/** What was told of an interface at the panel, and of which: what no question of a leaflet answers. */
function atPanelOps(
  like: PanelInterface,
  { doc, catalogue }: { readonly doc: DraftDocument; readonly catalogue: Catalogue },
): readonly DraftOp[] {
  const panel = catalogue.entries.find((one) => one.kind === 'panel' && one.interface === like.id)
  return toldOps(doc, [...sketchAnswers(like), ['panel', panel?.id ?? null]])
}

/** What an entry says to a question; null where it says nothing. */
export function answerFrom(entry: CatalogueEntry, path: string): Answer['value'] {
  return entry.kind === 'interface' && !named.includes(path)
    ? (sketchAnswers(entry).find(([told]) => told === readPath(path))?.[1] ?? null)
    : leafletAnswer(entry, path)
}

function leafletAnswer(entry: CatalogueEntry, path: string): Answer['value'] {
  const value = path.split('.').reduce<unknown>((at, key) => (isPlain(at) ? at[key] : undefined), entry)
  if (path === 'checkInMinutes' && value === null) return 0
  if (value == null || (emptyIsNone.includes(path) && Array.isArray(value) && value.length === 0)) return null
  if (entry.kind === 'family' && path === 'sticker') {
    const { where: _where, ...rule } = entry.sticker
    return rule as Answer['value']
  }
  if (entry.kind === 'family' && path === 'bandMHz.to' && entry.bandMHz.to === entry.bandMHz.from) return null
  return fromEntry[path]?.(value as never) ?? (value as Answer['value'])
}
