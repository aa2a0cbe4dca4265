import { pinOps, type Catalogue, type JobDocument } from '#core'
import { Draft } from './draft.ts'

/** Fennel Bank: a finished bungalow in North America, proved yesterday; README.md says what it shows. */
export function fennelBank(catalogue: Catalogue): JobDocument {
  const job = new Draft(catalogue, {
    name: 'Fennel Bank',
    address: '12 Fennel Bank, Corrigan',
    region: 'north-america',
    kind: 'new',
    monitored: true,
    grade: 1,
    slowest: 'slow',
    petKg: null,
    wishes: 'One storey, one everyday door. The owner walks with a stick.',
    panel: 'panel/morrow-60',
    radioFirmware: null,
    entry1: 30,
    entry2: 30,
    exit: 60,
    abortWindow: 30,
    airSeed: 92,
    airStartedAt: null,
  })
  job.apply(pinOps(job.doc, catalogue, ['receiver/morrow-radio-module']))
  job.put(
    { id: 'user:ada', type: 'user', name: 'Ada Fennimore', order: 1 },
    {
      id: 'receiver:module',
      type: 'receiver',
      model: 'receiver/morrow-radio-module',
      room: 'Utility',
      encryptedOnly: false,
      order: 1,
    },
  )
  return job.doc
}
