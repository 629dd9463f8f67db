import { pino } from 'pino'

// What is told while the application runs: one line of JSON an event. Nothing that people wrote is in it: no wording, no names of files.

const LEVELS = ['error', 'warn', 'info', 'debug']
const wished = process.env.WAX_LOG ?? ''

/** A logger for a part of the application. Without a setting only what went wrong is told. */
export const logOf = (part: 'server' | 'worker') =>
  pino({
    level: LEVELS.includes(wished) ? wished : 'error',
    base: { part },
    timestamp: pino.stdTimeFunctions.isoTime,
    formatters: { level: (label) => ({ level: label }) },
    serializers: { error: plainError },
  })

/** An error without what it is about: messages of databases hold the values that were written. */
export function plainError(error: unknown): object {
  if (!(error instanceof Error)) return { kind: typeof error }
  const { name, message, stack = '', cause } = error
  return {
    ...{ kind: name, code: (error as { code?: unknown }).code },
    message: message.split('\n')[0]!.slice(0, 200),
    at: stack
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .slice(0, 8)
      .map((line) => line.trim()),
    ...(cause === undefined ? {} : { cause: plainError(cause) }),
  }
}
