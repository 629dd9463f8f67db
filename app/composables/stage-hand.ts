import type { Ref } from 'vue'
import { computed, ref } from 'vue'
import { boundsOf } from '#core/edit/arrange'
import { switchValue } from '#core/values/evaluated'
import { allPieces, holdsPieces } from '#core/card/tree'
import type { PieceOutlook } from '#core/frame/outlook'
import { SAFE_AREAS, safeRect } from '#core/judge/safe-areas'
import type { SnapLines } from '#core/stage/snap'
import type { Point } from '#core/units'
import { useBench } from '~/stores/bench'
import { useStage } from '~/stores/stage'
import { followPointer } from './follow-pointer'
import { useMoment } from './moment'

/** What is held while a handle is moved. */
export type Held = Pick<MouseEvent, 'altKey' | 'ctrlKey' | 'shiftKey'>

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Screen pixels within which things come to rest on lines. */
const SNAP = 6

/** What every handle on the stage needs: card pixels under the pointer, dragging as one step, lines to rest on. */
export function useStageHand(svg: Ref<SVGSVGElement | undefined>, zoom: () => number, outlook: () => PieceOutlook[]) {
  const bench = useBench()
  const stage = useStage()
  const { shown } = useMoment()
  const guides = ref<{ x: number[]; y: number[] }>({ x: [], y: [] })
  const showGuides = (lines: { x: number[]; y: number[] }) => (guides.value = lines)
  const reach = computed(() => SNAP / zoom())

  function cardPoint(event: PointerEvent | MouseEvent): Point {
    const bounds = svg.value!.getBoundingClientRect()
    return { x: (event.clientX - bounds.left) / zoom(), y: (event.clientY - bounds.top) / zoom() }
  }

  const onScreen = ({ x, y }: Point): Point => ({ x: x * zoom(), y: y * zoom() })

  /** Follows the pointer until it is let go; all that it changes is one step of the history. */
  function drag(event: PointerEvent, move: (point: Point, event: Held) => void, end: () => void = () => {}) {
    bench.endStep()
    followPointer(
      event,
      (next) => {
        bench.dragging = true
        move(cardPoint(next), next)
      },
      () => {
        guides.value = { x: [], y: [] }
        bench.endStep()
        end()
      },
    )
  }

  /** The way of an arrow key: a step, ten with Shift; null for other keys. The key does nothing else then. */
  function arrow(event: KeyboardEvent): Point | null {
    const way = ARROWS[event.key]
    if (!way) return null
    event.preventDefault()
    event.stopPropagation()
    const by = event.shiftKey ? 10 : 1
    return { x: way[0] * by, y: way[1] * by }
  }

  /** Moves what is dragged from a point by the arrow keys instead, by px of the card; nothing holds it on its way. */
  function nudge(event: KeyboardEvent, from: Point, move: (point: Point, event: Held) => void) {
    const by = arrow(event)
    if (by) move({ x: from.x + by.x, y: from.y + by.y }, { altKey: event.altKey, ctrlKey: true, shiftKey: false })
  }

  /** Edges and middles of the frame, of the safe areas while they are shown, and of all pieces but those moved. */
  function linesFor(moved: readonly string[]): SnapLines {
    const { frame, pieces } = bench.card!
    const still = new Set(
      allPieces(pieces).flatMap((piece) =>
        switchValue(piece.on, shown.value) && !moved.includes(piece.id) ? [piece.id] : [],
      ),
    )
    // What lies in a moved group moves along.
    for (const piece of allPieces(pieces)) {
      if (holdsPieces(piece) && moved.includes(piece.id)) for (const { id } of allPieces(piece.pieces)) still.delete(id)
    }
    const rects = [
      { left: 0, top: 0, right: frame.width, bottom: frame.height },
      ...(stage.safeAreas ? SAFE_AREAS.map(({ share }) => safeRect(frame, share)) : []),
      ...outlook()
        .filter(({ id }) => still.has(id))
        .map(({ bounds }) => bounds),
    ]
    return {
      x: rects.flatMap(({ left, right }) => [left, (left + right) / 2, right]),
      y: rects.flatMap(({ top, bottom }) => [top, (top + bottom) / 2, bottom]),
    }
  }

  const selected = computed(() => outlook().filter(({ id }) => bench.isSelected(id)))
  const around = computed(() => boundsOf(selected.value))

  return {
    zoom,
    outlook,
    guides,
    showGuides,
    reach,
    cardPoint,
    onScreen,
    drag,
    arrow,
    nudge,
    linesFor,
    selected,
    around,
  }
}

export type StageHand = ReturnType<typeof useStageHand>
