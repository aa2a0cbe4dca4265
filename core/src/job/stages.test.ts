import { expect, it } from 'vitest'
import { jobRecords } from './records.ts'
import { stageKeys, stageOf } from './stages.ts'

it.each([
  // The premises are described in the survey, the panel is chosen there; its times and options stand beside the zones.
  ['job:main', 'address', 'survey'],
  ['job:main', 'panel', 'survey'],
  ['job:main', 'unheatedTo', 'zones'],
  ['job:main', 'listed', 'survey'],
  ['job:main', 'pace', 'survey'],
  ['spot:a', null, 'survey'],
  ['departure:a', null, 'survey'],
  ['waiver:a', null, 'handover'],
  ['job:main', 'entry1', 'zones'],
  ['job:main', 'swinger', 'zones'],
  ['job:main', 'airSeed', 'enrol'],
  ['room:hall', null, 'survey'],
  ['device:a', 'batteryAt', 'kit'],
  ['zone:a', 'label', 'zones'],
  ['heard:a', null, 'enrol'],
  ['test:a', null, 'prove'],
  ['signoff:a', null, 'handover'],
  ['nothing:a', null, null],
])('%s %s is worked on at %s', (id, field, stage) => {
  expect(stageOf(id, field)).toBe(stage)
})

it('every declared stage is one of the stages', () => {
  const named = Object.values(jobRecords.types).flatMap(({ stage, fields }) => [
    stage,
    ...Object.values(fields).flatMap((one) => one.stage ?? []),
  ])
  expect(named.filter((stage) => !(stageKeys as readonly string[]).includes(stage))).toEqual([])
})
