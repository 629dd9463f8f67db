import type { TabHears, TabSays } from './one-stream'
import { OneStream, SAID_AGAIN } from './one-stream'

export const RENDER_STREAM = '/api/renders/events'
export const RENDER_EVENTS = ['render', 'gone']

/** The way to the stream that all tabs share; where the browser has no shared workers, to one of this tab's own. */
function wayToStream(hear: (message: TabHears) => void): { say: (word: TabSays) => void; close: () => void } {
  if (typeof SharedWorker === 'undefined') {
    const own = new OneStream(() => new EventSource(RENDER_STREAM), RENDER_EVENTS)
    const tab = { postMessage: hear }
    return { say: (word) => own.says(tab, word), close: () => own.says(tab, 'hidden') }
  }
  const { port } = new SharedWorker(new URL('../workers/render-events.worker.ts', import.meta.url), {
    ...{ type: 'module', name: 'wax-render-events' },
  })
  port.onmessage = ({ data }: MessageEvent<TabHears>) => hear(data)
  const say = (word: TabSays) => port.postMessage(word)
  return {
    say,
    close: () => {
      say('hidden')
      port.close()
    },
  }
}

/** Hears of renders while the tab is looked at, until the function that is given back is called. */
export function hearOfRenders(hear: (message: TabHears) => void): () => void {
  const way = wayToStream(hear)
  const say = () => way.say(document.visibilityState === 'visible' ? 'shown' : 'hidden')
  const leave = () => way.say('hidden')
  document.addEventListener('visibilitychange', say)
  window.addEventListener('pageshow', say)
  window.addEventListener('pagehide', leave)
  const again = setInterval(say, SAID_AGAIN)
  say()
  return () => {
    clearInterval(again)
    document.removeEventListener('visibilitychange', say)
    window.removeEventListener('pageshow', say)
    window.removeEventListener('pagehide', leave)
    way.close()
  }
}
