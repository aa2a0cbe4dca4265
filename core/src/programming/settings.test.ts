import { describe, expect, it } from 'vitest'
import type { PanelModel, SettingKey } from '../catalogue/schema.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue, cleanMorrow, SmallJob } from '../testing/small-job.ts'
import { programmingSheet, type Sheet } from './sheet.ts'

const sheetOf = (job: SmallJob): Sheet => {
  const sheet = programmingSheet(job.doc, catalogue, job.houseRules)
  if (!sheet) throw new Error('no sheet')
  return sheet
}
const steps = (job: SmallJob, title: string) =>
  sheetOf(job).sections.find((item) => item.title.startsWith(title))?.steps ?? []
const step = (job: SmallJob, title: string, field: string) => {
  const found = steps(job, title).find((item) => item.field === field)
  return found ? [found.keys, found.meaning] : null
}
const panels = catalogue.all('panel')

const pinfold = () =>
  new SmallJob({ panel: 'panel/pinfold-16', grade: 1, entry2: 45 })
    .add('front', 'pebble', { use: 'entry', position: 'door' })
    .number()
const ostler = () =>
  new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
    .area(2, 'Annexe')
    .add('front', 'sill-8', { use: 'entry', position: 'door' })
    .add('pad', 'scriber-8', { room: 'hall' })
    .user('Nell')
    .add('fob', 'quatern-8', { user: 'user:Nell', room: '' })
    .number()

describe('settings of the whole system', () => {
  it('are keyed only where the plan changes them', () => {
    expect(steps(pinfold(), 'Whole system').map((item) => item.field)).toEqual([
      'entry delay 1',
      'entry delay 2',
      'exit delay',
    ])
  })

  // What each keyed value means stands in the panel’s own programming texts of the invented world.
  it.each([
    ['siren time', { sirenSeconds: 180 }, 'LOC 031 [set] 6 [set]', '6 → 3 min'],
    ['swinger shutdown', { swinger: 3 }, 'LOC 033 [set] 3 [set]', '3 trips'],
    ['supervision window', { superviseMinutes: 60 }, 'LOC 035 [set] 60 [set]', '60 min'],
    [
      'exit delay in the other unit',
      { exitUnitSwitched: true },
      'LOC 047 [set], option 2 lit',
      'steps of 15 s',
    ],
    [
      'stay zones to entry 2',
      { stayToEntry2: true },
      'LOC 047 [set], option 3 lit',
      'every zone of stay starts entry 2',
    ],
    ['zone open at the end of exit', { openAtExit: 'exclude' }, 'LOC 047 [set], option 5 lit', 'is left out'],
    ['zone open at the end of exit', { openAtExit: 'alarm' }, 'LOC 047 [set], option 5 out', 'alarms'],
    ['sound while entry runs', { entryBeeps: true }, 'LOC 049 [set], option 1 lit', 'keypads sound'],
    ['sound while exit runs', { exitBeeps: false }, 'LOC 049 [set], option 2 out', 'keypads make no sound'],
  ])('%s of the Pinfold 16', (field, over, keys, meaning) =>
    expect(step(pinfold().set('job:main', over), 'Whole system', field)).toEqual([keys, meaning]),
  )

  it.each([
    ['end of exit', { exitBy: 'door' }, 'exit ends by? until “last door”, yes', 'when the last door closes'],
    ['key switch', { keySwitch: 'latching' }, 'key switch? yes, until “stays over”, yes', 'latching'],
    ['exit delay of stay', { exitStay: 20 }, 'T4? yes, 20 yes', '20 → 20 s'],
    ['exit delay of stay', { exitStay: 0 }, 'T4? yes, 0 yes', '0 → 0 s (no delay)'],
  ])('%s of the Quillet 32', (field, over, keys, meaning) => {
    const job = new SmallJob({ panel: 'panel/quillet-32', entry2: 50 }).set('job:main', over)
    expect(step(job, 'Whole system', field)).toEqual([keys, meaning])
  })

  it('name the keypad keys that are switched off, and the outputs', () => {
    const job = cleanMorrow().set('job:main', { keysOff: ['medical pair'], outputs: 'latched' })
    expect(step(job, 'Whole system', 'keypad keys switched off')?.[1]).toBe('medical pair off')
    job.set('job:main', { keysOff: ['help key'] })
    expect(step(job, 'Whole system', 'keypad keys switched off')).toBeNull()
    expect(step(job, 'Whole system', 'outputs')).toEqual([
      '641 [send] 6 [send]',
      'stay on until a code is keyed',
    ])
  })

  it('have a keyed value for every choice that a panel offers', () => {
    const choices = (panel: PanelModel, key: SettingKey): readonly string[] => {
      const { exitBy, openAtExit, outputs } = panel.couplings ?? {}
      if (key === 'exitBy') return exitBy ?? []
      if (key === 'openAtExit') return openAtExit ?? []
      if (key === 'outputs') return outputs ?? []
      return key === 'keySwitch' ? ['momentary', 'latching'] : []
    }
    const missing = panels.flatMap((panel) =>
      (panel.programming.settings ?? []).flatMap((item) =>
        choices(panel, item.setting)
          .filter((choice) => !item.values?.[choice])
          .map((choice) => `${panel.id} ${item.setting} ${choice}`),
      ),
    )
    expect(missing).toEqual([])
  })

  it('are offered for whatever a panel couples', () => {
    const lacking = panels.flatMap((panel) => {
      const { couplings, programming, areas, delays } = panel
      const keyed = new Set(programming.settings?.map((item) => item.setting))
      const asks: readonly (readonly [unknown, boolean])[] = [
        [couplings?.exitBy, keyed.has('exitBy')],
        [couplings?.openAtExit, keyed.has('openAtExit')],
        [couplings?.stayToEntry2, keyed.has('stayToEntry2')],
        [delays.exit.switched, keyed.has('exitUnit')],
        [couplings?.functionKeys, keyed.has('keysOff')],
        [couplings?.beeps, keyed.has('entryBeeps') && keyed.has('exitBeeps')],
        [(couplings?.outputs?.length ?? 0) > 1, keyed.has('outputs')],
        [couplings?.latchingKeySwitch, keyed.has('keySwitch')],
        [panel.siren, keyed.has('siren')],
        [couplings?.keypadAreas, programming.keypadAreas !== undefined],
        // Where fobs are zones they have no step of their own to be keyed with.
        [couplings?.fobsInKeypad, programming.fobInKeypad !== undefined && programming.slot !== null],
        [areas.count > 1, programming.areaMove !== undefined],
        [couplings?.exitInStay === 'own', delays.exitStay !== undefined],
      ]
      return asks.flatMap(([has, can], index) => (has && !can ? [`${panel.id} ${index}`] : []))
    })
    expect(lacking).toEqual([])
  })
})

describe('fields of a zone that only some panels ask for', () => {
  it('names the list a type goes into, and what it leaves', () => {
    const job = pinfold()
    const response = steps(job, 'Zone 09').find((item) => item.field === 'response type')
    expect(response?.note).toBe('Goes into the first-door list, and so out of any other list.')
    job.set(job.zone('front').id, { response: 'instant' })
    expect(steps(job, 'Zone 09').find((item) => item.field === 'response type')?.note).toBe('')
  })

  it('keys siren outputs and day zones where they are said', () => {
    const job = pinfold()
    expect([
      step(job, 'Zone 09', 'siren outputs'),
      step(job, 'Zone 09', 'day zone of the user’s choice'),
    ]).toEqual([null, null])
    job.set(job.zone('front').id, { sirens: [1, 3], dayZone: true })
    expect(step(job, 'Zone 09', 'siren outputs')).toEqual(['LOC 8109 [set] 1 3 [set]', 'output 1, 3'])
    expect(step(job, 'Zone 09', 'day zone of the user’s choice')).toEqual([
      'LOC 309 [set], option 6 lit',
      'yes',
    ])
    job.set(job.zone('front').id, { sirens: [] })
    expect(step(job, 'Zone 09', 'siren outputs')?.[1]).toBe('none')
  })

  it('keys the way a zone chimes', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', entry2: 50 })
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .number()
    const zone = job.zone('front').id
    job.set(zone, { chime: true })
    expect(step(job, 'Zone 001', 'chime')).toEqual(['gong? one', 'one note'])
    job.set(zone, { chimeStyle: 'say' })
    expect(step(job, 'Zone 001', 'chime')).toEqual(['gong? say it', 'says the name'])
    job.set(zone, { chime: false })
    expect(step(job, 'Zone 001', 'chime')).toEqual(['gong? no', 'no'])
  })

  it('keys how a wired zone is wired, by the panel’s own words', () => {
    const job = SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number()
    const zone = job.zone('gate')
    const title = `Zone ${String(zone.number).padStart(2, '0')}`
    expect(step(job, title, 'wiring')?.[1]).toBe('still open in the plan')
    job.set(zone.id, { wiring: 'double', resistorOhm: 3300 })
    expect(step(job, title, 'wiring')).toEqual([`12 [send] 7 [send]`, 'double end-of-line, 3300 ohms'])
  })

  it('asks for the group of verified fire only', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('attic', 'brander-8')
      .number()
    expect(step(job, 'Zone 01', 'fire group')).toBeNull()
    job.set(job.zone('attic', 'smoke').id, { response: 'fire-verified' })
    expect(step(job, 'Zone 01', 'fire group')?.[1]).toBe('still open in the plan')
    job.set(job.zone('attic', 'smoke').id, { fireGroup: 2 })
    expect(step(job, 'Zone 01', 'fire group')).toEqual(['5.10 [ok], 2 [ok]', 'group 2'])
  })
})

describe('areas at the panel', () => {
  it('moves a zone in two acts, adding first', () => {
    const job = ostler()
    job.set(job.zone('front').id, { area: 'area:2', leaves: 'area:1' })
    expect(
      steps(job, 'Zone 01')
        .slice(-3)
        .map((item) => [item.field, item.keys, item.meaning]),
    ).toEqual([
      ['add to area', 'section 5 [ok], 01 [ok], 5.2 [ok], plus 2 [ok]', 'Annexe'],
      ['take out of area', 'section 5 [ok], 01 [ok], 5.2 [ok], minus 1 [ok]', 'Whole premises'],
      ['', expect.any(String), ''],
    ])
  })

  it('gives keypads and fobs the areas they set', () => {
    expect(
      steps(ostler().serves('pad', 2), 'Areas of keypads').map((item) => [item.keys, item.meaning]),
    ).toEqual([
      ['section 9 [ok], keypad 1 [ok], 2 [ok]', 'Scriber 8 keypad in hall: Annexe'],
      ['section 9 [ok], fob 1 [ok], 1 2 [ok]', 'Quatern 8 fob: Whole premises and Annexe'],
    ])
    // With one area there is nothing to give.
    expect(steps(cleanMorrow(), 'Areas of keypads')).toEqual([])
  })

  it('counts wired keypads along the cable', () => {
    const job = cleanMorrow().area(2, 'Annexe').add('two', 'keyplate-w').number().serves('two', 2)
    expect(steps(job, 'Areas of keypads').map((item) => item.keys)).toEqual([
      '801 [send] 1 2 [send]',
      '802 [send] 2 [send]',
    ])
  })
})

describe('where a fob is stored', () => {
  const fob = (job: SmallJob) => steps(job, 'Fobs').find((item) => item.field === 'fob 1')?.keys
  const withSerial = () => ostler().learn('device:fob', 'B300112')
  const inPanel = 'section 6 [ok], 1 [ok], B 3 0 0 1 1 2 [ok]'
  const inKeypad = 'section 7.6 [ok], 1 [ok], B 3 0 0 1 1 2 [ok]'

  it('is the panel, or the keypad by the fob or by the school', () => {
    const bySchool = withSerial()
    bySchool.houseRules = {
      ...defaultHouseRules,
      schools: { ...defaultHouseRules.schools, fobStore: 'keypad' },
    }
    expect(fob(withSerial())).toBe(inPanel)
    expect(fob(withSerial().set('device:fob', { storedIn: 'keypad' }))).toBe(inKeypad)
    expect(fob(bySchool)).toBe(inKeypad)
    expect(fob(bySchool.set('device:fob', { storedIn: 'panel' }))).toBe(inPanel)
  })

  it('is the panel where keypads keep none', () => {
    const job = new SmallJob()
      .user('Nell')
      .add('fob', 'quartet-c', { user: 'user:Nell', room: '', storedIn: 'keypad' })
      .number()
      .learn('device:fob', '4B2K90QX')
    expect(fob(job)).toBe('[go] 72 [tick], 1 [tick], 4 B 2 K 9 0 Q X [tick]')
    expect(job.findings().find((item) => item.rule === 'fob-store')?.text).toBe(
      'Quartet C fob is to be stored in a keypad; Tarn 40 keeps fobs itself.',
    )
  })
})
