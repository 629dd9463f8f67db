import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface SelectedKey {
  address: string
  frame: number
}

/** Where the playhead stands, and what is selected on the ribbon. */
export const useRibbon = defineStore('ribbon', () => {
  const frame = ref(0)
  const playing = ref(false)
  const selectedKey = ref<SelectedKey | null>(null)
  /** For every frame of the loop whether its picture is ready; set by the preview. */
  const ready = ref<boolean[]>([])

  /** Goes to a frame; beyond the seam it comes round again. */
  function go(to: number, length: number) {
    frame.value = ((Math.round(to) % length) + length) % length
  }

  return { frame, playing, selectedKey, ready, go }
})
