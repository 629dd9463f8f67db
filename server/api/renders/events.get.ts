import { createEventStream } from 'h3'

/**
 * Tells of renders as they change, by server-sent events (HTML, 9.2): `render` with the render as it is listed, `gone` with the id of
 * one that was removed. What was before is not told: ask for the list when the stream opens.
 */
export default route(async (event) => {
  const stream = createEventStream(event)
  const off = onRenderEvents(
    (told) =>
      void stream
        .push(
          'gone' in told ? { event: 'gone', data: told.gone } : { event: 'render', data: JSON.stringify(told.render) },
        )
        .catch(() => {}),
  )
  stream.onClosed(async () => off())
  // Something must come at once: the answer begins with its first event. Nobody reads before it is sent.
  void stream.push({ event: 'hello', data: 'press room' }).catch(() => {})
  return stream.send()
})
