import { describe, expect, it } from 'vitest'
import { settingKeys, type SettingKey } from '../catalogue/schema.ts'
import { jobInfo } from '../job/document.ts'
import { job } from '../job/declared-plan.ts'
import type { JobInfo } from '../job/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { panelSettings, settingOf } from './panel-settings.ts'

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
})
