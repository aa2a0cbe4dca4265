import { extendZodWithOpenApi, OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi'
import { z } from 'zod'
import type { Route } from './route.ts'

extendZodWithOpenApi(z)

const fileShape = z.string().describe('A file')

/** The OpenAPI document made from the table of routes. */
export function openApi(routes: readonly Route[]): unknown {
  const registry = new OpenAPIRegistry()
  for (const route of routes) {
    registry.registerPath({
      method: route.method,
      path: route.path.replace(/:([a-z]+)/g, '{$1}'),
      summary: `${route.summary} (${route.role})`,
      request: {
        ...(route.params ? { params: route.params as z.ZodObject } : {}),
        ...(route.query ? { query: route.query as z.ZodObject } : {}),
        ...(route.body ? { body: { content: { 'application/json': { schema: route.body } } } } : {}),
      },
      responses: {
        200: {
          description: 'Done',
          content: route.answer
            ? { 'application/json': { schema: route.answer } }
            : { [route.file ?? 'application/json']: { schema: fileShape } },
        },
        default: {
          description: 'Problem details (RFC 9457): title, status, problems',
          content: {
            'application/problem+json': { schema: z.object({ title: z.string(), status: z.number() }) },
          },
        },
      },
    })
  }
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Kapelle',
      version: '1',
      description: 'The interface between the Kapelle client and server.',
    },
  })
}
