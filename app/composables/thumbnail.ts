import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import type { Card } from '#core/card/schema'
import { perSecond } from '#core/values/rate'
import { forgetCard, pictureOf, setCard } from '~/workers/engine-pool'

/** Pictures a second while a thumbnail plays. */
const PACE = 15

/**
 * A small picture of a card from the engine, which plays while it is asked to. It is first made when it is `near`: a shelf
 * of hundreds of cards asks for those that can be seen.
 */
export function useThumbnail(
  name: string,
  /** Null until it is known. */
  card: Ref<Card | null>,
  width: number | (() => number),
  near: Ref<boolean> = ref(true),
  /** The frame that is shown at rest; by default from where most cards are whole, the middle of the loop. */
  still: () => number = () => Math.floor((card.value?.length ?? 0) / 2),
) {
  const picture = shallowRef<ImageBitmap | null>(null)
  const playing = ref(false)
  const progress = ref(0)
  const kept = new Map<number, ImageBitmap>()
  let timer: ReturnType<typeof setTimeout> | undefined
  let closed = false
  let version = 0

  const wide = () => (typeof width === 'number' ? width : width())
  const scale = () => Math.min(1, (wide() * window.devicePixelRatio) / (card.value?.frame.width ?? 1))

  async function show(frame: number) {
    const made = version
    let bitmap = kept.get(frame)
    if (!bitmap) {
      const shown = await pictureOf(name, frame, { scale: scale() })
      if ('fault' in shown) return
      bitmap = shown.bitmap
      if (closed || made !== version) {
        bitmap.close()
        return
      }
      kept.set(frame, bitmap)
    }
    picture.value = bitmap
  }

  async function play() {
    const started = performance.now()
    const from = still()
    while (playing.value && !closed && card.value) {
      const { rate, length } = card.value
      const exact = from + ((performance.now() - started) / 1000) * perSecond(rate)
      const step = Math.max(1, Math.round(perSecond(rate) / PACE))
      const frame = (Math.floor(exact / step) * step) % length
      await show(frame)
      progress.value = frame / length
      await new Promise((go) => (timer = setTimeout(go, 1000 / PACE)))
    }
    progress.value = 0
    if (!closed && card.value) await show(still())
  }

  function renew() {
    version++
    for (const bitmap of kept.values()) if (bitmap !== picture.value) bitmap.close()
    kept.clear()
    if (!card.value) return
    setCard(name, card.value)
    void show(still())
  }

  watch([card, near, wide], () => near.value && renew(), { immediate: true })
  watch(playing, (now) => now && void play())
  onScopeDispose(() => {
    closed = true
    clearTimeout(timer)
    for (const bitmap of kept.values()) bitmap.close()
    if (near.value) forgetCard(name)
  })

  return { picture, playing, progress }
}
