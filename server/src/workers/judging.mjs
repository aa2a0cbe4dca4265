// A worker thread has no TypeScript of its own here: this registers it, then loads the worker proper.
import { setPriority } from 'node:os'
import { register } from 'tsx/esm/api'

// On Linux a thread has a priority of its own: answers to people come before what is reckoned behind them. Elsewhere it would
// be that of the whole process, so it stays.
if (process.platform === 'linux') setPriority(0, 10)
register()
await import('./judging-worker.ts')
