import { afterEach, expect, it } from 'vitest'
import { mount, type Mounted } from '../../testing/mount.ts'
import IdCompare from './IdCompare.vue'

let page: Mounted
afterEach(() => page.unmount())
const show = (sticker: string | null, heard: string | null) => {
  page = mount(IdCompare, { family: null, sticker, heard, from: 'Heard' })
  return page.host.textContent ?? ''
}

it('says that two IDs are the same', () => {
  expect(show('20554417', '20554417')).toContain('the same, character by character')
})

it('counts and marks what differs, by more than colour', () => {
  expect(show('20554417', '20554477')).toContain('1 character differs')
  page.unmount()
  expect(show('20554417', '20455417')).toContain('2 characters differ')
})

it('waits for the second ID', () => {
  expect(show('20554417', null)).toContain('nothing yet')
  page.unmount()
  expect(show(null, '20554417')).toContain('no sticker noted')
})
