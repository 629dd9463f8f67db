import { onScopeDispose, ref, toRaw, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** What the bench tells the window that shows its picture. */
export type ShowMessage = { card: Card } | { frame: number } | 'begun'
/** What that window tells the bench. */
export type ShowAnswer = 'here' | 'gone'

export const channelOf = (id: string) => new BroadcastChannel(`wax-show-${id}`)

/** Keeps the window that shows the card alone, on a second screen, in step with the bench. */
export function useShowing(id: string) {
  const bench = useBench()
  const ribbon = useRibbon()
  const channel = channelOf(id)
  /** Nothing is sent while nobody looks. */
  const watched = ref(false)
  const send = (message: ShowMessage) => channel.postMessage(message)
  const tell = () => bench.card && send({ card: toRaw(bench.card) })

  channel.onmessage = ({ data }: MessageEvent<ShowAnswer>) => {
    watched.value = data === 'here'
    if (!watched.value) return
    tell()
    send({ frame: ribbon.frame })
  }
  watch(
    () => bench.card,
    () => watched.value && tell(),
  )
  watch(
    () => ribbon.frame,
    (frame) => watched.value && send({ frame }),
  )
  // A window that was open before answers.
  send('begun')
  onScopeDispose(() => channel.close())

  const open = () => window.open(`/show/${id}`, `wax-show-${id}`, 'popup,width=960,height=540')
  return { open, watched }
}
