import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import type { Card } from '#core/card/schema'
import { perSecond } from '#core/values/rate'
import { forgetCard, inTurn, pictureOf, setCard } from '~/workers/engine-pool'
import { useScrolling } from './scrolling'

/** Pictures a second while a thumbnail plays. */
const PACE = 15

/**
 * A small picture of a card from the engine, which plays while it is asked to. It is made when it is `near` and nothing
 * scrolls: a shelf of hundreds of cards asks for those that are looked at.
 */
export function useThumbnail(
  name: string,
  /** Null until it is known. */
  card: Ref<Card | null>,
  width: number | (() => number),
  near: Ref<boolean> = ref(true),
  /** The frame that is shown at rest; by default from where most cards are whole, the middle of the loop. */
  still: () => number = () => Math.floor((card.value?.length ?? 0) / 2),
  /** Told of each picture at rest that was made. */
  made: (still: ImageBitmap) => void = () => {},
) {
  const picture = shallowRef<ImageBitmap | null>(null)
  const playing = ref(false)
  const progress = ref(0)
  const kept = new Map<number, ImageBitmap>()
  let timer: ReturnType<typeof setTimeout> | undefined
  let closed = false
  let version = 0
  /** Whether the engines know the name, the card as it is now, and were asked for its still picture. */
  let known = false
  let told = false
  let asked = false

  const wide = () => (typeof width === 'number' ? width : width())
  const scale = () => Math.min(1, (wide() * window.devicePixelRatio) / (card.value?.frame.width ?? 1))

  async function show(frame: number) {
    const asFor = version
    let bitmap = kept.get(frame)
    if (!bitmap) {
      const shown = await pictureOf(name, frame, { scale: scale() })
      if ('fault' in shown) return
      bitmap = shown.bitmap
      if (closed || asFor !== version) {
        bitmap.close()
        return
      }
      kept.set(frame, bitmap)
      if (frame === still()) made(bitmap)
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
      tell()
      await show(frame)
      progress.value = frame / length
      await new Promise((go) => (timer = setTimeout(go, 1000 / PACE)))
    }
    progress.value = 0
    if (!closed && card.value) await show(still())
  }

  /** The card is another, or larger: what was made of it counts no more. */
  function forget() {
    version++
    told = asked = false
    for (const bitmap of kept.values()) if (bitmap !== picture.value) bitmap.close()
    kept.clear()
  }

  function tell() {
    if (told || !card.value) return
    known = told = true
    setCard(name, card.value)
  }

  const scrolling = useScrolling()
  const wanted = () => near.value && !scrolling.value && !asked && !closed && card.value !== null

  async function begin() {
    tell()
    asked = true
    await show(still())
  }

  function make() {
    const asFor = version
    if (wanted()) void inTurn(begin, () => asFor === version && wanted())
  }

  watch([card, wide], forget)
  watch([card, wide, near, scrolling], make, { immediate: true })
  // One that is asked to play may wait for its card.
  watch([playing, () => card.value !== null], ([now, there]) => now && there && void play())
  onScopeDispose(() => {
    closed = true
    clearTimeout(timer)
    for (const bitmap of kept.values()) bitmap.close()
    if (known) forgetCard(name)
  })

  return { picture, playing, progress }
}
