import { describePlans } from './testing/plan-table.ts'

describePlans('plans that endanger', new URL('./endangers.csv', import.meta.url))
