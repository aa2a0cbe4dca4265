import { setPriority } from 'node:os'

// On Linux a thread has a priority of its own: answers to people come before what is reckoned behind them. Elsewhere it would
// be that of the whole process, so it stays.
if (process.platform === 'linux') setPriority(0, 10)
