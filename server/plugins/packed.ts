import { appendResponseHeader, getRequestHeader, getResponseHeader, setResponseHeader } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'
import { packed } from '../rim/packed'

/** Answers of the API go out packed; files of their own kind are packed already, or cannot be made smaller. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('beforeResponse', async (event, response) => {
    const { body } = response
    const isJson = typeof body === 'object' && body !== null && (Array.isArray(body) || isPlain(body))
    if (!isJson || !event.path.startsWith('/api/') || getResponseHeader(event, 'content-encoding')) return
    const text = JSON.stringify(body)
    appendResponseHeader(event, 'vary', 'accept-encoding')
    const smaller = await packed(text, getRequestHeader(event, 'accept-encoding'))
    if (!smaller) return
    if (!getResponseHeader(event, 'content-type')) setResponseHeader(event, 'content-type', 'application/json')
    setResponseHeader(event, 'content-encoding', smaller.encoding)
    response.body = smaller.bytes
  })
})

const isPlain = (value: object) => Object.getPrototypeOf(value) === Object.prototype
