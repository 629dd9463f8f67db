import { describe, expect, test } from '@jest/globals'
import { callerFault } from '#server/rim/callers'
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
