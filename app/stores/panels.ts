import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

export type PanelId = 'stack' | 'settings' | 'ribbon'

/** The sizes of the panels around the stage, in px of the screen: as they ship, and how far they go. */
export const PANELS: Readonly<Record<PanelId, { label: string; size: number; least: number; most: number }>> = {
  stack: { label: 'Stack', size: 264, least: 200, most: 520 },
  settings: { label: 'Settings', size: 348, least: 280, most: 760 },
  ribbon: { label: 'Ribbon', size: 216, least: 120, most: 560 },
}
/** What the ribbon has to show decides its height, until it is dragged: two rows with nothing moving, and room for open curves. */
export type RibbonShows = 'nothing' | 'lanes' | 'curves'
const STILL = 156
const WITH_CURVES = 370

/** How the bench is laid out; kept in the browser. */
export const usePanels = defineStore('panels', () => {
  const sizes = useLocalStorage<Partial<Record<PanelId, number>>>('wax-panels', {})
  const folded = useLocalStorage<Partial<Record<PanelId, boolean>>>('wax-panels-folded', {})
  /** Whether the stage has the whole window. */
  const whole = ref(false)

  const sizeOf = (id: PanelId): number => sizes.value[id] ?? PANELS[id].size
  function ribbonHeight(shows: RibbonShows): number {
    const own = sizes.value.ribbon ?? (shows === 'nothing' ? STILL : PANELS.ribbon.size)
    return shows === 'curves' ? Math.max(own, WITH_CURVES) : own
  }
  const isFolded = (id: PanelId): boolean => folded.value[id] === true

  /** Makes a panel as wide, or as high, as it may be. */
  function resize(id: PanelId, size: number) {
    const { least, most } = PANELS[id]
    sizes.value = { ...sizes.value, [id]: Math.round(Math.min(most, Math.max(least, size))) }
    if (isFolded(id)) fold(id)
  }
  /** As it ships. */
  function reset(id: PanelId) {
    sizes.value = Object.fromEntries(Object.entries(sizes.value).filter(([panel]) => panel !== id))
    if (isFolded(id)) fold(id)
  }
  const fold = (id: PanelId) => (folded.value = { ...folded.value, [id]: !isFolded(id) })
  const shown = computed(() => (id: PanelId) => !whole.value && !isFolded(id))

  return { sizes, folded, whole, sizeOf, ribbonHeight, isFolded, resize, reset, fold, shown }
})
