import type { z } from 'zod'

/** What comes or goes: a value of a schema as JSON, or a file. */
export type Content = { json: z.ZodType } | { file: string; help: string }

/** A thing that a program can ask of the server. The document, its page and the tests are made from these. */
export interface Operation {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete'
  /** Below `/api`, with parameters as `{id}`. */
  path: string
  /** One sentence. */
  summary: string
  more?: string
  /** Values in the address after the question mark, each with what it is. */
  query?: Record<string, { help: string; required?: boolean }>
  body?: Content
  answer: Content
  /** Codes of what can be refused, beside 404 where there is an id: HTTP status by when that is. */
  refuses?: Record<number, string>
}

export interface Chapter {
  name: string
  help: string
  operations: readonly Operation[]
}
