import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { TipSettings } from '#core/brushes/definition'
import { USUAL } from '#core/brushes/definition'
import type { BrushStroke } from '#core/brushes/stroke'
import { strokesOf } from '#core/brushes/stroke'
import { isOwnTip } from '#core/brushes/own-tip'
import { TIP_KINDS, tipOf } from '#core/brushes/table'
import { allPieces } from '#core/card/tree'
import type { PaintTarget } from '#core/edit/strokes'
import { useBench } from './bench'

const [SMALLEST, LARGEST] = [0.5, 2000]

/** The brush in hand: its tip, what that is set to, and what is painted on. */
export const useBrush = defineStore('brush', () => {
  const bench = useBench()
  const tip = useLocalStorage('wax-tip', TIP_KINDS[0]!)
  const size = useLocalStorage('wax-brush-size', 40)
  const colour = useLocalStorage('wax-brush-colour', '#FFF6EE')
  /** What each tip is set to, where that is other than how it begins. */
  const changed = useLocalStorage<Record<string, Partial<TipSettings>>>('wax-brush-settings', {})
  /** Whether a press on the stage paints. */
  const taken = ref(false)
  const erase = ref(false)

  /** Pictures that were brought in as tips. */
  const brought = useLocalStorage<string[]>('wax-own-tips', [])
  /** Those, and others that this card is painted with. */
  const own = computed(() => {
    const used = allPieces(bench.card?.pieces ?? []).flatMap((piece) =>
      [piece, ...piece.masks].flatMap((painted) => strokesOf(painted).map((stroke) => stroke.tip)),
    )
    return [...new Set([...brought.value, ...used.filter(isOwnTip)])]
  })
  if (!TIP_KINDS.includes(tip.value) && !isOwnTip(tip.value)) tip.value = TIP_KINDS[0]!

  /** A picture as a tip, taken in hand. */
  function takeOwn(id: string) {
    brought.value = [...new Set([...brought.value, id])]
    tip.value = id
  }
  /** Takes a picture out of the tray; strokes that were painted with it stay. */
  function dropOwn(id: string) {
    brought.value = brought.value.filter((one) => one !== id)
    if (tip.value === id) tip.value = TIP_KINDS[0]!
  }

  const settings = computed<TipSettings>(() => ({ ...USUAL, ...tipOf(tip.value).starts, ...changed.value[tip.value] }))

  /** The painting, or the painted mask, that is selected alone. */
  const target = computed<PaintTarget | null>(() => {
    const { piece, mask } = bench
    if (!piece || bench.pieces.length > 1) return null
    if (mask) return mask.kind === 'painted' ? { piece: piece.id, mask: mask.id } : null
    return piece.kind === 'painting' && !bench.selectedPart ? { piece: piece.id, mask: null } : null
  })
  const painted = computed(() => (bench.mask ?? bench.piece) as object | null)
  const strokes = computed(() => (painted.value ? strokesOf(painted.value) : []))

  function set(change: Partial<TipSettings>) {
    changed.value = { ...changed.value, [tip.value]: { ...changed.value[tip.value], ...change } }
  }
  function asShipped() {
    changed.value = Object.fromEntries(Object.entries(changed.value).filter(([kind]) => kind !== tip.value))
  }
  function resize(factor: number) {
    const next = Math.min(LARGEST, Math.max(SMALLEST, size.value * factor))
    size.value = next < 10 ? Math.round(next * 10) / 10 : Math.round(next)
  }
  const harden = (by: number) => set({ hardness: Math.min(100, Math.max(0, settings.value.hardness + by)) })

  /** A stroke of this brush that begins at some points. */
  function begun(points: number[]): BrushStroke {
    const ids = new Set(strokes.value.map(({ id }) => id))
    let n = strokes.value.length + 1
    while (ids.has(`stroke-${n}`)) n++
    return {
      ...{ id: `stroke-${n}`, tip: tip.value, erase: erase.value, colour: colour.value, size: size.value },
      ...{ ...settings.value, seed: n, points },
    }
  }

  return {
    ...{ tip, size, colour, taken, erase, settings, target, strokes, changed },
    ...{ set, asShipped, resize, harden, begun, own, brought, takeOwn, dropOwn },
  }
})
