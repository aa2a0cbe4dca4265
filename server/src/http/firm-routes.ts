import { z } from 'zod'
import { houseRulesSchema, deviceColumns, listColumns, priceColumns } from '#core'
import { columnsAnswer, rulesAnswer, rulesPreview } from '#wire'
import type { Store } from '../db/store.ts'
import type { Jobs } from '../jobs/jobs.ts'
import type { Summaries } from '../jobs/summaries.ts'
import { AppError } from '../errors/app-error.ts'
import { route, StatusAnswer, type Route } from './route.ts'

/** Routes for what a firm has set for itself. */
export function firmRoutes({
  store,
  jobs,
  summaries,
}: {
  readonly store: Store
  readonly jobs: Jobs
  readonly summaries: Summaries
}): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/house-rules',
      summary: "The firm's house rules",
      role: 'viewer',
      answer: rulesAnswer,
      handle: async ({ who }) => store.settingsOf(who.firmId).houseRules(),
    }),
    route({
      method: 'put',
      path: '/api/house-rules',
      summary: 'Change the house rules, from the revision that was seen',
      role: 'installer',
      right: 'rules',
      body: z.object({ rules: houseRulesSchema, revision: z.number().int().min(0) }),
      answer: rulesAnswer,
      handle: async ({ who, body }) => {
        const revision = await store.settingsOf(who.firmId).setHouseRules(body.rules, body.revision)
        if (revision !== null) {
          summaries.nudge()
          return { rules: body.rules, revision }
        }
        return new StatusAnswer(409, {
          type: 'urn:kapelle:error:conflict',
          title:
            'Someone changed the house rules in the meantime: yours were not saved. Look at theirs first.',
          status: 409,
          ...(await store.settingsOf(who.firmId).houseRules()),
        })
      },
    }),
    route({
      method: 'post',
      path: '/api/house-rules/preview',
      summary: 'Which jobs would get or lose findings under other house rules; nothing is saved',
      role: 'installer',
      right: 'rules',
      body: z.object({ rules: houseRulesSchema }),
      answer: rulesPreview,
      handle: async ({ who, body }) => jobs.underRules(who, body.rules),
    }),
    route({
      method: 'get',
      path: '/api/list-columns',
      summary: "What headings of this firm's equipment lists mean",
      role: 'installer',
      answer: columnsAnswer,
      handle: async ({ who }) => ({ columns: await store.settingsOf(who.firmId).columns() }),
    }),
    route({
      method: 'put',
      path: '/api/list-columns',
      summary: 'Remember what headings mean',
      role: 'installer',
      right: 'columns',
      body: z.object({
        columns: z.record(
          z.string().min(1).max(60),
          z.enum([...new Set([...listColumns, ...priceColumns, ...deviceColumns]), 'nothing']),
        ),
      }),
      answer: columnsAnswer,
      handle: async ({ who, body }) => {
        if (Object.keys(body.columns).length > 100)
          throw new AppError('INVALID', 'Nothing was remembered.', [
            { path: 'columns', message: 'must name at most 100 headings' },
          ])
        await store.settingsOf(who.firmId).addColumns(body.columns)
        return { columns: await store.settingsOf(who.firmId).columns() }
      },
    }),
  ]
}
