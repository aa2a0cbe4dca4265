import type { Directive } from 'vue'

/**
 * Where a table finds no room its rows stand as blocks, each cell under the name of its column (`table.stacked` in style.css);
 * where it finds room again it is a table again.
 */
export const vStack: Directive<HTMLTableElement> = {
  mounted(table) {
    nameCells(table)
    fit(table)
    const box = table.parentElement
    if (!box || typeof ResizeObserver === 'undefined') return
    const watch = new ResizeObserver(() => fit(table))
    watch.observe(box)
    // Fonts and lists that load late change what it needs.
    watch.observe(table)
    // Rows come and go without the table being told.
    const rows = new MutationObserver(() => nameCells(table))
    rows.observe(table, { childList: true, subtree: true })
    watchers.set(table, [watch, rows])
  },
  updated(table) {
    nameCells(table)
    fit(table)
  },
  beforeUnmount(table) {
    for (const watch of watchers.get(table) ?? []) watch.disconnect()
  },
}

const watchers = new WeakMap<HTMLTableElement, readonly { disconnect(): void }[]>()
/** Width that a table needed when it found no room, px. */
const needed = new WeakMap<HTMLTableElement, number>()

/** Rows that span columns are left as they are. */
function nameCells(table: HTMLTableElement): void {
  const names = [...table.querySelectorAll('thead th')].map((head) =>
    // What is said to screen readers alone, such as “Acts”, is no name to show.
    head.querySelector('.sr-only') ? '' : head.textContent.trim(),
  )
  for (const row of table.querySelectorAll<HTMLTableRowElement>('tbody > tr')) {
    const cells = [...row.querySelectorAll<HTMLElement>(':scope > td, :scope > th')]
    if (cells.length !== names.length) continue
    cells.forEach((cell, index) => (cell.dataset.column = names[index] ?? ''))
  }
}

function fit(table: HTMLTableElement): void {
  const box = table.parentElement
  if (!box) return
  const { paddingLeft, paddingRight } = getComputedStyle(box)
  const room =
    box.clientWidth - (Number.parseFloat(paddingLeft) || 0) - (Number.parseFloat(paddingRight) || 0)
  if (table.classList.contains('stacked')) {
    if (room >= (needed.get(table) ?? 0)) table.classList.remove('stacked')
    else return
  }
  // Laid out as a table it is as wide as it must be, whatever room there is.
  if (table.offsetWidth > room + 1) {
    needed.set(table, table.offsetWidth)
    table.classList.add('stacked')
  }
}
