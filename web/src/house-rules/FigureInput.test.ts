import { afterEach, expect, it, vi } from 'vitest'
import { mount, type Mounted } from '../testing/mount.ts'
import FigureInput from './FigureInput.vue'

let page: Mounted
afterEach(() => page.unmount())
const onChange = vi.fn()
const open = (): HTMLInputElement => {
  onChange.mockClear()
  page = mount(FigureInput, { value: 8, disabled: false, wrong: false, onChange })
  return page.host.querySelector('input') as HTMLInputElement
}
const type = (input: HTMLInputElement, text: string): void => {
  input.dispatchEvent(new Event('focus'))
  input.value = text
  input.dispatchEvent(new Event('input'))
}

it('keeps what is being typed while the value changes elsewhere', async () => {
  const input = open()
  type(input, '9')
  await page.set({ value: 12 })
  expect(input.value).toBe('9')
  input.dispatchEvent(new Event('blur'))
  expect(onChange.mock.calls).toEqual([['9']])
})

it('says nothing when it is left as it was', () => {
  const input = open()
  type(input, '8')
  input.dispatchEvent(new Event('blur'))
  expect(onChange).not.toHaveBeenCalled()
})

it('follows the value while nobody types', async () => {
  const input = open()
  await page.set({ value: 12, wrong: true })
  expect([input.value, input.getAttribute('aria-invalid')]).toEqual(['12', 'true'])
})
