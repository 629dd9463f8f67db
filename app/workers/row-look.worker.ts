import * as Comlink from 'comlink'
import type { Card } from '#core/card/schema'
import type { Engine } from '#core/frame/engine'
import type { RowFlag } from '#core/judge/row/definition'
import type { Room } from '#core/judge/row/rooms'
import type { WithEngine } from '#core/judge/with-engine'
import { loadAssets, pictureOfSequence } from './card-assets'

// Looks at rows of a roster with an engine of its own, one after the other.

// It listens at once: see proof.worker.ts.
const core = Promise.all([
  import('#core/frame/engine'),
  import('#core/frame/fetching'),
  import('#core/judge/row/look'),
  import('#core/judge/row/rooms'),
  import('#core/edit/fit-width'),
])

let engine: Engine | null = null
/** Rows that are asked for while it is still on its way wait for it. */
let design: Promise<{ card: Card; rooms: Room[] }> | null = null

async function withEngineFor(card: Card): Promise<WithEngine> {
  const [{ Engine }, { withPictures }] = await core
  const own = (engine ??= new Engine())
  await loadAssets(own, card)
  return (work) => withPictures(own.sequences, pictureOfSequence, () => work(own))
}

const face = {
  /** The card that rows are filled into. */
  async setDesign(card: Card): Promise<void> {
    design = core.then(async ([, , , { roomsOf }]) => ({ card, rooms: await roomsOf(card, await withEngineFor(card)) }))
    await design
  },

  /** What is wrong with a row, filled into the card. */
  async look(card: Card, holds: number): Promise<RowFlag[]> {
    const { lookAtRow } = (await core)[2]
    const { rooms } = await design!
    return lookAtRow({ card, rooms, holds }, await withEngineFor(card))
  },

  /** The design with words fitted to the width of their bar, or of the title area. */
  async fitted(piece: string): Promise<Card> {
    const [, , , { holdOf, titleArea }, { fitToWidth }] = await core
    const { card, rooms } = await design!
    const withEngine = await withEngineFor(card)
    const outlook = await withEngine((own) => own.outlook(card, holdOf(card).from))
    const find = (id: string | null) => outlook.find((entry) => entry.id === id)
    const entry = find(piece)
    const bar = find(rooms.find((room) => room.piece === piece)?.bar ?? null)
    return entry ? fitToWidth(card, piece, entry, bar?.bounds ?? titleArea(card)) : card
  },
}

export type RowLookFace = typeof face

Comlink.expose(face)
