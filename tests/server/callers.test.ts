import { describe, expect, test } from '@jest/globals'
import { callerFault, isFromHere } from '#server/rim/callers'
import { bearer, newToken, tokenHash } from '#server/rim/tokens'
import { contentPolicy } from '#server/rim/policy'

const code = (host: string | undefined, method = 'GET', origin?: string, allowed: string[] = []) =>
  callerFault({ host, origin, method }, allowed)?.code ?? null

describe('who is answered', () => {
  test.each(['127.0.0.1:4100', '127.8.9.1', 'localhost:80', 'LOCALHOST', '[::1]:4100'])('%s: this machine', (host) =>
    expect(code(host)).toBeNull(),
  )

  test.each([undefined, '', 'evil.example', '127.0.0.1.evil.example:4100', '10.0.0.7', 'localhost.evil.example'])(
    '%s: nobody that is known',
    (host) => expect(code(host)).toBe('unknown-host'),
  )

  test('names of the allow-list are known, whatever their port', () => {
    expect(code('edit.quay:8080', 'GET', undefined, ['edit.quay'])).toBeNull()
    expect(code('other.quay:8080', 'GET', undefined, ['edit.quay'])).toBe('unknown-host')
  })

  test('what writes comes from a page of the same origin, or from no page', () => {
    const host = '127.0.0.1:4100'
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH']) {
      expect(code(host, method, 'http://127.0.0.1:4100')).toBeNull()
      expect(code(host, method)).toBeNull()
      for (const origin of [
        'http://evil.example',
        'null',
        'http://127.0.0.1:4101',
        'http://localhost:4100',
        'nonsense',
      ])
        expect(code(host, method, origin)).toBe('foreign-page')
    }
    // A read gives nothing away: no page elsewhere may see its answer.
    expect(code(host, 'GET', 'http://evil.example')).toBeNull()
  })
})

test('the policy of pages lets scripts in by hash alone', () => {
  const policy = contentPolicy(["'sha256-abc='"])
  expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval' 'sha256-abc='")
  expect(policy).not.toMatch(/script-src[^;]*('unsafe-inline'|'unsafe-eval'|https?:|\*)/)
  expect(policy).toContain("frame-ancestors 'none'")
})

test('a token is asked for by every name but the machine’s own, and from every other machine whatever it calls this one', () => {
  const own = ['localhost', 'localhost:3000', '127.0.0.1:80', '127.9.9.9', '[::1]:3000']
  for (const host of own) {
    for (const address of ['127.0.0.1', '::1', '::ffff:127.0.0.1']) {
      expect([host, isFromHere(host, address)]).toEqual([host, true])
    }
    for (const address of ['10.0.0.9', 'fe80::1', '::ffff:10.0.0.9', '::127.0.0.1', '', undefined]) {
      expect([address, isFromHere(host, address)]).toEqual([address, false])
    }
  }
  for (const host of ['studio.example', '10.0.0.7:3000', '127.0.0.1.example', 'localhost.example', '', undefined]) {
    expect([host, isFromHere(host, '127.0.0.1')]).toEqual([host, false])
  }
})

test('tokens are read as RFC 6750 writes them, are never the same, and are kept as SHA-256', () => {
  // FIPS 180-2, appendix B.1.
  expect(tokenHash('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad')
  const token = newToken()
  expect(bearer(`Bearer ${token}`)).toBe(token)
  expect(bearer(`bearer   ${token} `)).toBe(token)
  for (const header of [undefined, '', token, 'Basic abc', 'Bearer', 'Bearer a b']) expect(bearer(header)).toBeNull()
  expect(new Set(Array.from({ length: 100 }, newToken)).size).toBe(100)
  expect(token.length).toBeGreaterThan(32)
})
