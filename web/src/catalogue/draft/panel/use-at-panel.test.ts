import { computed, shallowRef } from 'vue'
import { expect, it } from 'vitest'
import {
  beginDraft,
  draftKernel,
  sketchOf,
  toldOps,
  toldScreen,
  type DraftDocument,
  type DraftOp,
  type Told,
} from '#core'
import { catalogue } from '../../../testing/small-doc.ts'
import { useAtPanel } from './useAtPanel.ts'

/* Somebody before a Tarn 40 whose description is corrected: what is asked, and what is put down. */

function opened() {
  const like = catalogue.get('interface', 'interface/tarn-40')
  const doc = shallowRef<DraftDocument>(draftKernel.empty)
  const apply = (ops: readonly DraftOp[]): void => {
    const done = draftKernel.applyOps(doc.value, ops)
    if (!done.ok) throw new RangeError('the ops apply')
    doc.value = done.doc
  }
  apply(beginDraft('interface', { like, corrects: true }, catalogue))
  const tell = (told: readonly Told[]): void => apply(toldOps(doc.value, told))
  const panel = useAtPanel(
    computed(() => doc.value),
    computed(() => catalogue),
    tell,
  )
  panel.begin()
  const press = (...keys: string[]): void => keys.forEach((key) => panel.act({ kind: 'press', key }))
  const inside = (): void => {
    panel.act({ kind: 'hold', key: 'tick', seconds: 5 })
    for (const who of ['main-user', 'installer']) {
      panel.act({ kind: 'code', who })
      press('tick')
    }
  }
  return { panel, doc, tell, press, inside, sketch: () => sketchOf(doc.value) }
}
const how = { effect: 'none', beeped: false, along: 'no', decides: null } as const

it('goes on by itself where the description knows, and asks where it does not', async () => {
  const { panel, press, inside, sketch } = opened()
  expect(panel.shows.value[0]).toBe('ready')
  inside()
  expect([panel.shows.value, panel.step.value.is]).toEqual([['14 first way in, s', '30'], 'keys'])
  // A key that the entry does not have was never tried.
  press('ear')
  expect(panel.step.value).toEqual({ is: 'lines', why: 'open' })
  panel.read(['14 first way in, s', '30'])
  expect(panel.step.value.is).toBe('which')
  panel.chosen({ screen: '14', pointers: {}, says: '', typed: null })
  expect([panel.step.value.is, panel.contradicts.value]).toEqual(['how', null])
  await panel.putDown({ screen: '14', pointers: {}, says: '', typed: null }, { ...how, beeped: true })
  expect([sketch().screens['14']?.keys.ear, panel.step.value.is]).toEqual([{ do: ['beep'] }, 'keys'])
  press('ear')
  expect([panel.step.value.is, panel.here.value?.beeped]).toEqual(['keys', true])
})

it('takes a display that nobody told, in its row where it stands between two', async () => {
  const { panel, press, inside, sketch } = opened()
  inside()
  press('next')
  expect(panel.shows.value[0]).toBe('15 second way in, s')
  panel.differs()
  const lines = ['14a extra time', '0']
  panel.read(lines)
  expect(panel.step.value).toEqual({ is: 'new', lines })
  const screen = { lines, widget: { kind: 'menu' as const }, keys: {}, holds: {}, skip: [], note: '' }
  await panel.toldNew([toldScreen('14a', screen)], '14a', lines)
  expect([panel.step.value.is, panel.contradicts.value]).toEqual(['how', '>'])
  await panel.putDown({ screen: '14a', pointers: {}, says: '', typed: null }, { ...how, along: 'next' })
  expect(sketch().walks.questions?.screens.slice(0, 3)).toEqual(['14', '14a', '15'])
  expect(panel.here.value?.screen).toBe('14a')
})

it('says of a display that was shown and passed over when, or where else it stands', async () => {
  const { panel, press, inside, sketch } = opened()
  inside()
  press('next')
  panel.differs()
  panel.read(['16 leaving, s', '60'])
  panel.chosen({ screen: '16', pointers: {}, says: '', typed: null })
  expect(panel.passed.value?.screen).toBe('15')
  // No number and no type of a zone stands there: nothing of them could decide.
  expect(panel.passed.value?.when).toEqual([])
  await panel.putElsewhere({ screen: '16', pointers: {}, says: '', typed: null }, 'before')
  // It was told to come behind the first: it cannot come before it as well.
  expect(panel.trouble.value).toContain('a row goes one way')
  await panel.putPassed({ screen: '16', pointers: {}, says: '', typed: null }, { pointer: { zone: [1, 4] } })
  expect([sketch().screens['15']?.skip, panel.here.value?.screen]).toEqual([
    [{ pointer: { zone: [1, 4] } }],
    '16',
  ])
})

it('a key that did something else is asked what decides; always so replaces what was told', async () => {
  const { panel, press, inside, sketch } = opened()
  inside()
  press('home')
  expect(panel.shows.value[0]).toBe('keep all answers?')
  press('cross')
  panel.differs()
  panel.read(['14 first way in, s', '30'])
  panel.chosen({ screen: '14', pointers: {}, says: '', typed: null })
  expect(panel.deciding.value.map(({ of, guard }) => [of, guard])).toEqual([['now', { empty: true }]])
  expect(panel.values.value.length).toBeGreaterThan(5)
  await panel.putDown({ screen: '14', pointers: {}, says: '', typed: null }, how)
  expect(sketch().screens.leave?.keys.cross).toBe('14')
})

it('asks for the first display of an empty description, and begins again where it was taken back', async () => {
  const { panel, tell, doc } = opened()
  for (const name of Object.keys(sketchOf(doc.value).screens)) tell([[`screens.${name}`, undefined]])
  tell([['start', undefined]])
  panel.begin()
  expect([panel.here.value, panel.step.value]).toEqual([null, { is: 'lines', why: 'start' }])
  const lines = ['all quiet', '']
  panel.read(lines)
  const screen = { lines, widget: { kind: 'menu' as const }, keys: {}, holds: {}, skip: [], note: '' }
  await panel.toldNew([toldScreen('quiet', screen)], 'quiet', lines)
  expect([panel.shows.value[0], panel.sketch.value.start]).toEqual(['all quiet', 'quiet'])
})
