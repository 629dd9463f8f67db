import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { KeyPlace } from '#core/edit/keys'

/** How frames are written: seconds and frames, frames alone, or SMPTE timecode. */
export type Counting = 'seconds' | 'frames' | 'timecode' | 'drop'

/** Where the playhead stands, and what is selected and seen on the ribbon. */
export const useRibbon = defineStore('ribbon', () => {
  const frame = ref(0)
  const playing = ref(false)
  /** Whether the hold of a card with zones is played again and again. */
  const holding = ref(false)
  /** The keys that are selected. */
  const keys = shallowRef<readonly KeyPlace[]>([])
  /** Whose motors are being edited: the address of a value. */
  const motorsOf = ref<string | null>(null)
  const curvesOpen = ref(false)
  const counting = useLocalStorage<Counting>('wax-counting', 'seconds')
  /** For every frame of the loop whether its picture is ready; set by the preview. */
  const ready = ref<boolean[]>([])

  /** Stretches of frames whose pictures are ready, half-open: these play at once. */
  const readyRuns = computed(() => {
    const runs: [number, number][] = []
    ready.value.forEach((is, at) => {
      const last = runs.at(-1)
      if (!is) return
      if (last && last[1] === at) last[1] = at + 1
      else runs.push([at, at + 1])
    })
    return runs
  })

  const chosen = computed(() => new Set(keys.value.map(({ address, frame: at }) => `${address} ${at}`)))
  const isChosen = (address: string, at: number) => chosen.value.has(`${address} ${at}`)

  /** Goes to a frame; beyond the seam it comes round again. */
  function go(to: number, length: number) {
    frame.value = ((Math.round(to) % length) + length) % length
  }

  /** Selects a key, alone or beside the others; one that is selected is taken out again. */
  function choose(key: KeyPlace, more: boolean) {
    if (!more) {
      if (!isChosen(key.address, key.frame)) keys.value = [key]
      return
    }
    const rest = keys.value.filter(({ address, frame: at }) => address !== key.address || at !== key.frame)
    keys.value = rest.length === keys.value.length ? [...rest, key] : rest
  }

  function reset() {
    frame.value = 0
    playing.value = false
    holding.value = false
    keys.value = []
    motorsOf.value = null
    ready.value = []
  }

  return {
    frame,
    playing,
    holding,
    keys,
    motorsOf,
    curvesOpen,
    counting,
    ready,
    readyRuns,
    isChosen,
    go,
    choose,
    reset,
  }
})
