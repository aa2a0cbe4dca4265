import { nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { blankDevice, pinOps, readHouse } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import House from './House.vue'

const words = `
Porch: floor Ground
Hall: sleeps, unheated
Landing: floor Upper
Porch - Hall 4
Hall - Landing 6 stairs
Front door in Porch: every day
Pane in Hall: never
`

/** Porch with the contact on its door, hall with the keypad, landing upstairs; a fob that nobody carries. */
async function house(): Promise<JobPage> {
  let doc = smallDoc()
  let count = 0
  doc = after(doc, readHouse(words, doc, () => String((count += 1))).ops)
  const add = (id: string, model: string, room: string) => {
    const record = { ...blankDevice, id: `device:${id}`, model: `device/${model}`, room, order: 9 }
    doc = after(doc, [...pinOps(doc, catalogue, [record.model]), { op: 'add', record }])
  }
  add('keypad', 'tapwell', 'hall')
  add('fob', 'quartet', '')
  const page = await openJob(doc)
  await page.show(House)
  return page
}

let page: JobPage
beforeEach(async () => {
  page = await house()
})
afterEach(() => page.close())
const picture = () => page.host.querySelector<HTMLElement>('[aria-label="The house"]')
const text = (part: Element | null | undefined) => part?.textContent.replace(/\s+/g, ' ').trim() ?? ''
const room = (name: string) =>
  [...(picture()?.querySelectorAll<HTMLElement>('li.room') ?? [])].find(
    (box) => text(box.querySelector('.name')) === name,
  )

describe('the house as a picture', () => {
  it('has a box for each room by its floor, highest first', () => {
    const floors = [...(picture()?.querySelectorAll('section') ?? [])].map((floor) => [
      floor.getAttribute('aria-label'),
      ...[...floor.querySelectorAll('.name')].map(text),
    ])
    expect(floors).toEqual([
      ['Upper', 'Landing'],
      ['Ground', 'Porch', 'Hall'],
    ])
  })

  it('says of a room what is known, what opens and what is in it', () => {
    expect(text(room('Hall'))).toMatch(
      /slept in, unheated.*Pane.*nothing on it.*stairs to Landing 6 m.*to Porch 4 m/,
    )
    expect(text(room('Hall'))).toContain('keypad')
    expect(text(room('Porch'))).toMatch(/Front door, every day ?07/)
  })

  it('names a device in whole words and leads to its zone, or to the kit', () => {
    const chip = room('Porch')?.querySelector('a.chip')
    expect(chip?.getAttribute('aria-label')).toMatch(/^zone 07, Reedling contact, porch, Stops: /)
    expect(chip?.getAttribute('href')).toMatch(/\/zones\?show=zone:one$/)
    expect(room('Hall')?.querySelector('a.chip')?.getAttribute('href')).toMatch(/\/kit\?show=device:keypad$/)
  })

  it('bears the mark of what is found', () => {
    const mine = page.job.findings.filter(({ subject }) => ['device:porch', 'zone:one'].includes(subject))
    expect(mine.length).toBeGreaterThan(0)
    expect(room('Porch')?.querySelector('a.chip')?.getAttribute('aria-label')).toContain(mine[0]?.text ?? '?')
    expect(text(room('Porch')?.querySelector('a.chip .glyph'))).toMatch(/[■▲●]/)
  })

  it('tells what is carried apart from what is in no described room', () => {
    expect([...page.host.querySelectorAll('.elsewhere')].map((part) => text(part.firstElementChild))).toEqual(
      ['Carried:'],
    )
  })

  it('lights the rooms between a door and its keypad', async () => {
    expect(text(picture()?.querySelector('.told'))).toMatch(/^Point at a door/)
    const door = room('Porch')?.querySelector<HTMLElement>('button.opening')
    door?.focus()
    await nextTick()
    const lit = [...(picture()?.querySelectorAll('li.room.lit .name') ?? [])].map(text)
    expect(lit).toEqual(['Porch', 'Hall'])
    // 4 m at 1.2 m/s, code and margin by the house rules.
    const { keyIn, margin } = page.job.rules.figures
    const seconds = Math.ceil(4 / 1.2 + keyIn + margin)
    expect(text(picture()?.querySelector('.told'))).toBe(
      `By the Front door: Porch, Hall. ${seconds} s to the keypad, code and margin counted; it takes entry delay 1.`,
    )
    door?.blur()
    await nextTick()
    expect(picture()?.querySelectorAll('li.room.lit')).toHaveLength(0)
  })

  it('goes from a box to what is said of the room', async () => {
    Element.prototype.scrollIntoView = () => undefined
    room('Hall')?.querySelector<HTMLElement>('button.name')?.click()
    await nextTick()
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Name of Hall')
  })
})

it('shows no picture before a room is described', async () => {
  page.close()
  page = await openJob(smallDoc())
  await page.show(House)
  expect(picture()).toBeNull()
  expect(text(page.host)).toContain('All of it is optional.')
})
