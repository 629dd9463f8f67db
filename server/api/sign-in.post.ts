import { setCookie } from 'h3'
import { z } from 'zod'

const schema = z.object({ token: z.string().min(1).max(200) })

/** Keeps a token in a browser's cookie, for pages that come by another name than this machine's own. */
export default route(async (event) => {
  const token = (await bodyAs(event, schema)).token.trim()
  if (!(await isToken(token))) {
    throw refusal(401, {
      code: 'wrong-token',
      place: 'token',
      message: 'This token is not known here: it may have been withdrawn.',
      remedy: 'Ask for a new one at the server’s machine: press room, Workers.',
    })
  }
  const secure = event.node.req.headers['x-forwarded-proto'] === 'https'
  setCookie(event, TOKEN_COOKIE, token, { httpOnly: true, sameSite: 'strict', secure, path: '/', maxAge: YEAR })
  return { well: true }
})

const YEAR = 365 * 24 * 60 * 60
