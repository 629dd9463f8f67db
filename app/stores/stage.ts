import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PieceKind } from '#core/pieces/table'
import type { Coat } from '#core/card/schema'
import type { BackdropId, LookId } from '~/composables/backdrops'

/** Kinds of piece that are drawn on the stage by hand. */
export type DrawnKind =
  Exclude<PieceKind, 'type' | 'group' | 'picture' | 'sequence' | 'painting' | 'wash' | 'twin'> | 'freehand' | 'mask'

/** How the card is looked at and what the hand does on the stage. Nothing of it is part of the card. */
export const useStage = defineStore('stage', () => {
  const backdrop = useLocalStorage<BackdropId>('wax-backdrop', 'dusk')
  /** A picture of the designer's own to look against: an object URL, for this session. */
  const ownBackdrop = ref<string | null>(null)
  const look = useLocalStorage<LookId>('wax-look', 'colour')
  const safeAreas = useLocalStorage('wax-safe-areas', false)
  /** Distance of the grid's lines in card px; 0 for none. */
  const grid = useLocalStorage('wax-grid', 0)
  /** How the selected mask is looked at: hatched over the picture, alone, or not at all. */
  const maskView = useLocalStorage<'off' | 'hatched' | 'alone'>('wax-mask-view', 'off')
  /** Whether the way of a moving piece is shown. */
  const routes = useLocalStorage('wax-routes', true)
  /** What is shown alone: a piece, or one coat or finish of it. */
  const alone = ref<{ piece: string; part: string | null } | null>(null)
  /** The group whose pieces are selected by a click, after it was opened. */
  const openGroup = ref<string | null>(null)
  /** Groups whose pieces the stack does not list. */
  const folded = ref(new Set<string>())
  /** What the next drag on the stage draws; null selects and moves. */
  const drawing = ref<DrawnKind | null>(null)
  /** The path whose points are edited. */
  const editedPath = ref<string | null>(null)
  /** The type piece whose words are written on the stage, and what is marked of them: UTF-16 units [from, to). */
  const editedWords = ref<string | null>(null)
  const marked = ref<{ piece: string; from: number; to: number } | null>(null)
  /** The coat whose slab is dragged just now. */
  const draggedCoat = shallowRef<Coat | null>(null)
  /** Who is waiting for a colour to be picked from the stage. */
  const colourWanted = shallowRef<((hex: string) => void) | null>(null)

  /** Folds a group in the stack, or unfolds it. */
  function fold(group: string) {
    if (!folded.value.delete(group)) folded.value.add(group)
  }

  function reset() {
    alone.value = null
    folded.value = new Set()
    openGroup.value = null
    drawing.value = null
    editedPath.value = null
    editedWords.value = null
    marked.value = null
    colourWanted.value = null
  }

  return {
    ...{ backdrop, ownBackdrop, look, safeAreas, grid, routes, maskView },
    ...{ folded, fold, alone, openGroup, drawing, editedPath, editedWords, marked, draggedCoat, colourWanted, reset },
  }
})
