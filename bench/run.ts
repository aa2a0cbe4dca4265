/* npm run bench: each line is a ratio against a baseline of the same run; ends with 1 when a budget is missed. */
import { bigJobBench } from './big-job.ts'
import { coreBenches } from './core.ts'
import { firstPage } from './first-page.ts'
import { print } from './measure.ts'
import { panelBenches } from './panel.ts'
import { roundTripBench } from './round-trip.ts'

const results = [...coreBenches(), ...panelBenches()]
print(results)
const page = firstPage()
if (page)
  console.log(
    `${page.within ? '✓' : '✗'} first page: ${page.kB.toFixed(0)} kB gzip = ${page.ratio.toFixed(2)} × a bare page with a table; budget at most 1.8 times`,
  )
else console.log('– first page: build the client first (npm run build)')
const big = await bigJobBench()
console.log(
  `${big.within ? '✓' : '✗'} job list while a job of 2,000 devices is opened, changed, summed up and printed: slowest ${big.slowestList.toFixed(0)} ms, median ${big.medianList.toFixed(0)} ms; event loop held at most ${big.longestHold.toFixed(0)} ms; budget 100 ms each`,
)
const trip = await roundTripBench()
print([trip])
process.exitCode =
  [...results, trip].every((result) => result.within) && page?.within !== false && big.within ? 0 : 1
