import * as Comlink from 'comlink'
import type { Ref } from 'vue'
import { onScopeDispose, ref, shallowReactive, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { RowFlag } from '#core/judge/row/look'
import type { RowCard } from '#core/rosters/rows'
import type { RowLookFace } from '~/workers/row-look.worker'

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
export function useRowLooks(design: Ref<Card | null>, rows: Ref<readonly RowCard[]>, first: Ref<string | null>) {
  const looked = shallowReactive(new Map<string, Looked>())
  /** How many of the rows have been looked at. */
  const done = ref(0)
  let worker: Worker | null = null
  let face: Comlink.Remote<RowLookFace> | null = null
  let going = false
  let closed = false

  function begin() {
    worker?.terminate()
    worker = new Worker(new URL('../workers/row-look.worker.ts', import.meta.url), { type: 'module' })
    face = Comlink.wrap<RowLookFace>(worker)
    looked.clear()
    if (design.value) void face.setDesign(plain(design.value))
    void go()
  }

  /** The next row that changed since it was looked at; by its key. */
  function next(): { row: RowCard; key: string } | null {
    const order = [...rows.value.filter(({ row }) => row.id === first.value), ...rows.value]
    done.value = rows.value.length
    for (const row of order) {
      const known = looked.get(row.row.id)
      const key = keys.get(row) ?? keyOf(row)
      keys.set(row, key)
      if (known?.card !== key) {
        done.value = rows.value.filter(({ row: one }) => looked.has(one.id)).length
        return { row, key }
      }
    }
    return null
  }
  const keys = new WeakMap<RowCard, string>()

  async function go() {
    if (going) return
    going = true
    while (!closed && face && design.value) {
      const now = next()
      if (!now) break
      const { row, key } = now
      const own = face
      const flags = await own.look(plain(row.card), row.holds).catch(() => [])
      if (own === face) looked.set(row.row.id, { card: key, flags })
    }
    going = false
  }

  watch(
    design,
    (card) => {
      if (card) begin()
    },
    { immediate: true },
  )
  watch([rows, first], () => void go())
  onScopeDispose(() => {
    closed = true
    worker?.terminate()
  })

  return {
    done,
    flagsOf: (row: string): readonly RowFlag[] | null => looked.get(row)?.flags ?? null,
    fitted: async (piece: string): Promise<Card | null> => (await face?.fitted(piece)) ?? null,
  }
}
