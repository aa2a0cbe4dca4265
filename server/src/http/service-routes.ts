import * as wire from '#wire'
import { route, StatusAnswer, type Route } from './route.ts'
import type { Services } from './routes.ts'

/** Routes about the service itself: whether it runs, whether it can work, and what its owner should know. */
export function serviceRoutes({ store, room, backups, service }: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/health',
      summary: 'Whether the server runs',
      role: 'public',
      answer: wire.okAnswer,
      handle: () => Promise.resolve({ ok: true as const }),
    }),
    route({
      method: 'get',
      path: '/api/ready',
      summary: 'Whether it can work: its database answers, in the tables of this build, and there is room',
      role: 'public',
      answer: wire.readyAnswer,
      handle: async () => {
        const ready = (await store.answers().catch(() => false)) && !(await room.isFull())
        return ready ? { ready } : new StatusAnswer(503, { ready }, 'application/json')
      },
    }),
    route({
      method: 'get',
      path: '/api/service',
      summary: 'What the owner should know of the service: build, room, backups',
      role: 'owner',
      answer: wire.serviceAnswer,
      handle: async () => {
        const free = await room.free()
        return {
          build: service.build,
          since: service.since.toISOString(),
          free: Number.isFinite(free) ? free : null,
          room: (await room.isFull()) ? 'full' : (await room.isLow()) ? 'low' : 'enough',
          backups: await backups.state(),
        }
      },
    }),
  ]
}
