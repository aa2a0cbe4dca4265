/* npm run bench: each line is a ratio against a baseline of the same run; ends with 1 when a budget is missed. */
import { coreBenches } from './core.ts'
import { firstPage } from './first-page.ts'
import { print } from './measure.ts'
import { roundTripBench } from './round-trip.ts'

const results = coreBenches()
print(results)
const page = firstPage()
if (page)
  console.log(
    `${page.within ? '✓' : '✗'} first page: ${page.kB.toFixed(0)} kB gzip = ${page.ratio.toFixed(2)} × a bare page with a table; budget at most 1.8 times`,
  )
else console.log('– first page: build the client first (npm run build)')
const trip = await roundTripBench()
print([trip])
process.exitCode = [...results, trip].every((result) => result.within) && page?.within !== false ? 0 : 1
