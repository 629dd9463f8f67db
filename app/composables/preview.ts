import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import type { Card } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import type { Fault } from '#core/errors'
import { frameInPlay } from '#core/time/held'
import { perSecond } from '#core/values/rate'
import { useRibbon } from '~/stores/ribbon'
import { Bands } from '~/workers/bands'
import { forgetCard, freeEngines, onEngine, pictureOf, poolSize, setCard, sharedPictureOf } from '~/workers/engine-pool'
import { DraftSizes } from './draft-sizes'

/** Bytes of pictures kept for playing. */
const BUDGET = 700 * 1024 * 1024
/** The hand must rest this long before the loop is made ready. */
const REST = 350

interface Options {
  name: string
  card: Ref<Card | null>
  /** Render pixels per card pixel that the screen can show. */
  scale: Ref<number>
  dragging: Ref<boolean>
}

/**
 * What the stage shows: the picture of the present frame as soon as it can be had, then the pictures of the
 * whole loop, kept so that it plays at the card's rate.
 */
export function usePreview({ name, card, scale, dragging }: Options) {
  const ribbon = useRibbon()
  const picture = shallowRef<ImageBitmap | null>(null)
  const fault = ref<Fault | null>(null)
  const outlook = shallowRef<PieceOutlook[]>([])
  /** What the outlook was made of. */
  const outlookOf = shallowRef<{ card: Card; frame: number } | null>(null)
  /** Whether pieces stand where the outlook says; where the card cannot be drawn, and while it plays, no other one comes. */
  const isPlaced = computed(
    () =>
      ribbon.playing ||
      fault.value !== null ||
      (outlookOf.value?.card === card.value && outlookOf.value?.frame === ribbon.frame),
  )
  /** The card as the engines have it. */
  let sent: Card | null = null
  /** Milliseconds of the last full picture. */
  const cost = ref(0)
  const kept = new Map<number, ImageBitmap>()
  let version = 0
  let busy = false
  let wanted = false
  let rest: ReturnType<typeof setTimeout> | undefined
  let clock = 0
  let closed = false
  /** When the oldest edit was made that no picture under way includes; null for none. */
  let pending: number | null = null
  /** When the hand came to rest, until the full picture is there. */
  let rested: number | null = null
  const sizes = new DraftSizes()
  const bands = new Bands()

  function renew() {
    version++
    pending ??= performance.now()
    for (const bitmap of kept.values()) if (bitmap !== picture.value) bitmap.close()
    kept.clear()
    ribbon.ready = new Array<boolean>(card.value?.length ?? 0).fill(false)
    clearTimeout(rest)
    rest = setTimeout(() => void fill(version), REST)
    void show()
  }

  /** Shows a picture in place of the one before, which is let go where the loop does not keep it. */
  function put(next: ImageBitmap | null) {
    const before = picture.value
    picture.value = next
    if (before && before !== next && ![...kept.values()].includes(before)) before.close()
  }

  /** Shows the present frame; requests that come while one is under way are joined to one. */
  async function show(): Promise<void> {
    if (!card.value || closed) return
    const frame = ribbon.frame
    const ready = kept.get(frame)
    if (ready) {
      put(ready)
      if (!ribbon.playing) void place(frame)
      return
    }
    wanted = true
    if (busy) return
    busy = true
    while (wanted && !closed) {
      wanted = false
      const at = ribbon.frame
      const made = version
      // While a hand moves, all engines that are free make one picture, as large as is quick enough.
      const moving = dragging.value
      const share = moving ? sizes.next(freeEngines()) : 1
      const draft = share < 1
      const since = pending
      pending = null
      const look = { scale: scale.value * share, draft }
      const shown = await (moving ? sharedPictureOf(name, at, look, bands) : pictureOf(name, at, look))
      if (closed) {
        if (!('fault' in shown)) shown.bitmap.close()
        return
      }
      if ('fault' in shown) {
        fault.value = shown.fault
        continue
      }
      fault.value = null
      put(shown.bitmap)
      if (moving) sizes.took(share, shown.milliseconds)
      if (!draft && shown.engines === 1) {
        cost.value = shown.milliseconds
        sizes.tookFull(cost.value)
      }
      // For `npm run bench:drag`: from the oldest edit that this picture shows to the picture, and from rest to the
      // full one.
      if (since !== null) tell('wax:draft', since, { share, engines: shown.engines })
      if (!draft && rested !== null) {
        tell('wax:full', rested)
        rested = null
      }
      if (!draft && made === version) keep(at, shown.bitmap)
      if (draft && !dragging.value) wanted = true
      if (!ribbon.playing) void place(at)
    }
    busy = false
  }

  /** Answers may come in another order than they were asked for: an older outlook never takes a newer one's place. */
  let asked = 0
  async function place(frame: number) {
    const mine = ++asked
    const of = { card: sent!, frame }
    const found = await onEngine<PieceOutlook[]>(
      (face) => face.outlook(name, frame),
      () => [],
    )
    if (mine !== asked) return
    outlook.value = found
    outlookOf.value = of
  }

  function keep(frame: number, bitmap: ImageBitmap) {
    if (kept.has(frame)) return
    kept.set(frame, bitmap)
    ribbon.ready[frame] = true
  }

  /** Makes the pictures of the loop, from the playhead on, as many as there is room for. */
  async function fill(made: number) {
    const length = card.value?.length ?? 0
    const { width, height } = card.value?.frame ?? { width: 1, height: 1 }
    const room = Math.floor(BUDGET / (width * height * scale.value * scale.value * 4))
    const start = ribbon.frame
    // What is played next comes first; with a hold that is played alone, the hold.
    const count = Math.min(length, room)
    const played = Array.from({ length: count }, (_, i) => frameInPlay(card.value!, start, i, ribbon.holding))
    const others = Array.from({ length: count }, (_, i) => (start + i) % length)
    const frames = [...new Set([...played, ...others])].slice(0, room)
    let next = 0
    const work = async () => {
      while (next < frames.length && made === version && !closed) {
        const frame = frames[next++]!
        if (kept.has(frame)) continue
        const shown = await pictureOf(name, frame, { scale: scale.value })
        if ('fault' in shown) return
        // The playhead may have been there meanwhile.
        if (made === version && !closed && !kept.has(frame)) keep(frame, shown.bitmap)
        else shown.bitmap.close()
      }
    }
    await Promise.all(Array.from({ length: poolSize }, work))
  }

  function play() {
    const { value } = card
    if (!value) return
    const started = performance.now()
    const from = ribbon.frame
    const step = (now: number) => {
      if (!ribbon.playing || closed) return
      const after = Math.floor(((now - started) / 1000) * perSecond(value.rate))
      ribbon.go(frameInPlay(value, from, after, ribbon.holding), value.length)
      clock = requestAnimationFrame(step)
    }
    clock = requestAnimationFrame(step)
  }

  watch(
    card,
    (value) => {
      if (!value) return
      setCard(name, value)
      sent = value
      renew()
    },
    { immediate: true },
  )
  watch(scale, renew)
  watch(
    () => ribbon.frame,
    () => void show(),
  )
  watch(dragging, (now) => {
    rested = null
    if (now) return
    rested = performance.now()
    void show()
  })
  watch(
    () => [ribbon.playing, ribbon.holding],
    ([playing]) => {
      cancelAnimationFrame(clock)
      if (playing) {
        void fill(version)
        play()
      } else void show()
    },
  )
  onScopeDispose(() => {
    closed = true
    ribbon.playing = false
    cancelAnimationFrame(clock)
    clearTimeout(rest)
    put(null)
    for (const bitmap of kept.values()) bitmap.close()
    forgetCard(name)
  })

  return { picture, fault, outlook, isPlaced, cost }
}

function tell(name: string, start: number, detail?: { share: number; engines: number }): void {
  performance.measure(name, { start, end: performance.now(), detail })
  // Observers have it by now; nothing piles up.
  performance.clearMeasures(name)
}

/** The picture of another card at the same frame, made while `wanted`: what is compared with the preview. */
export function useComparison({ name, card, scale }: Omit<Options, 'dragging'>, wanted: Ref<boolean>) {
  const ribbon = useRibbon()
  const picture = shallowRef<ImageBitmap | null>(null)
  let turn = 0

  watch(
    [card, scale, wanted, () => ribbon.frame],
    async () => {
      const mine = ++turn
      if (!wanted.value || !card.value || scale.value <= 0) return
      setCard(name, card.value)
      const shown = await pictureOf(name, ribbon.frame, { scale: scale.value })
      if ('fault' in shown) return
      if (mine !== turn) {
        shown.bitmap.close()
        return
      }
      picture.value?.close()
      picture.value = shown.bitmap
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    turn++
    picture.value?.close()
    forgetCard(name)
  })
  return picture
}
