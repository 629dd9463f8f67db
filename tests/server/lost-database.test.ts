import { expect, test } from '@jest/globals'
import { isLostDatabase } from '#server/rim/lost-database'

const coded = (code: unknown, message = 'no') => Object.assign(new Error(message), { code })

test.each(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'CONNECTION_CLOSED', 'CONNECT_TIMEOUT', '57P01', '57P02', '57P03'])(
  '%s: the database is lost, as it is where that is the cause',
  (code) => {
    expect(isLostDatabase(coded(code))).toBe(true)
    expect(isLostDatabase(new Error('query failed', { cause: coded(code) }))).toBe(true)
  },
)

// PostgreSQL manual, appendix A: 23505 is a value that is there already, 57014 a query that was cancelled.
test.each([undefined, '23505', '57014', 503])('%s is another fault, whatever its words', (code) => {
  expect(isLostDatabase(coded(code, 'the database system is starting up'))).toBe(false)
})

test('what is no error at all is another fault too', () => {
  expect(['starting up', null, 7].map((thrown) => isLostDatabase(thrown))).toEqual([false, false, false])
})
