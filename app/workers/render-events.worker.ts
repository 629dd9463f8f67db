import { OneStream, SAID_AGAIN } from '../composables/one-stream'
import type { TabSays } from '../composables/one-stream'
import { RENDER_EVENTS, RENDER_STREAM } from '../composables/render-stream'

// Shared by all tabs: what happens to renders comes to the browser once.

const stream = new OneStream(() => new EventSource(RENDER_STREAM), RENDER_EVENTS)
setInterval(() => stream.sweep(), SAID_AGAIN)

const own = globalThis as unknown as { onconnect: (event: MessageEvent) => void }
own.onconnect = ({ ports }) => {
  for (const port of ports) {
    port.onmessage = ({ data }: MessageEvent<TabSays>) => stream.says(port, data)
    port.start()
  }
}
