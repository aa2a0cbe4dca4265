import type { EntityManager } from 'typeorm'
import { z } from 'zod'
import {
  Catalogue,
  comparePack,
  keyWords,
  PACK_FORMAT,
  PACK_LIMIT,
  packJsonSchema,
  price as priceShape,
  pricedEntry,
  readPack,
  signatureOf,
  standingsOf,
  takeChoices,
  taken,
  withNeeded,
  writePack,
  writtenOf,
  type KeptEntry,
  type Price,
  type Problem,
  type TakeChoice,
} from '#core'
import * as wire from '#wire'
import { newSigningKey, signatureState, signerOf } from '../auth/signing.ts'
import type { CatalogueStore, Offering } from '../db/catalogue.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { FileAnswer, route, type Route } from './route.ts'

const packBody = z.object({ pack: z.unknown() })

/** Routes that bring catalogue packs in and out. */
export function packRoutes(store: Store, clock: () => Date = () => new Date()): Route[] {
  const keyOf = (firmId: string) => store.keysOf(firmId).signing(newSigningKey)
  return [
    route({
      method: 'get',
      path: '/api/catalogue/pack',
      summary:
        'The entries offered for real work, with what they need, as one catalogue pack that nobody signed',
      role: 'viewer',
      file: 'application/json',
      handle: async ({ who }) =>
        packFile(`Catalogue of ${who.firmName}`, await shared(store, who.firmId, null)),
    }),
    route({
      method: 'post',
      path: '/api/catalogue/pack/write',
      summary:
        'Chosen entries with what they need, or all that is offered for real work, as a pack signed by the firm',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 512,
      body: z.object({
        title: z.string().trim().min(1, 'must say what the pack is, in 1 to 120 characters').max(120),
        ids: z.array(z.string().max(80)).min(1, 'must name at least 1 entry').max(5000).nullable(),
      }),
      file: 'application/json',
      handle: async ({ who, body }) => {
        const entries = await shared(store, who.firmId, body.ids)
        return packFile(body.title, entries, signerOf(await keyOf(who.firmId), who.firmName))
      },
    }),
    route({
      method: 'get',
      path: '/api/catalogue/key',
      summary: 'The words of the key by which the firm signs packs',
      role: 'viewer',
      answer: wire.packKeyAnswer,
      handle: async ({ who }) => ({ words: keyWords((await keyOf(who.firmId)).public) }),
    }),
    route({
      method: 'post',
      path: '/api/catalogue/pack/signature',
      summary: 'Whether a pack is as it was when it was signed, and by whom',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 6 * 1024,
      body: packBody,
      answer: wire.packSignatureAnswer,
      handle: async ({ who, body }) => {
        const signature = signatureOf(body.pack)
        return {
          state: signatureState(body.pack),
          by: signature?.by ?? null,
          words: signature ? keyWords(signature.key) : null,
          own: signature?.key === (await keyOf(who.firmId)).public,
        }
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/pack',
      summary: 'Take a catalogue pack in: all of it, or by choice where an entry is there with other content',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 6 * 1024,
      body: packBody.extend({
        /** What is done with each entry that is there with other content, by id; without it theirs are taken. */
        choices: z.record(z.string().max(80), z.enum(takeChoices)).optional(),
      }),
      answer: wire.packAnswer,
      handle: async ({ who, body: { pack, choices } }) => {
        if (Buffer.byteLength(JSON.stringify(pack ?? null)) > PACK_LIMIT)
          throw new AppError(
            'TOO_LARGE',
            `A catalogue pack may have at most ${PACK_LIMIT / 1e6} MB. Split it; nothing was changed.`,
          )
        if (signatureState(pack) === 'broken') throw refused([CHANGED])
        const catalogue = store.catalogueOf(who.firmId)
        const by = who.name
        return catalogue.alone((manager) => takeIn(catalogue, { pack, choices, by, at: clock() }, manager))
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/prices',
      summary: 'Say what devices cost: each becomes the next version of its entry, all of them or none',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 1024,
      body: z.object({
        prices: z
          .array(
            z.object({
              id: z.string().regex(/^device\/[a-z0-9-]{1,60}$/, 'must be a device'),
              /** The hash of the entry that was looked at. */
              hash: z.string().regex(/^[0-9a-f]{64}$/, 'must be a hash'),
              price: priceShape.nullable(),
            }),
          )
          .min(1, 'must have at least 1 price')
          .max(5000),
      }),
      answer: z.object({ changed: z.number().int() }),
      handle: async ({ who, body }) => {
        const catalogue = store.catalogueOf(who.firmId)
        const offering = { how: 'prices', by: who.name, at: clock(), why: '' } as const
        return catalogue.alone((manager) => takePrices(catalogue, { ...body, offering }, manager))
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/devices',
      summary: 'Publish devices that were read from a list: new ones and next versions, all of them or none',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 6 * 1024,
      body: z.object({
        /** What the list is called. */
        list: z.string().trim().min(1, 'must be the name of the list').max(120),
        devices: z
          .array(
            z.object({
              /** The hash of the entry that it corrects; null for a new one. */
              hash: z
                .string()
                .regex(/^[0-9a-f]{64}$/, 'must be a hash')
                .nullable(),
              entry: z.unknown(),
            }),
          )
          .min(1, 'must have at least 1 device')
          .max(500),
      }),
      answer: z.object({ new: z.number().int(), changed: z.number().int() }),
      handle: async ({ who, body: { list, devices } }) => {
        const catalogue = store.catalogueOf(who.firmId)
        const offering = { how: 'list', by: who.name, at: clock(), why: list } as const
        return catalogue.alone((manager) => takeDevices(catalogue, { devices, offering }, manager))
      },
    }),
    route({
      method: 'get',
      path: '/api/catalogue/entries',
      summary: 'Kept entries of this firm by their hashes: those that a job pins, offered or not',
      role: 'viewer',
      query: z.object({
        hashes: z
          .string()
          .regex(/^[0-9a-f]{64}(,[0-9a-f]{64}){0,99}$/, 'must be 1 to 100 hashes, with commas'),
      }),
      answer: wire.entriesAnswer,
      handle: async ({ who, query }) => ({
        entries: (await store.catalogueOf(who.firmId).byHashes(query.hashes.split(','))).map(writtenOf),
      }),
    }),
    route({
      method: 'get',
      path: '/api/catalogue/schema.json',
      summary: 'The JSON Schema of a catalogue pack',
      role: 'public',
      file: 'application/schema+json',
      handle: async () => packJsonSchema(),
    }),
  ]
}

const CHANGED: Problem = {
  path: 'signature',
  message: 'does not fit what the pack holds: it was changed after it was signed, or another key signed it',
}

const refused = (problems: readonly Problem[]): AppError =>
  new AppError('INVALID', 'This pack was not taken; nothing was changed.', problems.slice(0, 100))

function packFile(
  title: string,
  entries: readonly KeptEntry[],
  sign: Parameters<typeof writePack>[2] = null,
): FileAnswer {
  return new FileAnswer('catalogue-pack.json', 'application/json', writePack(title, entries, sign))
}

/** These entries with all that they point at; without ids all that is offered for real work. What is for practice comes only where it is needed. */
async function shared(
  store: Store,
  firmId: string,
  ids: readonly string[] | null,
): Promise<readonly KeptEntry[]> {
  const catalogue = store.catalogueOf(firmId)
  const current = new Catalogue(await catalogue.current())
  const problems = (ids ?? []).flatMap((id, index): Problem[] =>
    current.has(id) ? [] : [{ path: `ids.${index}`, message: `is not in this catalogue: ${id}` }],
  )
  if (problems.length > 0) throw new AppError('INVALID', 'The pack was not written.', problems.slice(0, 100))
  const standings = standingsOf(await catalogue.acts())
  const offered = current.entries.filter(({ id }) => (standings.get(id)?.state ?? 'offered') === 'offered')
  const wanted = new Set(withNeeded(current, ids ?? offered.map(({ id }) => id)))
  if (wanted.size === 0)
    throw new AppError(
      'CONFLICT',
      'Nothing is offered for real work yet: there is nothing to write into a pack.',
    )
  return current.kept.filter(({ entry }) => wanted.has(entry.id))
}

/** Takes a pack in by these choices; what is refused leaves all as it was. */
async function takeIn(
  catalogue: CatalogueStore,
  {
    pack,
    choices,
    by,
    at,
  }: {
    readonly pack: unknown
    readonly choices: Readonly<Record<string, TakeChoice>> | undefined
    readonly by: string
    readonly at: Date
  },
  manager: EntityManager,
): Promise<z.infer<typeof wire.packAnswer>> {
  const kept = await catalogue.current(manager)
  const entries = kept.map(({ entry }) => entry)
  const read = readPack(pack, entries)
  if (!read.ok) throw refused(read.problems)
  const current = new Catalogue(kept)
  const changes = comparePack(read.entries, current)
  const theirs = Object.fromEntries(changes.map(({ entry }) => [entry.entry.id, 'theirs' as const]))
  const signed = signatureOf(pack)
  const mark = signed?.by ?? 'pack'
  const taking = taken(changes, choices ?? theirs, { ids: new Set(entries.map(({ id }) => id)), mark })
  if (taking.open.length > 0)
    throw new AppError(
      'CONFLICT',
      'The catalogue was changed since this pack was looked at. Choose it again; nothing was changed.',
      taking.open.slice(0, 100).map((id) => ({
        path: id,
        message: 'is there with other content: theirs, mine or both must be chosen',
      })),
    )
  // What was given another id is read again as it will stand: all of it or nothing.
  const again = readPack(JSON.parse(writePack('again', taking.entries)), entries)
  if (taking.entries.length > 0 && !again.ok) throw refused(again.problems)
  const why = signed ? `signed by ${signed.by}`.slice(0, 300) : 'nobody signed the pack'
  await catalogue.add(taking.entries, { how: 'pack', by, at, why }, manager)
  const came = new Map(
    comparePack(taking.entries, current).map((change) => [change.entry.entry.id, change.state]),
  )
  const count = (state: string): number => [...came.values()].filter((one) => one === state).length
  return {
    new: count('new'),
    changed: count('changed'),
    same: count('same'),
    kept: changes.length - taking.entries.length,
    renamed: [...taking.renamed].map(([from, to]) => ({ from, to })),
  }
}

/** Takes prices of entries that are still as they were looked at. */
async function takePrices(
  catalogue: CatalogueStore,
  {
    prices,
    offering,
  }: {
    readonly prices: readonly { readonly id: string; readonly hash: string; readonly price: Price | null }[]
    readonly offering: Offering
  },
  manager: EntityManager,
): Promise<{ changed: number }> {
  const current = new Map((await catalogue.current(manager)).map((kept) => [kept.entry.id, kept]))
  const problems: Problem[] = []
  const entries = new Map<string, KeptEntry>()
  prices.forEach(({ id, hash, price }, index) => {
    const kept = current.get(id)
    if (entries.has(id)) problems.push({ path: `prices.${index}.id`, message: `stands twice: ${id}` })
    else if (kept?.hash !== hash)
      problems.push({ path: `prices.${index}.hash`, message: `was changed since it was looked at: ${id}` })
    if (kept) entries.set(id, pricedEntry(kept, price))
  })
  if (problems.length > 0)
    throw new AppError(
      'CONFLICT',
      'No price was taken: the catalogue is no longer as the list was compared with it. Choose the list again.',
      problems.slice(0, 100),
    )
  await catalogue.add([...entries.values()], offering, manager)
  return { changed: entries.size }
}

/** Publishes devices of a list, each still as it was looked at or not there yet. */
async function takeDevices(
  catalogue: CatalogueStore,
  {
    devices,
    offering,
  }: {
    readonly devices: readonly { readonly hash: string | null; readonly entry?: unknown }[]
    readonly offering: Offering
  },
  manager: EntityManager,
): Promise<{ new: number; changed: number }> {
  const kept = await catalogue.current(manager)
  const current = new Map(kept.map((one) => [one.entry.id, one.hash]))
  const entries = kept.map(({ entry }) => entry)
  const read = readPack(
    { kapellePack: PACK_FORMAT, title: offering.why, entries: devices.map(({ entry }) => entry) },
    entries,
  )
  if (!read.ok)
    throw new AppError('INVALID', 'No device was taken; nothing was changed.', read.problems.slice(0, 100))
  const problems = read.entries.flatMap(({ entry: { id, kind } }, index): Problem[] => {
    if (kind !== 'device') return [{ path: `devices.${index}.entry`, message: `must be a device: ${id}` }]
    if ((current.get(id) ?? null) === devices[index]?.hash) return []
    return [{ path: `devices.${index}.hash`, message: `was changed since it was looked at: ${id}` }]
  })
  if (problems.length > 0)
    throw new AppError(
      'CONFLICT',
      'No device was taken: the catalogue is no longer as the list was compared with it. Choose the list again.',
      problems.slice(0, 100),
    )
  await catalogue.add(read.entries, offering, manager)
  const fresh = devices.filter(({ hash }) => hash === null).length
  return { new: fresh, changed: devices.length - fresh }
}
