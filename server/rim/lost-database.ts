/** Codes of Node, of the driver and of PostgreSQL (57P01 to 57P03: ended, crashed, not ready yet). */
const LOST = /^(ECONNREFUSED|ECONNRESET|EPIPE|ENOTFOUND|CONNECT_TIMEOUT|CONNECTION_\w+|57P0[123])$/

/** Whether an error says that the database cannot be reached. Codes tell, not words: a card may hold any words. */
export function isLostDatabase(error: unknown): boolean {
  const { code, cause } = Object(error) as { code?: unknown; cause?: { code?: unknown } | null }
  return [code, cause?.code].some((one) => typeof one === 'string' && LOST.test(one))
}
