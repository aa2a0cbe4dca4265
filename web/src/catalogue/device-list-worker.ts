import { Catalogue, readDeviceList, writeDeviceList, type DeviceList, type KeptEntry } from '#core'

/** What the page asks of the worker: a list to read, or the catalogue's devices to write. */
export interface DeviceListRequest {
  readonly entries: readonly KeptEntry[]
  /** The text of the list and what its headings mean; null where the devices are to be written. */
  readonly read: { readonly text: string; readonly meanings: Readonly<Record<string, string>> } | null
}
/** What the worker gives. */
export type DeviceListAnswer = { readonly list: DeviceList } | { readonly text: string }

/** Five hundred rows take seconds on a phone: they are read off the main thread. */
self.onmessage = (event: MessageEvent<DeviceListRequest>) => {
  const { entries, read } = event.data
  const catalogue = new Catalogue(entries)
  const answer: DeviceListAnswer = read
    ? { list: readDeviceList(read.text, catalogue, read.meanings) }
    : { text: writeDeviceList(catalogue) }
  self.postMessage(answer)
}
