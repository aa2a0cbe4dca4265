import {
  defaultHouseRules as houseRules,
  inventId,
  judge,
  judgeHeard,
  numberAll,
  rankPanels,
  recordsOf,
  seededRandom,
  solveWhole,
  systemOf,
  targetOf,
  targetsOf,
  type JobDocument,
  type Transmission,
} from '#core'
import { madeJob, take } from './made-job.ts'
import { median, type Measured } from './measure.ts'

const now = '2026-05-04T09:30:00Z'

/** The core's budgets. Each baseline is one JSON round trip of the same document: what merely handling it costs. */
export function coreBenches(): Measured[] {
  return [
    editAndJudge(),
    judgeFromNothing(),
    judgeWhatIsHeard(),
    numberEverything(),
    rankAllPanels(),
    solveKitOf128(),
  ]
}

function editAndJudge(): Measured {
  const { doc, catalogue } = madeJob(64, true)
  const zones = recordsOf(doc, 'zone')
  let current = doc
  judge({ doc: current, catalogue, now, elsewhere: [], houseRules })
  const ms = median(200, (round) => {
    const zone = zones[round % zones.length]
    if (!zone) return
    const from = recordsOf(current, 'zone').find((item) => item.id === zone.id)?.label
    current = take(current, [{ op: 'set', id: zone.id, field: 'label', from, to: `ROOM ${round}` }])
    judge({ doc: current, catalogue, now, elsewhere: [], houseRules })
  })
  return ratio('apply one edit and judge again, 64 zones', ms, baselineOf(doc))
}

function judgeFromNothing(): Measured {
  const { doc, catalogue } = madeJob(512, true)
  const copies = Array.from({ length: 40 }, () => fresh(doc))
  const ms = median(40, (round) => {
    judge({ doc: copies[round] ?? doc, catalogue, now, elsewhere: [], houseRules })
  })
  return ratio(`judge ${recordsOf(doc, 'zone').length} zones from nothing`, ms, baselineOf(doc))
}

/** One of 64 devices sends: whose it is, and what is to be thought of it, beside 500 IDs of the firm's other jobs. */
function judgeWhatIsHeard(): Measured {
  const { doc, catalogue } = madeJob(64, true)
  const family = catalogue.get('family', 'family/dunlin')
  if (!family) throw new Error('no Dunlin')
  const ids = Array.from({ length: 564 }, (_, seed) => inventId(family, seededRandom(seed)))
  const devices = recordsOf(doc, 'device').filter((item) => item.model !== 'device/keyplate-w')
  const stuck = take(
    doc,
    devices.map((device, index) => ({
      ...{ op: 'set', id: device.id, field: 'sticker', from: device.sticker, to: ids[index] ?? null },
    })),
  )
  const elsewhere = ids.slice(64).map((serial) => ({ serial, job: 'another' }))
  const copies = Array.from({ length: 60 }, () => fresh(stuck))
  const ms = median(60, (round) => {
    const copy = copies[round] ?? stuck
    const targets = targetsOf(copy, catalogue)
    const target = targets[round % targets.length]
    if (!target) return
    const heard = {
      ...{ id: 'one', atMs: 0, serial: target.device.sticker ?? '', family: family.id, encrypted: false },
      ...{ cause: 'event', loop: target.loop?.loop ?? null, level: 7, lowBattery: false },
      deviceClass: 'contact',
    } as Transmission
    const mine = targetOf(targets, heard) ?? target
    judgeHeard({ doc: copy, catalogue, target: mine, elsewhere }, heard)
  })
  return result(
    'judge what is heard, 64 zones',
    ms,
    baselineOf(doc),
    50,
    '50 ms, the page’s drawing beside it',
  )
}

function numberEverything(): Measured {
  const { doc, catalogue } = madeJob(128, false)
  const copies = Array.from({ length: 40 }, () => fresh(doc))
  let count = 0
  const ms = median(40, (round) => {
    numberAll(copies[round] ?? doc, catalogue, { newId: () => `zone:n${(count += 1)}`, houseRules })
  })
  return result('number 128 devices', ms, baselineOf(doc), 100, '100 ms')
}

/** Off the main thread when slow: no budget names it, so it is held to half a second. */
function rankAllPanels(): Measured {
  const { doc, catalogue } = madeJob(512, false)
  const copies = Array.from({ length: 10 }, () => fresh(doc))
  const ms = median(10, (round) => {
    rankPanels(systemOf(copies[round] ?? doc, catalogue), catalogue)
  })
  return result('fit 512 devices against every panel', ms, baselineOf(doc), 500, '500 ms')
}

/** Runs in a worker; every eighth device is of another family and must be swapped. */
function solveKitOf128(): Measured {
  const { doc, catalogue } = madeJob(128, false, 8)
  const ms = median(4, () => {
    solveWhole(fresh(doc), catalogue, { newId: () => 'one', costs: houseRules.costs })
  })
  return result('solve a kit of 128 devices', ms, baselineOf(doc), 5000, '5 s, in a worker')
}

/** The same document in new objects, so that nothing kept from before helps. */
function fresh(doc: JobDocument): JobDocument {
  return JSON.parse(JSON.stringify(doc)) as JobDocument
}

function baselineOf(doc: JobDocument): number {
  return median(40, () => void fresh(doc))
}

/** Judging may cost so many times what merely handling the document does. */
const MOST_TIMES = 3

function ratio(name: string, ms: number, baselineMs: number): Measured {
  return result(name, ms, baselineMs, MOST_TIMES * baselineMs, `${MOST_TIMES} ×`)
}

function result(name: string, ms: number, baselineMs: number, most: number, budget: string): Measured {
  return { name, ms, baselineMs, baseline: 'a JSON round trip of the document', budget, within: ms <= most }
}
