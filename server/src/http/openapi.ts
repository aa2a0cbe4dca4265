import { z } from 'zod'
import type { Route } from './route.ts'

interface ObjectSchema {
  readonly properties?: Readonly<Record<string, unknown>>
  readonly required?: readonly string[]
}

const problem = z.object({ title: z.string(), status: z.number() })

/** The OpenAPI 3.1 document of the table of routes, its schemas made by Zod as JSON Schema 2020-12. */
export function openApi(routes: readonly Route[]): unknown {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const route of routes) {
    const path = route.path.replace(/:([a-z]+)/g, '{$1}')
    const answer = route.answer
      ? content('application/json', route.answer, 'output')
      : content(route.file ?? 'application/json', z.string().describe('A file'), 'output')
    paths[path] ??= {}
    paths[path][route.method] = {
      summary: `${route.summary} (${route.role})`,
      parameters: [...parameters('path', route.params), ...parameters('query', route.query)],
      ...(route.body ? { requestBody: { content: bodyOf(route.body, route.asBytes) } } : {}),
      responses: {
        200: { description: 'Done', content: answer },
        default: {
          description: 'Problem details (RFC 9457): title, status, problems',
          content: content('application/problem+json', problem, 'output'),
        },
      },
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Kapelle',
      version: '1',
      description: 'The interface between the Kapelle client and server.',
    },
    paths,
  }
}

function bodyOf(body: z.ZodType, asBytes: boolean): object {
  return asBytes
    ? content('application/octet-stream', z.string().describe('A file'), 'input')
    : content('application/json', body, 'input')
}

function content(type: string, shape: z.ZodType, io: 'input' | 'output'): object {
  return { [type]: { schema: schemaOf(shape, io) } }
}

function parameters(place: 'path' | 'query', shape: z.ZodType | null): readonly object[] {
  if (!shape) return []
  const { properties = {}, required = [] } = schemaOf(shape, 'input') as ObjectSchema
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema,
  }))
}

/** What Zod cannot say as JSON Schema, such as a transformed value, is any value. */
function schemaOf(shape: z.ZodType, io: 'input' | 'output'): object {
  return z.toJSONSchema(shape, { io, unrepresentable: 'any' })
}
