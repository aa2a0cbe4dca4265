import { afterEach, beforeEach, expect, it } from 'vitest'
import { computed, effectScope, shallowRef, type EffectScope } from 'vue'
import {
  enrolmentOf,
  recordsOf,
  type Device,
  type Op,
  type RoundBy,
  type Transmission,
  type Zone,
} from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, smallDoc } from '../../testing/small-doc.ts'
import Candidate from './Candidate.vue'
import TargetList from './TargetList.vue'
import type { Air } from './useAir.ts'
import { useEnrol, type Enrolling } from './useEnrol.ts'

let page: JobPage
const heard = shallowRef<readonly Transmission[]>([])
const air: Air = {
  listening: computed(() => true),
  heard,
  seconds: computed(() => 3),
  start: () => undefined,
  stop: () => undefined,
}
const trip = (id: string, over: Partial<Transmission> = {}): void => {
  const sent: Transmission = {
    id,
    atMs: 0,
    serial: '20417733',
    family: 'family/wren',
    encrypted: false,
    cause: 'event',
    loop: 3,
    level: 4,
    lowBattery: false,
    deviceClass: 'contact',
    ...over,
  }
  heard.value = [sent, ...heard.value]
}
const text = (): string => page.host.textContent
const accept = (): HTMLButtonElement =>
  [...page.host.querySelectorAll('button')].find((button) => button.textContent.startsWith('Accept')) ??
  ((): never => {
    throw new Error('no Accept')
  })()

async function open(
  sticker: string | null,
  others: readonly { serial: string; job: string }[] = [],
  practice = true,
): Promise<void> {
  const doc = after(smallDoc(), [
    { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: sticker },
    { op: 'set', id: 'zone:one', field: 'loop', from: null, to: 3 },
    { op: 'set', id: 'job:main', field: 'practice', from: false, to: practice },
  ])
  page = await openJob(doc, 'installer', others)
  enrol = scope.run(() => useEnrol(air)) ?? null
  await page.show(Candidate, { enrol, listening: true })
}

let scope: EffectScope
let enrol: Enrolling | null = null
beforeEach(() => {
  heard.value = []
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  page.close()
})

it('holds Accept back until a contact was tripped once more', async () => {
  await open('20417733')
  trip('one')
  await page.settle()
  expect(text()).toContain('trip it once more')
  expect(accept().disabled).toBe(true)
  trip('checked in', { cause: 'check-in', loop: null })
  await page.settle()
  expect(accept().disabled).toBe(true)
  trip('two')
  await page.settle()
  expect(text()).toContain('Heard 2 times: confirmed.')
  expect(text()).not.toContain('To make it send')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(page.edits.map((edit) => edit.kind)).toEqual(['enrol.accept'])
  expect(enrolmentOf(page.job.doc, 'zone:one')).toMatchObject({ serial: '20417733', how: 'heard' })
  // Taken out again it is to be learned anew, and both stay on record.
  await page.press('Take it out of the panel')
  expect(enrolmentOf(page.job.doc, 'zone:one')).toBeNull()
  expect(recordsOf(page.job.doc, 'heard').map((record) => record.decision)).toEqual(['accepted', 'released'])
})

it('puts what was heard in an edit of its own, and the loop of the zone behind it', async () => {
  await open('20417733')
  page.job.set('zone.set', 'zone:one', 'loop', 3, 4)
  trip('one')
  trip('two')
  await page.settle()
  await page.press('Accept for zone 07')
  expect(page.edits.map((edit) => edit.kind)).toEqual(['zone.set', 'enrol.accept', 'zone.set'])
  expect(recordsOf(page.job.doc, 'zone')[0]?.loop).toBe(3)
  expect(enrolmentOf(page.job.doc, 'zone:one')?.serial).toBe('20417733')
})

async function typeId(id: string): Promise<void> {
  const entry = page.host.querySelector<HTMLInputElement>('#sticker-entry')
  if (!entry) throw new Error('no entry')
  entry.value = id
  entry.dispatchEvent(new Event('input'))
  entry.form?.dispatchEvent(new Event('submit'))
  await page.settle()
}
/** Looks at what was heard last, as by a press on the list of what is heard. */
async function look(): Promise<void> {
  const [last] = heard.value
  if (last) enrol?.show(last)
  await page.settle()
}
const sticker = () => recordsOf(page.job.doc, 'device')[0]?.sticker
const names = () => [...page.host.querySelectorAll('button')].map((button) => button.textContent.trim())

it('lets a misread sticker be noted anew where it is learned, and only by a press', async () => {
  await open('20417738')
  await typeId('2041 7733')
  expect(text()).toContain('Nearly, but not it.')
  expect(sticker()).toBe('20417738')
  await page.press('The sticker says this: note it instead')
  expect(sticker()).toBe('20417733')
  // What was typed is no hearing.
  expect(enrolmentOf(page.job.doc, 'zone:one')).toBeNull()
})

it('takes a noted sticker back that nobody can read any more, keeps what was refused, and asks for a second trip', async () => {
  await open('20417738')
  trip('one')
  await look()
  await page.press('No sticker can be read on it')
  expect(sticker()).toBeNull()
  expect(recordsOf(page.job.doc, 'heard').map(({ decision, code }) => [decision, code])).toEqual([
    ['refused', 'look-alike'],
  ])
  trip('two', { atMs: 60_000 })
  await look()
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(enrolmentOf(page.job.doc, 'zone:one')?.evidence.code).toBe('no-sticker')
})

it('offers to take the sticker back for nothing but what it refused', async () => {
  await open('20417733')
  trip('one')
  await page.settle()
  expect(names()).not.toContain('No sticker can be read on it')
  // Typed only: nothing was heard that would stand in its place.
  await typeId('2041 7738')
  expect(names()).not.toContain('No sticker can be read on it')
})

it('never compares what was typed with itself', async () => {
  await open(null)
  const entry = page.host.querySelector<HTMLInputElement>('#sticker-entry')
  if (!entry) throw new Error('no entry')
  entry.value = '2041 7733'
  entry.dispatchEvent(new Event('input'))
  entry.form?.dispatchEvent(new Event('submit'))
  await page.settle()
  expect(text()).toContain('Typed, not heard.')
  expect(text()).toContain('no sticker noted')
  expect(text()).not.toContain('This is it')
  await page.press('Accept for zone 07, typed only')
  expect(recordsOf(page.job.doc, 'device')[0]?.sticker).toBeNull()
  expect(text()).not.toContain('the same, character by character')
})

it('asks about an ID that another job of the firm uses, and takes it on the word of whoever knows', async () => {
  await open('20417733', [{ serial: '20417733', job: 'Heron Weir' }])
  trip('one')
  trip('two')
  await page.settle()
  expect(text()).toContain('In another job, too.')
  expect(text()).toContain('2041 7733 is enrolled in the job “Heron Weir”. A sensor that was moved here')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(recordsOf(page.job.doc, 'heard').map((record) => [record.decision, record.code])).toEqual([
    ['accepted', 'elsewhere'],
  ])
})

it('says where an ID is nearly the sticker’s, and does not take it', async () => {
  await open('20417738')
  const entry = page.host.querySelector<HTMLInputElement>('#sticker-entry')
  if (!entry) throw new Error('no entry')
  entry.value = '2041 7788'
  entry.dispatchEvent(new Event('input'))
  entry.form?.dispatchEvent(new Event('submit'))
  await page.settle()
  expect(text()).toContain('Nearly, but not it.')
  expect(text()).toContain('character 7 is 8 here and 3 on the sticker')
  expect(accept().disabled).toBe(true)
  expect(recordsOf(page.job.doc, 'heard').map((record) => [record.decision, record.code])).toEqual([
    ['refused', 'look-alike'],
  ])
})

it('goes without the second transmission for a reason that covers the class, counted, and kept with each', async () => {
  await open('20417733')
  trip('one')
  await page.settle()
  expect(accept().disabled).toBe(true)
  // While something is judged nothing is said of waiting for it.
  expect(text()).not.toContain('To make it send')
  await page.press('Go without a second transmission…')
  const field = (): HTMLInputElement => {
    const input = page.host.querySelector<HTMLInputElement>('.without input')
    if (!input) throw new Error('no field')
    return input
  }
  const say = async (words: string): Promise<void> => {
    field().value = words
    field().dispatchEvent(new Event('input'))
    field().form?.dispatchEvent(new Event('submit'))
    await page.settle()
  }
  await say('x')
  expect(text()).toContain('must be a reason of at least 3 characters')
  expect(accept().disabled).toBe(true)
  await say('baby asleep')
  expect(text()).toContain('Without a second transmission: baby asleep (every contact that is accepted now)')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(recordsOf(page.job.doc, 'heard').map(({ code, reason }) => [code, reason])).toEqual([
    ['unconfirmed', 'Without a second transmission: baby asleep'],
  ])
  // What it covers next says how many went before; asked again, Accept waits again.
  await page.press('Take it out of the panel')
  heard.value = []
  trip('two')
  await page.settle()
  expect(text()).toContain('1 so far')
  await page.press('Ask for it again')
  expect(accept().disabled).toBe(true)
})

/* A real job: it never listens; what it knows is read off the panel's display and the sticker. */

async function enter(label: string, words: string): Promise<void> {
  const input = page.control(label)
  input.value = words
  input.dispatchEvent(new Event('input'))
  input.form?.dispatchEvent(new Event('submit'))
  await page.settle()
}
const evidence = () =>
  recordsOf(page.job.doc, 'heard').map(({ source, cause, shown, times, decision, code }) => ({
    ...{ source, cause, shown, times, decision, code },
  }))

it('takes the last four of the display against the noted sticker, confirmed by a second trip', async () => {
  await open('20417733', [], false)
  await enter('What does the display show?', '773')
  expect(text()).toContain('Type at least the last 4 of the 8 signs')
  await enter('What does the display show?', '7733')
  expect(text()).toContain('This is it.')
  expect(text()).toContain('the last 4 are the same; the others were not seen')
  expect(text()).toContain('House rule: trip it once more to confirm it. Shown once so far.')
  expect(accept().disabled).toBe(true)
  await page.press('Tripped again, it shows the same')
  expect(text()).toContain('Shown 2 times: confirmed.')
  await page.press('Accept for zone 07')
  expect(evidence()).toEqual([
    {
      ...{ source: 'display', cause: 'event', shown: '7733', times: 2, decision: 'accepted' },
      code: 'accept',
    },
  ])
  expect(enrolmentOf(page.job.doc, 'zone:one')).toMatchObject({ serial: '20417733', how: 'heard' })
  expect(text()).toContain('as 2041 7733')
})

it('refuses a display that shows another’s last four, and keeps it on record', async () => {
  await open('20417733', [], false)
  await enter('What does the display show?', '7738')
  expect(text()).toContain('Not this one.')
  expect(text()).toContain('The display shows … 7738, and this sticker ends in 7733.')
  expect(accept().disabled).toBe(true)
  await page.press('Refuse, keep on record')
  expect(evidence().map(({ decision, code }) => [decision, code])).toEqual([['refused', 'foreign']])
})

it('notes a typed sticker as the sticker only when somebody says so, and then compares the display with it', async () => {
  await open(null, [], false)
  await enter('What does the display show?', '7733')
  expect(text()).toContain('No sticker is noted to compare it with')
  await enter('Type or scan the sticker', '2041 7733')
  expect(text()).toContain('Typed, not heard.')
  await page.press('Note it as the sticker')
  expect(recordsOf(page.job.doc, 'device')[0]?.sticker).toBe('20417733')
  expect(recordsOf(page.job.doc, 'heard')).toEqual([])
  await enter('What does the display show?', '7733')
  expect(text()).toContain('This is it.')
})

it('takes an ID without a readable sticker when it was tripped alone twice', async () => {
  await open(null, [], false)
  await enter('What does the display show?', '20417733')
  expect(text()).toContain('No sticker to compare with.')
  expect(text()).toContain('trip it alone once more and see the same ID')
  expect(accept().disabled).toBe(true)
  expect(text()).not.toContain('Go without')
  await enter('What does the display show?', '20417733')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(evidence().map(({ times, code }) => [times, code])).toEqual([[2, 'no-sticker']])
  expect(text()).toContain('its armed trip settles it')
})

it('calls what was only typed so, also once it is accepted', async () => {
  await open('20417733', [], false)
  await enter('Type or scan the sticker', '20417733')
  expect(text()).toContain('The noted sticker’s ID.')
  await page.press('Accept for zone 07')
  expect(evidence().map(({ source, cause, times }) => [source, cause, times])).toEqual([
    ['sticker', 'typed', null],
  ])
  expect(text()).toContain('Typed, not heard, as 2041 7733')
  expect(text()).not.toContain('This is it')
})

it('compares with no sticker that was written in from a typed ID, until it is read off the device', async () => {
  await open('20417733', [], false)
  page.job.set('device.set', 'device:porch', 'stickerUnsure', false, true)
  await page.settle()
  expect(text()).toContain('it compares with itself')
  await enter('What does the display show?', '7733')
  expect(text()).toContain('Read the sticker first.')
  expect(accept().disabled).toBe(true)
  await page.press('Refuse, keep on record')
  await enter('Type or scan the sticker', '20417733')
  await page.press('Note it as the sticker')
  expect(recordsOf(page.job.doc, 'device')[0]).toMatchObject({ sticker: '20417733', stickerUnsure: false })
  await enter('What does the display show?', '7733')
  expect(text()).toContain('This is it.')
})

it('asks for the loop where a tamper was shown, and refuses another loop', async () => {
  await open('20417733', [], false)
  const enrolled = scope.run(() => useEnrol(air))
  expect(enrolled?.display({ signs: '7733', cause: 'tamper', loop: null })).toBe('')
  expect(enrolled?.judgement.value).toMatchObject({ kind: 'ask-loop' })
  expect(enrolled?.display({ signs: '7733', cause: 'event', loop: 4 })).toBe('')
  expect(enrolled?.judgement.value).toMatchObject({ kind: 'refuse', code: 'loop' })
})

it('takes neither of two that sent at once, and says where each belongs', async () => {
  await open('20417733')
  trip('one', { atMs: 1000 })
  trip('two', { atMs: 1400, serial: '99887766' })
  await page.settle()
  expect(text()).toContain('Two at once.')
  expect(text()).toContain(
    '2041 7733 is the Reedling contact in porch; 9988 7766 is on no sticker of this job',
  )
  expect(accept().disabled).toBe(true)
})

it('counts everything of a practice job as practice, whatever was typed', async () => {
  await open('20417733')
  await page.press('Type what the display shows…')
  await enter('What does the display show?', '7733')
  await page.press('Tripped again, it shows the same')
  await page.press('Accept for zone 07')
  expect(evidence().map(({ source }) => source)).toEqual(['practice'])
  await page.press('Take it out of the panel')
  await enter('Type or scan the sticker', '20417733')
  await page.press('Accept for zone 07')
  expect(evidence().map(({ source, cause }) => [source, cause])).toEqual([
    ['practice', 'event'],
    ['practice', 'released'],
    ['practice', 'typed'],
  ])
  expect(enrolmentOf(page.job.doc, 'zone:one')?.how).toBe('typed')
})

it('takes what was heard so long ago that the list of what was heard does not reach back to it', async () => {
  await open('20417733')
  const enrol = scope.run(() => useEnrol(air))
  trip('one')
  await page.settle()
  heard.value = []
  await page.settle()
  expect(enrol?.goWithout('baby asleep')).toBe('')
  enrol?.accept()
  await page.settle()
  expect(page.job.tray).toEqual([])
  expect(evidence().map(({ decision, times }) => [decision, times])).toEqual([['accepted', 1]])
})

it('keeps that no sticker was compared, also of an ID that is nearly another job’s', async () => {
  await open(null, [{ serial: '20417738', job: 'Heron Weir' }], false)
  await enter('What does the display show?', '20417733')
  await enter('What does the display show?', '20417733')
  expect(text()).toContain('It is nearly 2041 7738 of the job “Heron Weir”')
  await page.press('Accept for zone 07')
  expect(evidence().map(({ times, code }) => [times, code])).toEqual([[2, 'no-sticker']])
})

it('shows how the device is handled until something is heard', async () => {
  await open('20417733')
  expect(text()).toContain('To make it send')
  expect(text()).toContain('open the contact (its amber lamp glows while it sends)')
  expect(text()).toContain('on the board, left of the battery. Read it before the cover closes.')
  expect(text()).toMatch(/First insert already sends\s*no/)
  trip('one')
  await page.settle()
  expect(text()).not.toContain('To make it send')
})

it('goes through the devices in the order that was chosen, and says what is left out', async () => {
  const { id, ...porch } = recordsOf(smallDoc(), 'device').find((one) => one.id === 'device:porch') as Device
  const zone = recordsOf(smallDoc(), 'zone').find((one) => one.id === 'zone:one') as Zone
  const more = (key: string, over: Partial<Device>, number: number): Op[] => [
    { op: 'add', record: { ...porch, id: `device:${key}`, order: number, ...over } },
    {
      op: 'add',
      record: { ...zone, id: `zone:${key}`, device: `device:${key}`, number, label: key, loop: null },
    },
  ]
  const doc = after(smallDoc(), [
    ...more('Attic', { room: 'Attic', sticker: null }, 3),
    ...more('Cellar', { room: 'Cellar', sticker: null }, 9),
    ...more('Porch two', { room: porch.room, sticker: null }, 20),
    {
      op: 'add',
      record: {
        ...porch,
        id: 'device:later',
        room: 'Barn',
        sticker: null,
        order: 30,
        deferred: 'no roof yet',
      },
    },
  ])
  expect(id).toBe('device:porch')
  page = await openJob(doc, 'installer')
  const enrol = scope.run(() => useEnrol(air)) ?? expect.fail()
  await page.show(TargetList, {
    parts: enrol.parts.value,
    current: null,
    by: enrol.by.value,
    'onUpdate:by': (to: RoundBy) => (enrol.by.value = to),
  })
  const heads = (): (string | undefined)[] =>
    [...page.host.querySelectorAll('h3')].map((head) => head.textContent)
  expect(heads()).toEqual(['Attic', porch.room, 'Cellar', 'Not now'])
  expect(text()).toContain('Reedling contact, Barn: no roof yet')
  expect(enrol.target.value?.id).toBe('zone:Attic')
  await page.press('Number')
  expect(enrol.by.value).toBe('number')
  expect(enrol.targets.value.map((one) => one.id)).toEqual([
    ...['zone:Attic', 'zone:one', 'zone:Cellar', 'zone:Porch two'],
  ])
  await page.press('Box')
  expect(enrol.parts.value.map((part) => part.name)).toEqual(['Reedling contact'])
})
