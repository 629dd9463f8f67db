import { OPEN_DOORS } from '#open-doors'
import { defineNitroPlugin } from 'nitropack/runtime'
import { eventHandler, setResponseHeader } from 'h3'
import { createHash } from 'node:crypto'
import { callerFault, isFromHere } from '../rim/callers'
import { isOpen, ODD_ADDRESS, routedPath } from '../rim/doors'
import { contentPolicy } from '../rim/policy'

/**
 * The outermost rim: who may ask is looked at before anything else answers, files included, and pages carry a policy that
 * lets nothing in from elsewhere.
 */
export default defineNitroPlugin((nitro) => {
  const { allowedHosts } = useRuntimeConfig()
  const allowed = String(allowedHosts)
    .split(/[\s,]+/)
    .filter(Boolean)
  nitro.h3App.stack.unshift({
    route: '/',
    handler: eventHandler(async (event) => {
      const { headers, method = 'GET', originalUrl = '', socket } = event.node.req as OriginalRequest
      const fault = callerFault({ host: headers.host, origin: headers.origin, method }, allowed)
      if (fault) throw refusal(403, fault)
      const path = routedPath(originalUrl)
      if (path === null) throw refusal(400, ODD_ADDRESS)
      // From elsewhere, or by another name than this machine's own, only those are let in who have a token.
      if (!isFromHere(headers.host, socket.remoteAddress) && !isOpen(method, path, OPEN_DOORS))
        await requireToken(event)
    }),
  })
  nitro.hooks.hook('render:response', (response, { event }) => {
    const scripts = [...String(response.body).matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)]
    const hashes = scripts.map(([, text]) => `'sha256-${createHash('sha256').update(text!).digest('base64')}'`)
    setResponseHeader(event, 'content-security-policy', contentPolicy(hashes))
    delete response.headers?.['x-powered-by']
  })
})

/** A request as it came over the wire: h3 keeps its address before it reads it. */
type OriginalRequest = import('node:http').IncomingMessage & { originalUrl?: string }
