import { pathToFileURL } from 'node:url'
import { programFile } from './src/program.mjs'

// Runs one of the server's programs: node server/run.mjs launch status
const [node = '', , name, ...words] = process.argv
const file = programFile(/** @type {'launch' | 'server'} */ (name))
process.argv = [node, file, ...words]
await import(pathToFileURL(file).href)
