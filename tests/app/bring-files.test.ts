import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { Card, GroupPiece, PicturePiece, Piece, SequencePiece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { PieceOutlook } from '#core/frame/outlook'
import { useBringFiles } from '~/composables/bring-files'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useSequences } from '~/stores/sequences'
import { freshStores, Refusal, standInServer, threeBoxes } from './stand-in'

// Files that are dropped on the stage become pieces.

const PICTURE = { id: 'picture-0123456789abcdef', fileName: 'boat.png', width: 960, height: 270 }
const MOVING = {
  ...{ id: 'sequence-0123456789abcdef', fileName: 'ink.webm', width: 100, height: 50, frames: 12, bits: 8 },
  ...{ rate: { numerator: 24, denominator: 1 }, alpha: null, notes: [], ended: true },
}
const FAULT = { code: 'no-picture', place: 'boat.png', message: 'It is no picture.', remedy: 'Take a PNG.' }

/** What a request that tells how far it is says. */
let sent: { path: string; shares: number[]; answer: { status: number; response: unknown } | 'lost' }

class Request {
  upload = { addEventListener: (_: string, listener: (event: object) => void) => (this.onShare = listener) }
  responseType = ''
  status = 0
  response: unknown = null
  private onShare: (event: object) => void = () => {}
  private heard = new Map<string, () => void>()
  addEventListener = (name: string, listener: () => void) => this.heard.set(name, listener)
  open = (_: string, path: string) => (sent.path = path)
  send() {
    for (const loaded of [25, 100]) {
      this.onShare({ loaded, total: 100 })
      sent.shares.push(useSequences().sending!.share)
    }
    const { answer } = sent
    if (answer === 'lost') return this.heard.get('error')!()
    Object.assign(this, answer)
    this.heard.get('load')!()
  }
}

const bytes = (...values: number[]) => Uint8Array.from(values)
const png = () => new File([bytes(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10)], 'boat.png', { type: 'image/png' })
const video = () => new File([bytes(0x1a, 0x45, 0xdf, 0xa3)], 'ink.webm', { type: 'video/webm' })
const svg = (text: string) => new File([text], 'mark.svg', { type: 'image/svg+xml' })

async function opened(answers: Record<string, unknown> = {}) {
  const asked = standInServer({
    'GET /cards/card-1': { id: 'card-1', revision: 1, document: threeBoxes() },
    'POST /pictures?name=boat.png': PICTURE,
    'GET /pictures': [PICTURE],
    [`GET /sequences/${MOVING.id}`]: MOVING,
    'GET /sequences': [MOVING],
    ...answers,
  })
  const bench = useBench()
  await bench.open('card-1')
  return { bench, asked, ...useBringFiles() }
}
const front = <T extends Piece>(card: Card | null) => card!.pieces[0] as T

beforeEach(() => {
  freshStores()
  sent = { path: '', shares: [], answer: { status: 200, response: MOVING } }
  globalThis.XMLHttpRequest = Request as unknown as typeof XMLHttpRequest
})
afterEach(() => {
  jest.useRealTimers()
})

describe('a picture', () => {
  test('becomes a piece in front, within the frame, where it was let go; one step', async () => {
    const { bench, bringIn } = await opened()
    await bringIn([png()], { x: 40, y: 30 })
    expect(front<PicturePiece>(bench.card)).toMatchObject({
      ...{ kind: 'picture', name: 'boat', picture: PICTURE.id, x: 40, y: 30 },
      // 960 × 270 in a frame of 480 × 270.
      ...{ width: 480, height: 135 },
    })
    expect(bench.selectedPiece).toBe(front(bench.card).id)
    expect(bench.past.map(({ label }) => label)).toEqual(['Bring in boat.png'])
  })

  test('that is none is told, and nothing is made of it; what was dropped beside it comes in', async () => {
    const { bench, bringIn } = await opened({ 'POST /pictures?name=boat.png': new Refusal(422, FAULT) })
    await bringIn([png(), svg('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h40v20z"/></svg>')])
    expect(useNotices().current).toMatchObject({ text: FAULT.message, remedy: FAULT.remedy, bad: true })
    expect(bench.past.map(({ label }) => label)).toEqual(['Bring in mark.svg'])
  })

  test('goes into a piece, held by its face, over all of it; not where the piece is not there', async () => {
    const { bench, inside } = await opened()
    const piece = bench.card!.pieces.find(({ id }) => id === 'front')!
    const parent = { scale: 1, rotation: 0, x: 0, y: 0 }
    const corners = [
      ...[
        { x: 270, y: 70 },
        { x: 330, y: 70 },
      ],
      ...[
        { x: 330, y: 110 },
        { x: 270, y: 110 },
      ],
    ]
    await inside([png()], piece, undefined)
    expect(useNotices().current).toMatchObject({ text: 'front has no face at this frame.', bad: true })
    expect(bench.past).toEqual([])
    await inside([png()], piece, { id: 'front', parent, corners } as unknown as PieceOutlook)
    const made = allPieces(bench.card!.pieces).find(({ kind }) => kind === 'picture') as PicturePiece
    // As small as covers 60 × 40 in its own shape, in whole pixels.
    expect([made.width, made.height]).toEqual([Math.ceil((40 * 960) / 270), 40])
    expect(made.masks).toEqual([expect.objectContaining({ kind: 'matte', source: 'front' })])
    expect(bench.selectedPiece).toBe(made.id)
  })
})

describe('an SVG file', () => {
  test('becomes a group of its paths', async () => {
    const { bench, bringIn } = await opened()
    const text =
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><path d="M0 0h40v20z"/><circle cx="20" cy="30" r="5"/></svg>'
    await bringIn([svg(text)], { x: 100, y: 100 })
    const group = front<GroupPiece>(bench.card)
    expect(group).toMatchObject({ kind: 'group', x: 100, y: 100 })
    expect(group.pieces).toHaveLength(2)
    expect(bench.selectedPiece).toBe(group.id)
  })

  test('that is broken is named, and changes nothing', async () => {
    const { bench, bringIn } = await opened()
    await bringIn([svg('<svg><path d="')])
    expect(useNotices().current).toMatchObject({ bad: true })
    expect(bench.past).toEqual([])
  })
})

describe('a sequence', () => {
  test('tells how much of it has gone, and runs at its own rate and size', async () => {
    const { bench, bringIn } = await opened()
    await bringIn([video()])
    expect(sent).toMatchObject({ path: '/api/sequences?name=ink.webm', shares: [0.25, 1] })
    expect(useSequences().sending).toBeNull()
    expect(front<SequencePiece>(bench.card)).toMatchObject({
      ...{ kind: 'sequence', name: 'ink', sequence: { id: MOVING.id, frames: 12 }, width: 100, height: 50 },
      ...{ rate: { numerator: 24, denominator: 1 }, alpha: 'straight' },
    })
  })

  test('whose colours were laid on black says so, after what else there is to say', async () => {
    sent.answer = { status: 200, response: { ...MOVING, alpha: 'black', notes: ['It says 500 pictures and has 12.'] } }
    const { bench, bringIn } = await opened()
    await bringIn([video()])
    expect(front<SequencePiece>(bench.card).alpha).toBe('black')
    expect(useNotices().current!.text).toBe(
      'It says 500 pictures and has 12. Its colours were laid on black: Alpha is set so.',
    )
  })

  test.each([
    ['refused', { status: 413, response: { data: FAULT } }, FAULT.message],
    ['not answered', 'lost' as const, 'The server cannot be reached.'],
    ['answered without words', { status: 500, response: null }, 'The server failed at this.'],
  ])('that is %s makes no piece, and nothing is on its way any more', async (_, answer, words) => {
    sent.answer = answer
    const { bench, bringIn } = await opened()
    await bringIn([video()])
    expect(useNotices().current).toMatchObject({ text: words, bad: true })
    expect([bench.past, useSequences().sending]).toEqual([[], null])
  })

  test('is asked for until all its pictures were read, by one who asks however many want it', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
    let there = 0
    const { asked } = await opened({
      [`GET /sequences/${MOVING.id}`]: () => ({ ...MOVING, there: ++there, ended: there >= 4 }),
    })
    const sequences = useSequences()
    await Promise.all([sequences.follow(MOVING.id), sequences.follow(MOVING.id)])
    for (let i = 0; i < 8; i++) await jest.advanceTimersByTimeAsync(500)
    expect(sequences.known[MOVING.id]).toMatchObject({ there: 4, ended: true })
    expect(asked.filter(({ path }) => path === `/sequences/${MOVING.id}`)).toHaveLength(4)
  })
})
