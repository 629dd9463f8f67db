import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import type { Card } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/engine'
import type { Fault } from '#core/errors'
import { perSecond } from '#core/time/rate'
import { useRibbon } from '~/stores/ribbon'
import type { Shown } from '~/workers/engine.worker'
import { forgetCard, onEngine, poolSize, setCard } from '~/workers/engine-pool'

/** Bytes of pictures kept for playing. */
const BUDGET = 700 * 1024 * 1024
/** A full picture that takes longer than this is shown as a draft of half the size while a hand moves. */
const SMOOTH = 28
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
  /** Milliseconds of the last full picture. */
  const cost = ref(0)
  const kept = new Map<number, ImageBitmap>()
  let version = 0
  let busy = false
  let wanted = false
  let rest: ReturnType<typeof setTimeout> | undefined
  let clock = 0
  let closed = false

  function renew() {
    version++
    for (const bitmap of kept.values()) if (bitmap !== picture.value) bitmap.close()
    kept.clear()
    ribbon.ready = new Array<boolean>(card.value?.length ?? 0).fill(false)
    clearTimeout(rest)
    rest = setTimeout(() => void fill(version), REST)
    void show()
  }

  /** Shows the present frame; requests that come while one is under way are joined to one. */
  async function show(): Promise<void> {
    if (!card.value || closed) return
    const frame = ribbon.frame
    const ready = kept.get(frame)
    if (ready) {
      picture.value = ready
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
      const draft = dragging.value && cost.value > SMOOTH
      const shown = await renderOn(at, draft ? scale.value / 2 : scale.value)
      if ('fault' in shown) {
        fault.value = shown.fault
        continue
      }
      fault.value = null
      const before = picture.value
      picture.value = shown.bitmap
      if (before && ![...kept.values()].includes(before)) before.close()
      if (!draft) cost.value = shown.milliseconds
      if (!draft && made === version) keep(at, shown.bitmap)
      if (draft && !dragging.value) wanted = true
      if (!ribbon.playing) void place(at)
    }
    busy = false
  }

  const renderOn = (frame: number, at: number): Promise<Shown> =>
    onEngine<Shown>((face) => face.render(name, frame, at) as Promise<Shown>)

  async function place(frame: number) {
    outlook.value = await onEngine((face) => face.outlook(name, frame))
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
    let next = 0
    const work = async () => {
      while (next < Math.min(length, room) && made === version && !closed) {
        const frame = (start + next++) % length
        if (kept.has(frame)) continue
        const shown = await renderOn(frame, scale.value)
        if ('fault' in shown) return
        if (made === version && !closed) keep(frame, shown.bitmap)
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
      ribbon.go(Math.floor(from + ((now - started) / 1000) * perSecond(value.rate)), value.length)
      clock = requestAnimationFrame(step)
    }
    clock = requestAnimationFrame(step)
  }

  watch(
    card,
    (value) => {
      if (!value) return
      setCard(name, value)
      renew()
    },
    { immediate: true },
  )
  watch(scale, renew)
  watch(
    () => ribbon.frame,
    () => void show(),
  )
  watch(dragging, (now) => !now && void show())
  watch(
    () => ribbon.playing,
    (playing) => {
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
    for (const bitmap of kept.values()) bitmap.close()
    forgetCard(name)
  })

  return { picture, fault, outlook, cost }
}
