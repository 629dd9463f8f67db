import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { KeyActionId } from '#core/help/key-actions'
import { KEY_ACTIONS } from '#core/help/key-actions'

/** Keys that the bench uses with every modifier; no other action can have them. */
const TAKEN = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Tab', 'Enter']

/** The key as one text, such as `Ctrl+Shift+G`; null for a modifier alone. Shift counts with letters and named keys. */
export function chordOf(event: KeyboardEvent): string | null {
  if (['Control', 'Shift', 'Alt', 'Meta', 'AltGraph', 'Dead'].includes(event.key)) return null
  const key = event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toUpperCase() : event.key
  const shifted = event.shiftKey && (key.length > 1 || key !== key.toLowerCase())
  return [event.ctrlKey || event.metaKey ? 'Ctrl' : '', event.altKey ? 'Alt' : '', shifted ? 'Shift' : '', key]
    .filter(Boolean)
    .join('+')
}

/** Which action a key stands for; the designer's own choices are kept in the browser. */
export function useKeys() {
  const own = useLocalStorage<Partial<Record<KeyActionId, string>>>('wax-keys', {})
  const keysOf = (id: KeyActionId): string[] => (own.value[id] ? [own.value[id]] : KEY_ACTIONS[id].keys)
  const byChord = computed(
    () =>
      new Map((Object.keys(KEY_ACTIONS) as KeyActionId[]).flatMap((id) => keysOf(id).map((key) => [key, id] as const))),
  )
  const actionOf = (event: KeyboardEvent): KeyActionId | null => byChord.value.get(chordOf(event) ?? '') ?? null

  /** Gives the action another key; returns why not, or null. */
  function change(id: KeyActionId, chord: string): string | null {
    const other = byChord.value.get(chord)
    if (TAKEN.some((key) => chord.endsWith(key))) return `${chord} moves pieces and the focus; take another key.`
    if (other && other !== id) return `${chord} is “${KEY_ACTIONS[other].does}”; take another key.`
    own.value = { ...own.value, [id]: chord }
    return null
  }
  const asShipped = () => (own.value = {})
  const changed = computed(() => Object.keys(own.value).length > 0)
  return { keysOf, actionOf, change, asShipped, changed }
}
