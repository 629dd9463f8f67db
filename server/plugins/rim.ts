import { defineNitroPlugin } from 'nitropack/runtime'
import { eventHandler, setResponseHeader } from 'h3'
import { createHash } from 'node:crypto'
import { callerFault, isFromHere } from '../rim/callers'
import { contentPolicy } from '../rim/policy'

const SIGN_IN = '/api/sign-in'

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
      const { headers, method = 'GET', url = '/', socket } = event.node.req
      const fault = callerFault({ host: headers.host, origin: headers.origin, method }, allowed)
      if (fault) throw refusal(403, fault)
      // From elsewhere, or by another name than this machine's own, only those are let in who have a token; the page that asks for it
      // is no secret.
      const isAsking = url.startsWith('/api/') && !url.startsWith(SIGN_IN)
      if (isAsking && !isFromHere(headers.host, socket.remoteAddress)) await requireToken(event)
    }),
  })
  nitro.hooks.hook('render:response', (response, { event }) => {
    const scripts = [...String(response.body).matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)]
    const hashes = scripts.map(([, text]) => `'sha256-${createHash('sha256').update(text!).digest('base64')}'`)
    setResponseHeader(event, 'content-security-policy', contentPolicy(hashes))
    delete response.headers?.['x-powered-by']
  })
})
