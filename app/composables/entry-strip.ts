import { useDebounceFn } from '@vueuse/core'
import type { Ref } from 'vue'
import { onScopeDispose, watch } from 'vue'
import type { Card, Piece } from '#core/card/schema'
import type { Entry } from '#core/edit/entries'
import { replacePiece } from '#core/card/tree'
import { alone } from '#core/frame/pick'
import type { Rect } from '#core/units'
import { forgetCard, onEngine, pictureOf, setCard } from '~/workers/engine-pool'
import { familyOf } from './entry-words'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** Render pixels a card pixel: small, but large enough that a grain is seen. */
const SCALE = 0.25
/** The hand rests so long before strips are made anew. */
const REST = 350

/** Draws on a canvas what comes into a finish or a step (left half) and what goes out (right half), at the playhead. */
export function useEntryStrip(canvas: Ref<HTMLCanvasElement | undefined>, piece: () => Piece, entry: () => Entry) {
  const bench = useBench()
  const ribbon = useRibbon()
  const name = (half: string) => `strip ${piece().id} ${entry().id} ${half}`
  let closed = false
  let version = 0

  async function draw() {
    const mine = ++version
    const { card } = bench
    const context = canvas.value?.getContext('2d')
    if (!card || !context || bench.dragging) return
    const [before, after] = [upTo(card, piece(), entry(), false), upTo(card, piece(), entry(), true)]
    setCard(name('before'), before)
    setCard(name('after'), after)
    const stands = (
      await onEngine(
        (face) => face.outlook(name('before'), ribbon.frame),
        () => [],
      )
    ).find(({ id }) => id === piece().id)
    const { width, height } = canvas.value!
    const bounds = stands?.bounds ?? null
    const isForm = familyOf(entry()) !== 'finish'
    const part = isForm ? wholeOf(bounds, card, width / height) : middleOf(bounds, card, width / height)
    context.clearRect(0, 0, width, height)
    for (const [i, half] of ['before', 'after'].entries()) {
      const shown = await pictureOf(name(half), ribbon.frame, { scale: SCALE, draft: true })
      if ('fault' in shown) return
      if (closed || mine !== version) return shown.bitmap.close()
      const from = [part.left * SCALE, part.top * SCALE, part.width * SCALE, part.height * SCALE] as const
      context.save()
      context.beginPath()
      context.rect((i * width) / 2, 0, width / 2, height)
      context.clip()
      context.drawImage(shown.bitmap, ...from, 0, 0, width, height)
      context.restore()
      shown.bitmap.close()
    }
    context.fillStyle = '#fff6ee'
    context.fillRect(width / 2 - 0.5, 0, 1, height)
  }

  const later = useDebounceFn(() => void draw().catch(() => {}), REST)
  watch([() => bench.card, () => ribbon.playing || ribbon.frame, canvas], () => !ribbon.playing && later(), {
    immediate: true,
  })
  onScopeDispose(() => {
    closed = true
    for (const half of ['before', 'after']) forgetCard(name(half))
  })
}

const LISTS = { finish: 'finishes', step: 'outlineSteps', mask: 'masks' } as const

/** The piece alone, or what a wash treats, with what works before this entry, and with it. */
function upTo(card: Card, piece: Piece, entry: Entry, after: boolean): Card {
  const shown = piece.kind === 'wash' ? card : alone(card, piece)
  const name = LISTS[familyOf(entry)]
  const at = piece[name].findIndex(({ id }) => id === entry.id)
  const change = { [name]: piece[name].slice(after ? at : at + 1) }
  return { ...shown, pieces: replacePiece(shown.pieces, piece.id, (one) => [{ ...one, ...change } as Piece]) }
}

/** The part of the frame that a step or a mask is shown by: the left half of the strip holds the piece before it, the right half after it. */
function wholeOf(bounds: Rect | null, card: Card, ratio: number) {
  const { width: w, height: h } = card.frame
  const all = bounds ?? { left: 0, top: 0, right: w, bottom: h }
  // A little more than the piece; what it becomes may be larger.
  const width = Math.max(16, (all.right - all.left) * 1.15, (all.bottom - all.top) * 1.15 * ratio)
  const height = width / ratio
  return { left: (all.left + all.right - width) / 2, top: (all.top + all.bottom - height) / 2, width, height }
}

/** The part of the frame that is shown: the middle of the piece. */
function middleOf(bounds: Rect | null, card: Card, ratio: number) {
  const { width: w, height: h } = card.frame
  const all = bounds ?? { left: 0, top: 0, right: w, bottom: h }
  // No more than its height shows: a word is seen by some of its letters.
  const width = Math.max(16, Math.min(w, (all.right - all.left) * 1.1, (all.bottom - all.top) * 1.4))
  const height = width / ratio
  return { left: (all.left + all.right - width) / 2, top: (all.top + all.bottom - height) / 2, width, height }
}
