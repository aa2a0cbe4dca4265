// A worker thread has no TypeScript of its own here: this registers it, then loads the worker proper.
import { register } from 'tsx/esm/api'

register()
await import('./judging-worker.ts')
