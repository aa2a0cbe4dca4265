import { createApp, h, nextTick, type App } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import LongList from './LongList.vue'

/** What is on screen, told by hand: nothing is laid out here. */
let observers: { tell: (seen: (part: Element) => boolean) => void }[] = []
class Observer {
  private readonly parts = new Set<Element>()
  constructor(private readonly told: (entries: object[]) => void) {
    observers.push({
      tell: (seen) => {
        const time = performance.now()
        for (const target of this.parts) this.told([{ target, isIntersecting: seen(target), time }])
      },
    })
  }
  observe(part: Element): void {
    this.parts.add(part)
  }
  unobserve(part: Element): void {
    this.parts.delete(part)
  }
  disconnect(): void {
    this.parts.clear()
  }
}

beforeEach(() => {
  observers = []
  vi.stubGlobal('IntersectionObserver', Observer)
  Element.prototype.scrollIntoView = () => undefined
})
afterEach(() => vi.unstubAllGlobals())

let host: HTMLElement
let app: App
afterEach(() => {
  app.unmount()
  host.remove()
})

function listOf(count: number, show: string | null = null) {
  const items = Array.from({ length: count }, (_, index) => ({ id: `row:${index + 1}` }))
  host = document.body.appendChild(document.createElement('table'))
  const row = ({ item }: { item: { id: string } }) =>
    h('tr', { id: item.id }, [h('td', [h('input', { 'aria-label': item.id })])])
  app = createApp(() => h(LongList, { items, row: 40, show }, { default: row }))
  app.mount(host)
  const rows = () => [...host.querySelectorAll('tr[id]')].map(({ id }) => id)
  const scroll = async (seen: (part: Element) => boolean) => {
    await nextTick()
    for (const observer of observers) observer.tell(seen)
    await nextTick()
  }
  return { rows, scroll, parts: [...host.querySelectorAll('tbody')] }
}

const numbers = (from: number, to: number) =>
  Array.from({ length: to - from + 1 }, (_, index) => `row:${from + index}`)

describe('a list of many rows', () => {
  it('is there as a whole up to 96', () => {
    expect(listOf(96).rows()).toEqual(numbers(1, 96))
  })

  it('begins with its first 24, and keeps room for the others', () => {
    const { rows } = listOf(97)
    expect(rows()).toEqual(numbers(1, 24))
    const rooms = [...host.querySelectorAll<HTMLElement>('tr.unseen td')].map(({ style }) => style.height)
    expect(rooms).toEqual(['960px', '960px', '960px', '40px'])
  })

  it('shows what comes near, and lets go of what is far again', async () => {
    const { rows, parts, scroll } = listOf(200)
    await scroll((part) => part === parts[2])
    expect(rows()).toEqual([...numbers(1, 24), ...numbers(49, 72)])
    await scroll(() => false)
    expect(rows()).toEqual(numbers(1, 24))
  })

  it('keeps what is typed in, unfolded or refused', async () => {
    const { rows, parts, scroll } = listOf(200)
    await scroll((part) => parts.slice(1, 4).some((one) => one === part))
    host.querySelector<HTMLInputElement>('[aria-label="row:30"]')?.focus()
    host.querySelector('[aria-label="row:50"]')?.setAttribute('aria-invalid', 'true')
    await scroll(() => false)
    expect(rows()).toEqual(numbers(1, 72))
  })

  it('has the part of the row that is gone to', () => {
    expect(listOf(200, 'row:199').rows()).toEqual([...numbers(1, 24), ...numbers(193, 200)])
  })

  it('is whole on paper', async () => {
    const { rows } = listOf(200)
    window.dispatchEvent(new Event('beforeprint'))
    await nextTick()
    expect(rows()).toEqual(numbers(1, 200))
  })
})
