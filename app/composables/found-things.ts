import { listParameters } from '#core/card/addresses'
import { allPieces } from '#core/card/tree'
import { COATS } from '#core/coats/table'
import { addCoat, addPiece } from '#core/edit/stack'
import { addFinish } from '#core/edit/finishes'
import { addStep } from '#core/edit/steps'
import { FINISHES } from '#core/finishes/table'
import { idleValues } from '#core/find/idle-values'
import type { Findable } from '#core/find/ranked'
import { ranked } from '#core/find/ranked'
import type { KeyActionId } from '#core/help/key-actions'
import { KEY_ACTIONS } from '#core/help/key-actions'
import { HELP_TOPICS } from '#core/help/topics'
import type { PieceKind } from '#core/pieces/table'
import { PIECE_KINDS } from '#core/pieces/table'
import { STEPS } from '#core/steps/table'
import { typedFrame } from '#core/time/typed-frame'
import type { Card } from '#core/card/schema'
import { pressSeal } from '#core/seals/press'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { useSeals } from '~/stores/seals'
import { useKeys } from './keys'

/** Something on the bench, or in help, that can be gone to or done. */
export interface Thing extends Findable {
  id: string
  /** Keys that do the same. */
  keys?: string
  run(): unknown
}

/** As many are shown. */
const MOST = 40
/** New ones are made by their own ways: from a file, by a brush, of what is selected. */
const NOT_MADE_HERE: readonly PieceKind[] = ['picture', 'sequence', 'twin', 'group', 'painting']

/** Everything that one field finds: pieces, values, actions, kinds to add, seals, frames, help. */
export function useFoundThings(does: Partial<Record<KeyActionId, () => unknown>>) {
  const bench = useBench()
  const ribbon = useRibbon()
  const seals = useSeals()
  const { keysOf } = useKeys()

  const pieces = (card: Card): Thing[] =>
    allPieces(card.pieces).map(({ id, name, kind }) => ({
      ...{ id: `piece ${id}`, label: name, about: `Piece, ${PIECE_KINDS[kind].label.toLowerCase()}` },
      run: () => bench.select(id),
    }))

  /** Those that the settings show. */
  function values(card: Card): Thing[] {
    const isIdle = idleValues(card)
    return listParameters(card)
      .filter(({ address }) => !isIdle(address))
      .map(({ address, label, piece, part, parameter }) => ({
        ...{ id: `value ${address}`, label, about: `Value. ${parameter.help}` },
        run: () => {
          bench.select(piece, part)
          return label
        },
      }))
  }

  const actions = (): Thing[] =>
    (Object.keys(does) as KeyActionId[]).map((id) => ({
      ...{ id: `action ${id}`, label: KEY_ACTIONS[id].does, about: 'Action', keys: keysOf(id)[0] },
      run: () => does[id]!(),
    }))

  /** What is poured, formed or finished goes to the selected piece. */
  function kinds(): Thing[] {
    const made = Object.values(PIECE_KINDS).filter(({ kind }) => !NOT_MADE_HERE.includes(kind as PieceKind))
    const put = (label: string, add: (card: Card, piece: string) => { card: Card; id: string }) => () => {
      const { piece } = bench
      if (!piece) return
      let id = ''
      bench.edit(label, (card) => {
        const added = add(card, piece.id)
        id = added.id
        return added.card
      })
      bench.select(piece.id, id)
    }
    const onPiece = (
      verb: string,
      kind: string,
      label: string,
      help: string,
      add: Parameters<typeof put>[1],
    ): Thing => {
      const words = `${verb}: ${label.toLowerCase()}`
      return { id: `${verb} ${kind}`, label: words, about: `On the selected piece. ${help}`, run: put(words, add) }
    }
    return [
      ...made.map(({ kind, label, help }) => ({
        ...{ id: `add ${kind}`, label: `Add: ${label.toLowerCase()}`, about: `New piece. ${help}` },
        run: () => {
          let id = ''
          bench.edit(`Add ${label.toLowerCase()}`, (card) => {
            const added = addPiece(card, kind as PieceKind)
            id = added.id
            return added.card
          })
          bench.select(id)
        },
      })),
      ...(bench.piece
        ? [
            ...COATS.map(({ kind, label, help }) =>
              onPiece('Pour', kind, label, help, (card, piece) => addCoat(card, piece, kind, {})),
            ),
            ...STEPS.map(({ kind, label, help }) =>
              onPiece('Form', kind, label, help, (card, piece) => addStep(card, piece, kind)),
            ),
            ...FINISHES.map(({ kind, label, help }) =>
              onPiece('Finish', kind, label, help, (card, piece) => addFinish(card, piece, kind)),
            ),
          ]
        : []),
    ]
  }

  const pressed = (): Thing[] =>
    bench.piece
      ? seals.list.map((seal) => ({
          ...{ id: `seal ${seal.id}`, label: `Press: ${seal.name}`, about: `Seal. ${seal.document.tags.join(' ')}` },
          run: () =>
            bench.edit(`Press ${seal.name}`, (card) =>
              pressSeal(card, bench.selection, { ...seal.document, id: seal.id }, seal.document.variants[0]!.name),
            ),
        }))
      : []

  const help = (): Thing[] =>
    HELP_TOPICS.map(({ id, title, chapter, says }) => ({
      ...{ id: `help ${id}`, label: title, about: `Help, ${chapter.toLowerCase()}. ${says}` },
      run: () => window.open(`/help#${id}`, '_blank'),
    }))

  function frames(card: Card, text: string): Thing[] {
    const frame = typedFrame(text, card.rate, card.length)
    return frame === null
      ? []
      : [
          {
            ...{ id: 'frame', label: `Frame ${frame}`, about: 'Puts the playhead there' },
            run: () => ribbon.go(frame, card.length),
          },
        ]
  }

  function find(text: string): Thing[] {
    const { card } = bench
    if (!card) return []
    const all = [...pieces(card), ...values(card), ...kinds(), ...actions(), ...pressed(), ...help()]
    return [...frames(card, text), ...ranked(all, text)].slice(0, MOST)
  }
  return { find }
}
