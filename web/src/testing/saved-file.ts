import { vi } from 'vitest'

/** Catches what a page saves on the device: the text of the last file, and its name. */
export function catchSaved(): { readonly text: () => Promise<string>; readonly name: () => string } {
  let blob: Blob | null = null
  let name = ''
  URL.createObjectURL = vi.fn((made: Blob) => {
    blob = made
    return 'blob:caught'
  })
  URL.revokeObjectURL = vi.fn()
  HTMLAnchorElement.prototype.click = function click(): void {
    name = this.download
  }
  return { text: async () => (blob ? await blob.text() : ''), name: () => name }
}
