import { describe, expect, it } from 'vitest'
import { settingKeys, type PanelModel, type SettingKey } from '../catalogue/schema.ts'
import { jobInfo } from '../job/document.ts'
import { job } from '../job/declared-plan.ts'
import type { JobInfo } from '../job/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { panelSettings, settingOf } from './panel-settings.ts'

const panelOf = (name: string): PanelModel => {
  const panel = catalogue.get('panel', `panel/${name}`)
  if (!panel) throw new Error(name)
  return panel
}
const applying = (panel: PanelModel) =>
  panelSettings.filter((setting) => setting.applies(panel)).map(({ key }) => key)
const planned = (over: Partial<JobInfo> = {}): JobInfo => jobInfo(new SmallJob(over).doc)

describe('the settings of a panel', () => {
  it('are declared once for every name in a panel’s texts', () => {
    expect(panelSettings.map(({ key }) => key).sort()).toEqual([...settingKeys].sort())
    expect(new Set(panelSettings.map(({ address }) => address)).size).toBe(settingKeys.length)
    expect(() => settingOf('bells' as 'siren')).toThrow('settingOf: no setting bells')
  })

  it('are fields of the job', () => {
    for (const { field } of panelSettings) expect(Object.keys(job.fields)).toContain(field)
  })

  it('key nothing of a plan that leaves everything as it comes, on any panel', () => {
    for (const panel of catalogue.all('panel'))
      for (const setting of panelSettings)
        expect([setting.key, setting.keyed(panel, planned())]).toEqual([setting.key, null])
  })

  it('that a panel has texts for are those that it has', () => {
    for (const panel of catalogue.all('panel'))
      for (const { setting } of panel.programming.settings ?? [])
        expect([panel.id, setting, settingOf(setting).applies(panel)]).toEqual([panel.id, setting, true])
  })

  it('offer to leave a choice as it comes, unless it is none by itself', () => {
    for (const panel of catalogue.all('panel'))
      for (const setting of panelSettings) {
        if (setting.form !== 'choice' || !setting.applies(panel)) continue
        const [first, ...rest] = setting.choices(panel)
        expect(first?.value).toBe(setting.key === 'keySwitch' ? 'none' : null)
        expect(rest.length).toBeGreaterThan(0)
      }
  })

  it.each<[string, Partial<JobInfo>, SettingKey, unknown]>([
    // What one panel of the world makes of each: keyed value and meaning, by its own unit.
    ['panel/pinfold-16', { sirenSeconds: 180 }, 'siren', { value: '6', meaning: '6 → 3 min' }],
    ['panel/tarn-40', { swinger: 3 }, 'swinger', { value: '3', meaning: '3 trips' }],
    ['panel/tarn-40', { superviseMinutes: 60 }, 'supervise', { value: '60', meaning: '60 min' }],
    [
      'panel/quillet-32',
      { exitBy: 'door' },
      'exitBy',
      { value: 'door', meaning: 'when the last door closes' },
    ],
    ['panel/pinfold-16', { openAtExit: 'alarm' }, 'openAtExit', { value: 'alarm', meaning: 'alarms' }],
    ['panel/sallow-m', { outputs: 'momentary' }, 'outputs', { value: 'momentary', meaning: 'give a pulse' }],
    [
      'panel/tarn-40',
      { entryBeeps: false },
      'entryBeeps',
      { value: 'off', meaning: 'keypads make no sound' },
    ],
    ['panel/tarn-40', { exitBeeps: true }, 'exitBeeps', { value: 'on', meaning: 'keypads sound' }],
    ['panel/quillet-32', { keySwitch: 'latching' }, 'keySwitch', { value: 'latching', meaning: 'latching' }],
    ['panel/pinfold-16', { exitUnitSwitched: true }, 'exitUnit', { value: 'on', meaning: 'steps of 15 s' }],
    [
      'panel/pinfold-16',
      { stayToEntry2: true },
      'stayToEntry2',
      { value: 'on', meaning: 'every zone of stay starts entry 2' },
    ],
    ['panel/tarn-40', { keysOff: ['help key'] }, 'keysOff', { value: 'help key', meaning: 'help key off' }],
  ])('%s %j keys %s', (id, over, key, keyed) => {
    const panel = catalogue.get('panel', id)
    if (!panel) throw new Error(id)
    expect(settingOf(key).keyed(panel, planned(over))).toEqual(keyed)
  })

  const common = ['siren', 'swinger', 'supervise']
  const beeps = ['entryBeeps', 'exitBeeps']
  // What each panel of the world has beside the siren time, the swinger shutdown and the supervision window.
  it.each<[string, string[]]>([
    ['tarn-40', [...beeps, 'keysOff']],
    ['morrow-60', ['outputs', ...beeps, 'keysOff']],
    ['ostler-s-8', ['outputs']],
    ['ostler-s-9', ['outputs']],
    ['pinfold-16', ['openAtExit', ...beeps, 'exitUnit', 'stayToEntry2']],
    ['quillet-32', ['exitBy', ...beeps, 'keySwitch']],
    ['sallow-m', ['outputs', ...beeps]],
  ])('are on the %s: %j', (id, keys) => {
    expect(applying(panelOf(id))).toEqual([...common, ...keys])
    // An entry that says nothing of them is not thought to have them, nor one that says that it has none.
    const { couplings: _, ...bare } = panelOf(id)
    const { switched: __, ...exit } = bare.delays.exit
    expect(applying({ ...bare, delays: { ...bare.delays, exit } })).toEqual(common)
    expect(applying({ ...bare, couplings: {}, delays: { ...bare.delays, exit } })).toEqual(common)
    const couplings = { beeps: false, latchingKeySwitch: false, outputs: ['latched' as const] }
    expect(applying({ ...bare, couplings, delays: { ...bare.delays, exit } })).toEqual(common)
  })

  it.each<[string, SettingKey, unknown[]]>([
    [
      'quillet-32',
      'exitBy',
      [
        [null, 'as it comes'],
        ['timer', 'when the time is over'],
        ['door', 'when the last door closes'],
        ['either', 'when the time is over or the last door closes, whichever is first'],
      ],
    ],
    [
      'pinfold-16',
      'openAtExit',
      [
        [null, 'as it comes'],
        ['exclude', 'is left out: unprotected'],
        ['alarm', 'alarms'],
      ],
    ],
    [
      'morrow-60',
      'outputs',
      [
        [null, 'as it comes'],
        ['momentary', 'give a pulse'],
        ['latched', 'stay on until a code is keyed'],
      ],
    ],
    [
      'tarn-40',
      'exitBeeps',
      [
        [null, 'as it comes'],
        [true, 'keypads sound'],
        [false, 'silent'],
      ],
    ],
    [
      'quillet-32',
      'keySwitch',
      [
        ['none', 'none'],
        ['momentary', 'springs back'],
        ['latching', 'latches: nothing else sets then'],
      ],
    ],
    ['tarn-40', 'siren', []],
    ['tarn-40', 'swinger', []],
    ['tarn-40', 'supervise', []],
    ['tarn-40', 'keysOff', []],
    ['pinfold-16', 'exitUnit', []],
    ['pinfold-16', 'stayToEntry2', []],
  ])('on the %s: %s offers %j', (id, key, choices) => {
    const given = settingOf(key).choices(panelOf(id))
    expect(given.map(({ value, title }) => [value, title])).toEqual(choices)
  })

  it('offer nothing but to leave it where the panel names no way', () => {
    const { couplings: _, ...bare } = panelOf('tarn-40')
    for (const key of ['exitBy', 'openAtExit', 'outputs'] as const)
      for (const panel of [bare, { ...bare, couplings: {} }])
        expect(
          settingOf(key)
            .choices(panel)
            .map(({ value }) => value),
        ).toEqual([null])
  })

  it.each<[string, Partial<JobInfo>, SettingKey, string]>([
    ['tarn-40', {}, 'siren', 'as it comes; EN 50131-1: 90 s to 15 min'],
    ['tarn-40', { region: 'north-america' }, 'siren', 'as it comes; US household: at least 4 min'],
    // Minutes; 200 s goes down, as a siren does, to 3 min.
    ['tarn-40', { sirenSeconds: 200 }, 'siren', 'keyed 3 → 3 min'],
    // By 10 s in seconds: 125 s goes down to 120 s.
    ['ostler-s-8', { sirenSeconds: 125 }, 'siren', 'keyed 120 → 2 min'],
    ['tarn-40', { sirenSeconds: 5 }, 'siren', 'cannot be stored'],
    ['tarn-40', {}, 'swinger', 'this panel: 0–9'],
    ['quillet-32', {}, 'swinger', 'this panel: 1–5'],
    ['morrow-60', { region: 'north-america' }, 'swinger', 'CP-01: 1–6, 2 as shipped'],
    ['tarn-40', {}, 'supervise', 'empty: as it comes, 400 min'],
    ['pinfold-16', {}, 'exitUnit', 'exit in steps of 15 s (bit 2 of location 047)'],
    ['pinfold-16', {}, 'stayToEntry2', 'every zone of stay starts entry 2 (bit 3 of location 047)'],
    ['quillet-32', {}, 'exitBy', ''],
    ['pinfold-16', {}, 'openAtExit', ''],
    ['morrow-60', {}, 'outputs', ''],
    ['tarn-40', {}, 'entryBeeps', ''],
    ['quillet-32', {}, 'keySwitch', ''],
    ['tarn-40', {}, 'keysOff', ''],
  ])('on the %s with %j: %s hints %j', (id, over, key, words) => {
    expect(settingOf(key).hint(panelOf(id), planned(over))).toBe(words)
  })

  it('say what a panel leaves out', () => {
    const { swinger: _, superviseMinutes: __, siren: ___, couplings: ____, ...bare } = panelOf('pinfold-16')
    const { switched: _____, ...exit } = bare.delays.exit
    const panel = { ...bare, delays: { ...bare.delays, exit } }
    const said = (key: SettingKey) => settingOf(key).hint(panel, planned())
    expect(said('siren')).toBe('not a field of this panel')
    expect(said('swinger')).toBe('this panel states no range')
    expect(said('supervise')).toBe('empty: as it comes, how long is not stated')
    expect(said('exitUnit')).toBe('exit in steps of 1 s ()')
    expect(said('stayToEntry2')).toBe('every zone of stay starts entry 2 ()')
    expect(settingOf('siren').keyed(panel, planned({ sirenSeconds: 180 }))).toBeNull()
    expect(settingOf('exitUnit').keyed(panel, planned({ exitUnitSwitched: true }))?.meaning).toBe(
      'steps of 1 s',
    )
    expect(settingOf('keysOff').keyed(panel, planned({ keysOff: ['help key'] }))).toBeNull()
  })

  it('key no siren time that the panel cannot store, nor one beyond the region’s', () => {
    const keyed = (id: string, sirenSeconds: number) =>
      settingOf('siren').keyed(panelOf(id), planned({ sirenSeconds }))
    expect(keyed('tarn-40', 5)).toBeNull()
    // 901 s goes down to 15 min, which EN 50131-1 still allows; 16 min it does not.
    expect(keyed('tarn-40', 901)).toEqual({ value: '15', meaning: '15 → 15 min' })
    expect(keyed('tarn-40', 970)).toBeNull()
  })

  it('are named as the job’s fields are, with the unit of what is kept', () => {
    expect(
      ['siren', 'swinger', 'keysOff'].map((key) => [
        settingOf(key as SettingKey).label,
        settingOf(key as SettingKey).unit,
      ]),
    ).toEqual([
      ['Siren time', 's'],
      ['Swinger shutdown', 'trips'],
      ['Keypad keys switched off', ''],
    ])
  })
})
