import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { blankDevice, pinOps, recordOf, recordsOf, type Finding, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, docOn, smallDoc } from '../../testing/small-doc.ts'
import FindingCard from './FindingCard.vue'

/** The small job with a response type, and without a label. */
const doc = () =>
  after(smallDoc(), [
    { op: 'set', id: 'zone:one', field: 'response', from: null, to: 'instant' },
    { op: 'set', id: 'zone:one', field: 'label', from: 'Porch Door', to: '' },
  ])

let page: JobPage
const finding = (rule: string): Finding => {
  const found = page.job.findings.find((item) => item.rule === rule)
  if (!found) throw new Error(`no ${rule}: ${page.job.findings.map((item) => item.rule).join()}`)
  return found
}
afterEach(() => page.close())

describe('a fix', () => {
  beforeEach(async () => (page = await openJob(doc())))

  it('is shown before it is applied, and is one edit that can be taken back', async () => {
    const label = finding('label-missing')
    await page.show(FindingCard, { finding: label, here: true })
    await page.press(`${label.fix?.title}…`)
    expect(page.host.textContent).toContain('this would change')
    expect(page.edits).toEqual([])
    await page.press('Cancel')
    expect(page.host.textContent).not.toContain('this would change')
    await page.press(`${label.fix?.title}…`)
    await page.press('Apply')
    expect(recordOf(page.job.doc, 'zone', 'zone:one')?.label).not.toBe('')
    expect(page.edits.map((edit) => edit.kind)).toEqual(['fix.label-missing'])
    page.job.undo()
    expect(recordOf(page.job.doc, 'zone', 'zone:one')?.label).toBe('')
  })
})

describe('taking a finding on', () => {
  beforeEach(async () => (page = await openJob(doc())))

  it('needs a reason, is signed, and can be taken back', async () => {
    await page.show(FindingCard, { finding: finding('label-missing'), here: true })
    await page.press('Leave it, with a reason…')
    await page.press('I take it upon me')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toBe(
      'Write the reason: it is printed at hand-over.',
    )
    expect(page.edits).toEqual([])
    const text = page.host.querySelector('textarea')
    if (!text) throw new Error('no place for a reason')
    text.value = 'The customer names it himself.'
    text.dispatchEvent(new Event('input'))
    await page.press('I take it upon me')
    expect(recordsOf(page.job.doc, 'waiver').map((item) => [item.rule, item.made.name, item.reason])).toEqual(
      [['label-missing', 'Nell', 'The customer names it himself.']],
    )
    const waived = finding('label-missing')
    expect(waived.waived?.made.name).toBe('Nell')
    await page.show(FindingCard, { finding: waived, here: true })
    expect(page.host.textContent).toContain('Taken on')
    await page.press('Take that back')
    expect(finding('label-missing').waived).toBeNull()
  })
})

describe('a waiver given for an earlier wording', () => {
  beforeEach(async () => {
    const old = (await openJob(doc())).job.findings.find((item) => item.rule === 'label-missing')
    const madeBy = {
      ...{ id: 'person:idris', name: 'Idris', takenAt: '2026-05-04T09:00:01Z', clockDoubtful: false },
      told: null,
    }
    const record = {
      ...{ id: 'waiver:old', type: 'waiver' as const, rule: 'label-missing', subject: 'zone:one', key: null },
      ...{ text: 'It has no name.', reason: 'The customer names it himself.', at: '2026-05-04T09:00:00Z' },
      ...{ corrects: null, made: { ...madeBy, role: 'owner' as const } },
    } as const
    expect(old?.earlier).toBeNull()
    page = await openJob(after(doc(), [{ op: 'add', record }]))
  })

  it('is shown, and holds again once it is renewed in one’s own name', async () => {
    expect(finding('label-missing')).toMatchObject({ waived: null, earlier: { id: 'waiver:old' } })
    await page.show(FindingCard, { finding: finding('label-missing'), here: true })
    expect(page.host.textContent).toContain('Taken on for an earlier wording by Idris')
    await page.press('Renew it, in my name')
    expect(page.edits.map((edit) => edit.kind)).toEqual(['finding.waive'])
    const waived = finding('label-missing')
    expect([waived.waived?.made.name, waived.waived?.reason, waived.earlier]).toEqual([
      'Nell',
      'The customer names it himself.',
      null,
    ])
  })
})

describe('life safety', () => {
  const fire = (over: Partial<Finding> = {}): Finding => ({
    rule: 'key-consent',
    severity: 'stops',
    subject: 'job:main',
    field: null,
    text: 'The help key is switched off.',
    facts: { key: 'help key' },
    key: '["help key"]',
    fix: null,
    others: [],
    waived: null,
    earlier: null,
    ...over,
  })
  const says = async (role: 'owner' | 'installer', given: Finding) => {
    page = await openJob(doc(), role)
    await page.show(FindingCard, { finding: given, here: true })
    await page.press('Leave it, with a reason…')
    return page.host.textContent
  }

  it('is taken on by an owner of the firm only', async () => {
    expect(await says('installer', fire())).toContain('only an owner of the firm')
    page.close()
    expect(await says('owner', fire())).toContain('I take it upon me')
  })

  it('and what physics forbids is not offered to anybody: it says so', async () => {
    page = await openJob(doc(), 'owner')
    await page.show(FindingCard, { finding: fire({ rule: 'metal-building' }), here: true })
    expect(page.host.textContent).not.toContain('Leave it')
    expect(page.host.textContent).toContain('Nobody can take it upon themselves')
  })
})

describe('a device that does not fit', () => {
  it('is told what would help, and helped, where it is found', async () => {
    const siren = { ...blankDevice, id: 'device:siren', model: 'device/herald-8', room: 'yard', order: 2 }
    page = await openJob(
      after(smallDoc(), [
        ...pinOps(smallDoc(), catalogue, [siren.model]),
        { op: 'add', record: { ...siren, type: 'device' } },
      ]),
    )
    const misfit = finding('no-fit')
    await page.show(FindingCard, { finding: misfit, here: true })
    expect(page.host.querySelectorAll('.remedy')).toHaveLength(0)
    await page.press('What would help')
    const remedies = [...page.host.querySelectorAll<HTMLElement>('.remedy')]
    expect(remedies.length).toBeGreaterThan(0)
    remedies[0]?.click()
    await page.settle()
    expect(page.edits).toEqual([])
    expect(page.host.textContent).toMatch(/does not fit →\s*fits/)
    await page.press('Apply')
    expect(page.job.findings.filter(({ rule }) => rule === 'no-fit')).toEqual([])
    expect(page.edits.map(({ kind }) => kind)).toEqual([expect.stringMatching(/^remedy\./)])
  })

  it('is offered nothing of that by other findings', async () => {
    page = await openJob(doc())
    await page.show(FindingCard, { finding: finding('label-missing'), here: true })
    expect(page.host.textContent).not.toContain('What would help')
  })
})

describe('what would help is said of every finding about fit', () => {
  const with_ = (base: JobDocument, models: readonly string[]): JobDocument =>
    models.reduce((doc, model, order) => {
      const device = {
        ...blankDevice,
        id: `device:d${order}`,
        model: `device/${model}`,
        room: `room ${order}`,
        order,
      }
      return after(doc, [
        ...pinOps(doc, catalogue, [device.model]),
        { op: 'add', record: { ...device, type: 'device' } },
      ])
    }, base)
  const asked = async (rule: string): Promise<string> => {
    await page.show(FindingCard, { finding: finding(rule), here: true })
    await page.press('What would help')
    await page.settle()
    return page.host.textContent
  }

  const titles = (): string[] =>
    [...page.host.querySelectorAll('.remedy')].map((one) => one.firstElementChild?.textContent ?? '')

  it('a loss that an encrypted variant cures', async () => {
    page = await openJob(with_(docOn('panel/tarn-40', '1.31'), ['tapwell']))
    await asked('fit-loss')
    expect(titles()).toEqual(['Swap it for Tapwell C keypad'])
  })

  it('a receiver that is full: what holds more, or another device', async () => {
    const doc = after(docOn('panel/morrow-60', null), [
      { op: 'set', id: 'job:main', field: 'region', from: 'europe', to: 'north-america' },
    ])
    const receiver = { id: 'receiver:pad', type: 'receiver', model: 'receiver/morrow-keypad-radio' } as const
    page = await openJob(
      with_(
        after(doc, [
          ...pinOps(doc, catalogue, [receiver.model]),
          { op: 'add', record: { ...receiver, order: 1, encryptedOnly: false } as never },
        ]),
        Array<string>(19).fill('latchet-thin'),
      ),
    )
    expect(finding('receiver-full').subject).toBe('device:d18')
    expect(await asked('receiver-full')).not.toContain('Nothing in the catalogue')
    expect(titles()[0]).toContain('Morrow radio module')
  })

  it('a firmware that nobody read: nothing is to be swapped for that', async () => {
    page = await openJob(with_(docOn('panel/tarn-40', null), ['quartet-c']))
    expect(await asked('fit-unknown')).toContain('read it, note it, and the fit is told at once')
    expect(titles()).toEqual([])
    page.close()
    // Too old a firmware is known: then there is something to do.
    page = await openJob(with_(docOn('panel/tarn-40', '1.10'), ['quartet-c']))
    await asked('no-fit')
    expect(titles()).not.toEqual([])
  })
})
