import { until } from '@vueuse/core'
import * as Comlink from 'comlink'
import type { Ref } from 'vue'
import { computed, onScopeDispose, shallowReactive, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { RowFlag } from '#core/judge/row/definition'
import type { RowCard } from '#core/rosters/rows'
import type { RowLookFace } from '~/workers/row-look.worker'
import { useScrolling } from './scrolling'

/** What was found in a row; for which card, so that nothing old is shown. */
interface Looked {
  card: string
  flags: RowFlag[]
}

const plain = (card: Card) => JSON.parse(JSON.stringify(card)) as Card
const keyOf = ({ card, holds }: RowCard) => `${JSON.stringify(card.pieces)} ${holds}`

/**
 * Looks at the rows of a roster in a worker, those that are asked for first before all others. A row that did not change is not looked at
 * again.
 */
export function useRowLooks(
  design: Ref<Card | null>,
  rows: Ref<readonly RowCard[]>,
  first: Readonly<Ref<readonly string[]>>,
) {
  const looked = shallowReactive(new Map<string, Looked>())
  /** How many of the rows have been looked at. */
  const done = computed(() => rows.value.filter(({ row }) => looked.has(row.id)).length)
  const keys = new WeakMap<RowCard, string>()
  const scrolling = useScrolling()
  /** The worker for the card of now. One that was ended answers nothing any more. */
  let session: { worker: Worker; face: Comlink.Remote<RowLookFace>; going: boolean } | null = null

  function end() {
    session?.worker.terminate()
    session = null
    looked.clear()
  }

  function begin(card: Card) {
    end()
    const worker = new Worker(new URL('../workers/row-look.worker.ts', import.meta.url), { type: 'module' })
    const face = Comlink.wrap<RowLookFace>(worker)
    session = { worker, face, going: false }
    void face.setDesign(plain(card)).catch(() => {})
    void go()
  }

  /** The next row that changed since it was looked at; by its key. */
  function next(): { row: RowCard; key: string } | null {
    const wanted = new Set(first.value)
    const isWanted = ({ row }: RowCard) => wanted.has(row.id)
    for (const row of [...rows.value.filter(isWanted), ...rows.value]) {
      const key = keys.get(row) ?? keyOf(row)
      keys.set(row, key)
      if (looked.get(row.row.id)?.card !== key) return { row, key }
    }
    return null
  }

  async function go() {
    const own = session
    if (!own || own.going) return
    own.going = true
    for (let now = next(); now && own === session; now = next()) {
      const { row, key } = now
      const flags = await own.face.look(plain(row.card), row.holds).catch(() => [])
      if (own === session) looked.set(row.row.id, { card: key, flags })
      // A page that scrolls needs the cores for itself.
      await until(scrolling).toBe(false)
    }
    own.going = false
  }

  watch(
    design,
    (card) => {
      if (card) begin(card)
      else end()
    },
    { immediate: true },
  )
  watch([rows, first], () => void go())
  onScopeDispose(end)

  return {
    done,
    flagsOf: (row: string): readonly RowFlag[] | null => looked.get(row)?.flags ?? null,
    fitted: async (piece: string): Promise<Card | null> => (await session?.face.fitted(piece)) ?? null,
  }
}
