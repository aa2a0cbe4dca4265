import { h, nextTick } from 'vue'
import { expect, it } from 'vitest'
import { mount } from '../testing/mount.ts'
import FoldedLines from './FoldedLines.vue'

/** A list of `count` lines of which two are shown. */
function listOf(count: number) {
  const lines = Array.from({ length: count }, (_, index) => `line ${index + 1}`)
  const { host } = mount({
    render: () =>
      h(FoldedLines, { lines, most: 2 }, { default: ({ line }: { line: unknown }) => String(line) }),
  })
  const shown = () => [...host.querySelectorAll('li')].map((line) => line.textContent.trim())
  return { shown, press: () => host.querySelector('button')?.click() }
}

it('shows a short list as it is', () => {
  expect(listOf(2).shown()).toEqual(['line 1', 'line 2'])
})

it('unfolds the others and folds them again', async () => {
  const { shown, press } = listOf(5)
  expect(shown()).toEqual(['line 1', 'line 2', 'and 3 more'])
  press()
  await nextTick()
  expect(shown()).toEqual(['line 1', 'line 2', 'line 3', 'line 4', 'line 5', 'fewer'])
  press()
  await nextTick()
  expect(shown()).toHaveLength(3)
})
