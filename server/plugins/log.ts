import { defineNitroPlugin } from 'nitropack/runtime'
import { logOf } from '../rim/log'

const begun = new WeakMap<object, number>()

/** Tells of each request of the API: what was asked for, the answer's status, and how long it took. Addresses without what follows the question mark. */
export default defineNitroPlugin((nitro) => {
  const log = logOf('server')
  nitro.hooks.hook('request', (event) => {
    begun.set(event.node.req, performance.now())
  })
  nitro.hooks.hook('afterResponse', (event) => {
    const { method } = event
    const [path = ''] = event.path.split('?')
    if (!path.startsWith('/api/')) return
    const { statusCode } = event.node.res
    const ms = Math.round(performance.now() - (begun.get(event.node.req) ?? performance.now()))
    log[statusCode >= 500 ? 'error' : 'info']({ event: 'request', method, path, status: statusCode, ms })
  })
  nitro.hooks.hook('close', () => log.info({ event: 'stopped' }))
  log.info({ event: 'started' })
})
