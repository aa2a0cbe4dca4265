import { computed, type ComputedRef } from 'vue'
import { useRouter } from 'vue-router'
import {
  deviceSerial,
  groupId,
  jobRecords,
  printNumber,
  recordsOf,
  ruleOf,
  upperFirst,
  type JobDocument,
  type systemOf,
} from '#core'
import { placeOf, useShow } from '../job/useShow.ts'
import { stages } from '../job/stages.ts'
import { offeredShortcuts } from '../job/useShortcuts.ts'
import { useSession } from '../line/session.ts'
import { useJob } from '../store/job-store.ts'
import type { Findable } from './rank.ts'

/** Something to be found, with what happens when it is taken. */
export interface Hit extends Findable {
  /** What sort of thing it is, in a word. */
  readonly sort: string
  /** Address where it lies, where that shows it without its job being open; null else. */
  readonly path: string | null
  readonly go: () => void
}

/** Fields of the job that nobody looks for: they are set once, when it begins. */
const notSought = new Set(['practice', 'airSeed', 'airStartedAt', 'keysOff'])

/** All that can be found without asking the server: pages, and what is in the open job. */
export function useFindable(): ComputedRef<readonly Hit[]> {
  const router = useRouter()
  const session = useSession()
  const job = useJob()
  const show = useShow()
  const shortcuts = offeredShortcuts()

  const pages = computed((): Hit[] => {
    const owner = session.person?.role === 'owner'
    const all = [
      ['/jobs', 'Jobs', 'all jobs of the firm'],
      ...(session.person?.role === 'viewer' ? [] : [['/jobs/new', 'New job', 'begin a job']]),
      ['/catalogue', 'Catalogue', 'panels, receivers and devices'],
      ['/house-rules', 'House rules', 'schools and figures of the firm'],
      ...(owner ? [['/people', 'People', 'who is in the firm']] : []),
      ...(owner ? [['/service', 'Service and backups', 'the server']] : []),
      ['/account', 'Your account', 'password and devices'],
    ] as [string, string, string][]
    return all.map(([path, title, detail]) => ({
      ...{ key: `page:${path}`, sort: 'page', title, detail, also: '', path },
      go: () => void router.push(path),
    }))
  })

  const acts = computed((): Hit[] =>
    shortcuts.value.flatMap((group) =>
      group.shortcuts.flatMap(({ keys, title, run }) =>
        // Stages are found as such.
        run && !/^[1-9]$/.test(keys)
          ? [
              {
                ...{ key: `act:${group.name} ${title}`, sort: 'act', title, detail: `key ${keys}`, also: '' },
                ...{ path: null, go: run },
              },
            ]
          : [],
      ),
    ),
  )

  const inJob = computed((): Hit[] => {
    const { jobId, system, doc } = job
    if (jobId === null || !system) return []
    const stageHits = stages.map(({ key, name }): Hit => {
      const path = `/jobs/${jobId}/${key}`
      return {
        ...{ key: `stage:${jobId} ${key}`, sort: 'stage', title: name, detail: '', also: '', path },
        go: () => void router.push(path),
      }
    })
    const at =
      (id: string, field: string | null = null) =>
      () => {
        const place = placeOf(id, field)
        if (place) show(place)
      }
    const of = (id: string): Pick<Hit, 'key' | 'path'> => ({ key: `${jobId} ${id}`, path: null })
    return [
      ...stageHits,
      ...zoneHits(doc, system).map((hit) => ({ ...hit, ...of(hit.key), go: at(hit.key) })),
      ...deviceHits(doc, system).map((hit) => ({ ...hit, ...of(hit.key), go: at(hit.key) })),
      ...job.findings
        .filter(({ waived }) => waived === null)
        .map((finding, index): Hit => ({
          ...of(`finding ${finding.rule} ${finding.subject} ${index}`),
          ...{
            sort: 'finding',
            title: upperFirst(ruleOf(finding.rule).title),
            detail: finding.text,
            also: '',
          },
          go: () => {
            const place = placeOf(finding.subject, finding.field, ruleOf(finding.rule).stage)
            if (place) show(place)
          },
        })),
      ...Object.entries(jobRecords.types.job?.fields ?? {})
        .filter(([field]) => !notSought.has(field))
        .map(([field, { words }]): Hit => ({
          ...of(`setting ${field}`),
          ...{ sort: 'setting', title: upperFirst(words), detail: 'of the job', also: '' },
          go: at('job:main', field),
        })),
    ]
  })

  return computed(() => [...inJob.value, ...acts.value, ...pages.value])
}

type System = ReturnType<typeof systemOf>
type Plain = Pick<Hit, 'key' | 'sort' | 'title' | 'detail' | 'also'>

/** An ID as it is read and without its groups, for it is looked for both ways. */
function idWords(system: System, device: string, doc: JobDocument): { shown: string; raw: string } {
  const item = system.byId.get(device)
  const serial = item?.device.sticker ?? deviceSerial(doc, device) ?? ''
  return { shown: serial === '' ? '' : groupId(item?.family ?? null, serial), raw: serial }
}

function zoneHits(doc: JobDocument, system: System): Plain[] {
  return recordsOf(doc, 'zone').map((zone) => {
    const item = zone.device === null ? undefined : system.byId.get(zone.device)
    const number = printNumber(system.panel, zone.number)
    const id = zone.device === null ? { shown: '', raw: '' } : idWords(system, zone.device, doc)
    return {
      ...{ key: zone.id, sort: 'zone', title: `Zone ${number} ${zone.label}`.trim() },
      detail: [item?.model.name, id.shown].filter(Boolean).join(' · '),
      also: `${zone.number} ${id.raw}`,
    }
  })
}

function deviceHits(doc: JobDocument, system: System): Plain[] {
  return system.devices.map(({ device, model, family }) => {
    const id = idWords(system, device.id, doc)
    const place = [device.room, device.position].filter(Boolean).join(', ')
    return {
      ...{ key: device.id, sort: 'device', title: `${model.name}${place === '' ? '' : `, ${place}`}` },
      detail: [family?.name ?? 'wired', id.shown].filter(Boolean).join(' · '),
      also: id.raw,
    }
  })
}
