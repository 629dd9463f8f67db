import { readFile } from 'node:fs/promises'
import { z } from 'zod'
import { sealSchema } from '../../core/seals/schema'
import { CHAPTERS } from './chapters'
import type { Content, Operation } from './operation'
import * as schemas from './schemas'

// The routes as an OpenAPI 3.1 document (OpenAPI Specification 3.1.1), made from their table and from the schemas by which requests
// are read.

/** Schemas that have a name of their own in the document. */
const NAMED = {
  Card: schemas.card,
  Render: schemas.render,
  RenderWish: schemas.wish,
  Seal: sealSchema,
  Proof: schemas.proof,
  Sidecar: schemas.sidecar,
  Fault: schemas.fault,
}

const registry = z.registry<{ id: string }>()
for (const [id, schema] of Object.entries(NAMED)) registry.add(schema, { id })

const SETTINGS = { target: 'draft-2020-12', io: 'input', unrepresentable: 'any' } as const
const place = (id: string) => `#/components/schemas/${id}`

/** A schema of its own; those with names are referred to. */
function jsonOf(schema: z.ZodType): object {
  const known = registry.get(schema)
  if (known) return { $ref: place(known.id) }
  if (schema instanceof z.ZodArray) return { type: 'array', items: jsonOf(schema.element as z.ZodType) }
  if (schema instanceof z.ZodObject) {
    const parts = Object.entries(schema.shape as Record<string, z.ZodType>)
    const required = parts.filter(([, part]) => !part.isOptional()).map(([name]) => name)
    return {
      type: 'object',
      properties: Object.fromEntries(parts.map(([name, part]) => [name, jsonOf(unwrapped(part))])),
      ...(required.length > 0 ? { required } : {}),
    }
  }
  return plain(z.toJSONSchema(schema, SETTINGS))
}

/** Without the name of its language: the document's own is the same. */
function plain(schema: Record<string, unknown>): Record<string, unknown> {
  delete schema.$schema
  return schema
}

const unwrapped = (schema: z.ZodType): z.ZodType =>
  schema instanceof z.ZodOptional && registry.get(schema.unwrap() as z.ZodType)
    ? (schema.unwrap() as z.ZodType)
    : schema

/** JSON schemas of those with names, which may have parts of their own. */
function components(): Record<string, object> {
  return Object.fromEntries(
    Object.entries(NAMED).map(([id, schema]) => {
      // What a schema refers to within itself lies within its place in the document.
      const text = JSON.stringify(plain(z.toJSONSchema(schema, { ...SETTINGS, reused: 'ref' })))
        .replaceAll('"$ref":"#/$defs/', `"$ref":"${place(id)}/$defs/`)
        .replaceAll('"$ref":"#"', `"$ref":"${place(id)}"`)
      return [id, JSON.parse(text) as object]
    }),
  )
}

const contentOf = (content: Content) =>
  'json' in content
    ? { 'application/json': { schema: jsonOf(content.json) } }
    : { [content.file]: { schema: { type: 'string', format: 'binary' } } }

function operationOf(operation: Operation, chapter: string) {
  const { summary, more, body, answer, query = {}, refuses = {}, path, method } = operation
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name!)
  const all = inPath.length > 0 ? { 404: 'There is no such thing', ...refuses } : refuses
  const parameters = [
    ...inPath.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
    ...Object.entries(query).map(([name, { help, required = false }]) => ({
      ...{ name, in: 'query', required, description: help, schema: { type: 'string' } },
    })),
  ]
  const refusals = Object.entries(all).map(([status, when]) => [
    status,
    { description: when, content: { 'application/json': { schema: jsonOf(schemas.refused) } } },
  ])
  return {
    operationId: `${method} ${path}`.replace(/[^a-z]+/gi, '-').replace(/-$/, ''),
    tags: [chapter],
    summary,
    ...(more ? { description: more } : {}),
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(body ? { requestBody: { required: true, content: contentOf(body) } } : {}),
    responses: {
      200: { description: 'json' in answer ? 'As described' : answer.help, content: contentOf(answer) },
      ...Object.fromEntries(refusals),
    },
  }
}

/** The document. */
export async function openApiDocument(): Promise<object> {
  const { version } = JSON.parse(await readFile('package.json', 'utf8')) as { version: string }
  const paths: Record<string, Record<string, object>> = {}
  for (const { name, operations } of CHAPTERS) {
    for (const operation of operations) {
      paths[operation.path] = { ...paths[operation.path], [operation.method]: operationOf(operation, name) }
    }
  }
  return {
    openapi: '3.1.1',
    info: {
      title: 'Wax Ribbon',
      version,
      description:
        'Cards, what they show, and renders with verified transparency. What is refused answers with a fault that names its ' +
        'place and what to do. On the server’s own machine no token is asked for; elsewhere send one as `Authorization: Bearer`.',
    },
    servers: [{ url: '/api' }],
    security: [{}, { token: [] }],
    tags: CHAPTERS.map(({ name, help }) => ({ name, description: help })),
    paths,
    components: {
      schemas: components(),
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer', description: 'Made in the press room, under Workers.' },
      },
    },
  }
}
