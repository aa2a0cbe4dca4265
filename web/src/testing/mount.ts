import { createApp, h, nextTick, reactive, type Component } from 'vue'

/** A component on a page of its own, for tests. */
export interface Mounted {
  readonly host: HTMLElement
  /** Changes props, then waits for the page. */
  set(props: Record<string, unknown>): Promise<void>
  unmount(): void
}

/** Puts a component on the page; `props` may hold listeners such as `onChange`. */
export function mount(component: Component, props: Record<string, unknown> = {}): Mounted {
  const state = reactive({ ...props })
  const host = document.createElement('div')
  document.body.append(host)
  const app = createApp({ render: () => h(component, state) })
  app.mount(host)
  return {
    host,
    async set(next) {
      Object.assign(state, next)
      await nextTick()
    },
    unmount() {
      app.unmount()
      host.remove()
    },
  }
}
