import { afterEach, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { mount, type Mounted } from '../testing/mount.ts'
import { lockShortcuts, offeredShortcuts, runShortcut, useShortcuts } from './useShortcuts.ts'

const run = vi.fn()
const help = vi.fn()
const Page = defineComponent({
  setup() {
    useShortcuts('Zones', [
      { keys: 'N', title: 'Number everything', run },
      { keys: '?', title: 'Keys', run: help },
      { keys: 'Ctrl + Z', title: 'Undo' },
    ])
    return () => null
  },
})
let page: Mounted
afterEach(() => {
  page.unmount()
  document.body.innerHTML = ''
  vi.clearAllMocks()
})
const press = (key: string, over: KeyboardEventInit = {}, target?: HTMLElement): boolean => {
  const event = new KeyboardEvent('keydown', { key, cancelable: true, bubbles: true, ...over })
  ;(target ?? document.body).dispatchEvent(event)
  return runShortcut(event)
}

it('runs the key of the page, whatever its case', () => {
  page = mount(Page)
  expect([press('n'), press('N'), press('x')]).toEqual([true, true, false])
  expect(run).toHaveBeenCalledTimes(2)
})

it('leaves keys to fields, to combinations and to dialogs', () => {
  page = mount(Page)
  const input = document.createElement('input')
  document.body.append(input)
  expect(press('n', {}, input)).toBe(false)
  expect(press('n', { ctrlKey: true })).toBe(false)
  const dialog = document.createElement('div')
  dialog.className = 'v-dialog v-overlay--active'
  document.body.append(dialog)
  expect(press('n')).toBe(false)
  expect(run).not.toHaveBeenCalled()
})

it('leaves them to a scanner while locked, but for the list of keys', () => {
  page = mount(Page)
  const release = lockShortcuts()
  expect([press('n'), press('?')]).toEqual([false, true])
  release()
  release()
  expect(press('n')).toBe(true)
  expect(help).toHaveBeenCalledTimes(1)
})

it('goes with its page', () => {
  page = mount(Page)
  expect(offeredShortcuts().value.map((group) => group.name)).toEqual(['Zones'])
  page.unmount()
  expect(offeredShortcuts().value).toEqual([])
  page = mount(Page)
})
