import { onScopeDispose, shallowRef } from 'vue'
import type { Fault } from '#core/errors'
import { api, faultOf } from './api'

/** How far the files of a render have been read. */
interface SoFar {
  width: number
  height: number
  order: number[]
  there: number
  ended: boolean
}

/** Frames that are kept for playing, at the size of the stage. */
const KEPT = 240
/** Frames that are fetched at once. */
const AT_ONCE = 4
/** Milliseconds between two questions how far the reading is. */
const ASK = 400

/**
 * The frames of a delivered file, as the server reads them from it. Those about to be played are fetched ahead, at the size of the
 * stage; one that is looked at comes in its own.
 */
export function useEditFrames(render: string, across: () => number) {
  const about = shallowRef<SoFar | null>(null)
  const fault = shallowRef<Fault | null>(null)
  const kept = new Map<number, ImageBitmap>()
  const coming = new Set<number>()
  let whole: { place: number; bitmap: Promise<ImageBitmap | null> } | null = null
  let closed = false
  let timer: ReturnType<typeof setTimeout> | undefined

  async function ask() {
    try {
      about.value = await api<SoFar>(`/renders/${render}/as-read`)
      fault.value = null
    } catch (error) {
      fault.value = faultOf(error)
    }
    if (!closed && !about.value?.ended && !fault.value) timer = setTimeout(() => void ask(), ASK)
  }
  void ask()

  async function fetched(place: number, width?: number): Promise<ImageBitmap | null> {
    const response = await fetch(`/api/renders/${render}/as-read/${place}`).catch(() => null)
    if (!response?.ok) return null
    const { width: own = 1 } = about.value ?? {}
    const size = width && width < own ? ({ resizeWidth: width, resizeQuality: 'high' } as const) : {}
    return createImageBitmap(await response.blob(), size)
  }

  /** Fetches what is played next, from a place on. */
  function ahead(from: number) {
    const count = about.value?.order.length ?? 0
    for (let i = 0; i < Math.min(count, KEPT / 2) && coming.size < AT_ONCE; i++) {
      const place = (from + i) % count
      if (kept.has(place) || coming.has(place)) continue
      coming.add(place)
      void fetched(place, across()).then((bitmap) => {
        coming.delete(place)
        if (!bitmap) return
        if (closed) {
          bitmap.close()
          return
        }
        kept.set(place, bitmap)
        drop(from, count)
        ahead(from)
      })
    }
  }

  /** Of more than are kept those go whose turn comes last: on a loop, those that were just played. */
  function drop(from: number, count: number) {
    if (kept.size <= KEPT) return
    const far = [...kept.keys()].sort((a, b) => ((b - from + count) % count) - ((a - from + count) % count))
    for (const place of far.slice(0, kept.size - KEPT)) {
      kept.get(place)!.close()
      kept.delete(place)
    }
  }

  /** The frame as it is kept for playing; null where it has not come yet. */
  const small = (place: number): ImageBitmap | null => kept.get(place) ?? null

  /** The frame in its own size. There is one at a time: whoever asks for another place has done with the one before. */
  function own(place: number): Promise<ImageBitmap | null> {
    if (whole?.place === place) return whole.bitmap
    letGo()
    const one = { place, bitmap: fetched(place) }
    whole = one
    // What could not be read is asked for again.
    void one.bitmap.then((bitmap) => {
      if (!bitmap && whole === one) whole = null
    })
    return one.bitmap
  }

  function letGo() {
    void whole?.bitmap.then((bitmap) => bitmap?.close())
    whole = null
  }

  onScopeDispose(() => {
    closed = true
    clearTimeout(timer)
    for (const bitmap of kept.values()) bitmap.close()
    letGo()
  })

  return { about, fault, ahead, small, own, retry: ask }
}
