import { spawnSync } from 'node:child_process'
import { createWriteStream, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { afterAll, describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import { paintSchema } from '#core/values/paints'
import { expectCard } from '#core/card/read'
import { DELIVERY_FORMATS } from '#core/formats/deliveries/table'
import { archiveStream } from '#server/archive/card-archive'
import { readOwnPicture } from '#server/pictures/own-picture'
import { PROOF_CHECKS } from '#core/judge/proof/checks'
import type { ProofLine } from '#core/judge/proof/definition'
import { coat, demoCard, emptyCard, withBox, withType } from '../support/engine'

const folder = mkdtempSync(join(tmpdir(), 'wax-cli-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function wax(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['.wax/node/wax.mjs', ...args], { encoding: 'utf8' })
  return { status, out: stdout, error: stderr }
}

const CARD = 'demo/cards/02-lower-third.card.json'

describe('wax check', () => {
  test('a good card is valid', () => expect(wax('check', CARD)).toEqual({ status: 0, out: 'valid\n', error: '' }))

  test('a broken card: every fault with its place, exit code 1', () => {
    const path = join(folder, 'broken.card.json')
    const card = demoCard('02-lower-third')
    writeFileSync(path, JSON.stringify({ ...card, length: 0, frame: { width: 20000, height: 1080 } }))
    const { status, out } = wax('check', path)
    expect(status).toBe(1)
    expect(
      out
        .trim()
        .split('\n')
        .map((line) => line.split(':')[0]),
    ).toEqual(['frame.width', 'length'])
  })
})

test('wax check: a formula that gives no number, and links in a circle', () => {
  const path = join(folder, 'no-number.card.json')
  const { pieces, ...card } = demoCard('02-lower-third')
  const [first, second, ...others] = pieces
  const driven = (...motors: object[]) => ({ keys: [{ frame: 0, value: 0 }], motors })
  const follow = (source: string) => driven({ kind: 'follow', source })
  const moved = [
    { ...first, x: driven({ kind: 'formula', text: '1 / (f - 10)' }), y: follow(`${second!.id}/y`) },
    { ...second, y: follow(`${first!.id}/y`) },
  ]
  writeFileSync(path, JSON.stringify({ ...card, pieces: [...moved, ...others] }))
  const { status, out } = wax('check', path)
  expect(status).toBe(1)
  expect(out).toMatch(new RegExp(`^${first!.id}/x/motors/0: The formula gives no number at frame 10`, 'm'))
  expect(out).toMatch(new RegExp(`^${second!.id}/y/motors/0: The links go in a circle`, 'm'))
})

test('wax evaluate gives every parameter at a frame as JSON', () => {
  const { status, out } = wax('evaluate', CARD, '--frame', '60')
  const { frame, parameters } = JSON.parse(out) as {
    frame: number
    parameters: { address: string; value: unknown; moving: boolean }[]
  }
  expect([status, frame]).toEqual([0, 60])
  const at = (address: string) => parameters.find((parameter) => parameter.address === address)
  expect(at('name/opacity')).toMatchObject({ moving: true, value: 100 })
  expect(at('name/size')).toMatchObject({ moving: false, value: 76 })
})

test('wax kinds lists every table with its entries and their values', () => {
  const { status, out } = wax('kinds', '--json')
  const tables = JSON.parse(out) as Record<string, { kinds: { kind: string; parameters?: Record<string, unknown> }[] }>
  expect(status).toBe(0)
  const names = (table: string) => tables[table]!.kinds.map(({ kind }) => kind)
  const shapes = ['type', 'box', 'ellipse', 'polygon', 'line', 'path']
  expect(names('pieces')).toEqual([...shapes, 'painting', 'picture', 'sequence', 'group', 'twin', 'wash'])
  expect(names('coats')).toEqual(['fill', 'stroke', 'shadow', 'glow', 'bevel', 'sheen', 'depth'])
  expect(names('finishes')).toHaveLength(20)
  expect(names('masks')).toEqual(['box', 'ellipse', 'path', 'painted', 'matte'])
  expect(names('tips')).toHaveLength(7)
  expect(names('deliveries')).toEqual(DELIVERY_FORMATS)
  for (const [table, { kinds }] of Object.entries(tables)) expect([table, kinds.length > 1]).toEqual([table, true])
  expect(tables.motors!.kinds[0]!.parameters).toHaveProperty('amount')
  expect(wax('kinds').out).toMatch(/^ {2}stroke: Stroke\. A line along the edge/m)
})

test('wax proof judges a card: every line, and exit code 1 where one is bad', async () => {
  const path = join(folder, 'proved.card.json')
  const small = withBox(
    emptyCard(96, 64, 8),
    { id: 'box', name: 'Square', x: 48, y: 32, width: 20, height: 20 },
    { face: [coat('fill', 'fill')] },
  )
  writeFileSync(path, JSON.stringify(small))
  const { status, out } = wax('proof', path)
  expect([status, out.match(/^ok {3}/gm)?.length]).toEqual([0, PROOF_CHECKS.length])
  const words = withType(
    small,
    { wording: 'Odile', font: 'anton', size: 20, x: 96, y: 40 },
    { face: [coat('fill', 'f')] },
  )
  writeFileSync(path, JSON.stringify(words))
  const proved = wax('proof', path, '--json')
  const { passed, lines } = JSON.parse(proved.out) as { passed: boolean; lines: ProofLine[] }
  expect([proved.status, passed]).toEqual([1, false])
  expect(lines.find(({ check }) => check === 'overflow')).toMatchObject({ verdict: 'bad', findings: [{ frame: 0 }] })
  // Over a still of what the card is for, as far as it can be read.
  const shot = join(folder, 'shot.png')
  await sharp({ create: { width: 8, height: 8, channels: 3, background: '#F2A33C' } }).toFile(shot)
  expect(wax('proof', path, '--backdrop', shot).out).toMatch(/: 1 over shot\.png/)
  const gone = wax('proof', path, '--backdrop', join(folder, 'gone.png'))
  expect([gone.status, gone.out]).toEqual([1, ''])
  expect(gone.error).toMatch(/gone\.png.*cannot be read/s)
})

describe('wax loop', () => {
  test('gives the seam report and the picture differences as JSON', () => {
    const { status, out } = wax('loop', CARD, '--json', '--width', '160')
    const report = JSON.parse(out) as {
      parameters: { verdict: string }[]
      faults: []
      pictures: { steps: number[]; shows: boolean }
    }
    expect(status).toBe(0)
    expect(report.parameters.length).toBeGreaterThan(3)
    expect(report.parameters.map(({ verdict }) => verdict)).not.toContain('jump')
    expect(report.faults).toEqual([])
    expect(report.pictures.steps).toHaveLength(demoCard('02-lower-third').length)
    expect(report.pictures.shows).toBe(false)
  })

  test('a seam that shows: it is told, exit code 1', () => {
    const path = join(folder, 'jump.card.json')
    const x = {
      keys: [
        { frame: 0, value: 20 },
        { frame: 11, value: 140 },
      ],
      loop: false,
    }
    const card = withBox(
      emptyCard(160, 90, 12),
      { id: 'box', x, y: 45, width: 20, height: 20 },
      { face: [coat('fill', 'fill')] },
    )
    writeFileSync(path, JSON.stringify(card))
    const { status, out } = wax('loop', path)
    expect(status).toBe(1)
    expect(out).toMatch(/^jump +Box · x, jumps by -120: its keys end at another value than they begin with/m)
    expect(out).toMatch(/the seam shows/)
  })
})

describe('wax render', () => {
  test('fills a wished length to the frame where the hold stands still; without zones there is none to repeat', () => {
    const path = join(folder, 'zoned.card.json')
    const small = withBox(
      emptyCard(64, 64, 12),
      { id: 'box', x: 32, y: 32, width: 20, height: 20 },
      { face: [coat('fill', 'fill')] },
    )
    writeFileSync(path, JSON.stringify({ ...small, zones: { hold: 4, out: 8 } }))
    const { status, out: said } = wax('render', path, '--length', '0:21', '--out', join(folder, 'zoned'))
    expect([status, said]).toEqual([0, expect.stringContaining('ok   Frames: 21')])
    writeFileSync(path, JSON.stringify(small))
    const refused = wax('render', path, '--length', '21', '--out', join(folder, 'zoned-2'))
    expect([refused.status, refused.error]).toEqual([1, expect.stringContaining('no hold to repeat')])
  })

  test('writes the frames that were asked for, checked, and nothing else', () => {
    const out = join(folder, 'frames')
    const { status, out: said } = wax('render', CARD, '--frames', '30-32', '--out', out)
    expect(said).toContain('ok   Frames: 3')
    expect(status).toBe(0)
    expect(readdirSync(out).sort()).toEqual([30, 31, 32].map((i) => `02-lower-third-000${i}.png`))
    expect(readdirSync(folder)).toContain('frames')
    expect(readdirSync(folder).filter((name) => name.includes('part') || name.includes('alpha'))).toEqual([])
  })

  test('fill and key are told apart by their names, and wax verify knows them again by sidecar and by card', () => {
    const path = join(folder, 'pair.card.json')
    const small = withBox(
      emptyCard(64, 64, 6),
      {
        id: 'box',
        x: {
          keys: [
            { frame: 0, value: 20 },
            { frame: 5, value: 44 },
          ],
        } as never,
        y: 32,
        width: 20,
        height: 20,
      },
      { face: [coat('fill', 'fill')] },
    )
    writeFileSync(path, JSON.stringify(small))
    const [fill, key, sidecar] = ['pair-fill.mp4', 'pair-key.mp4', 'pair.json'].map((name) => join(folder, name)) as [
      string,
      string,
      string,
    ]
    const asked = ['--format', 'fillkey', '--codec', 'h264', '--key', 'full', '--sidecar', sidecar]
    expect(wax('render', path, '--out', join(folder, 'pair.mp4'), ...asked)).toMatchObject({ status: 0, error: '' })
    expect(wax('verify', fill, key, '--against', sidecar)).toMatchObject({
      status: 0,
      out: expect.stringContaining('every frame as it was checked'),
    })
    expect(wax('verify', fill, key, '--against', path, '--key', 'full').status).toBe(0)
    // The other way round they are not what was made.
    expect(wax('verify', key, fill, '--against', sidecar)).toMatchObject({
      status: 1,
      out: expect.stringContaining('FAIL Pictures: frame 0 is another one'),
    })
    const moved = { ...small, pieces: [{ ...small.pieces[0]!, y: 20 }] }
    writeFileSync(path, JSON.stringify(moved))
    const { status, out } = wax('verify', fill, key, '--against', path, '--key', 'full', '--json')
    const { passed, checks } = JSON.parse(out) as { passed: boolean; checks: { name: string; passed: boolean }[] }
    expect([status, passed]).toEqual([1, false])
    expect(checks.filter((check) => !check.passed).map(({ name }) => name)).toContain('alpha')
    expect(wax('verify', fill, '--against', join(folder, 'none.json'))).toMatchObject({
      status: 1,
      error: expect.stringContaining('none.json'),
    })
  })

  test.each([
    [['--frames', '9-3'], /no frame to render/],
    [['--frames', '0-999'], /has 150 frames/],
    [['--frames', 'all'], /range of frames/],
    [['--format', 'tiff'], /--format: “tiff” is not made here. Choose png, exr,/],
    [['--bits', '12'], /--bits: .* Choose 8 or 16/],
    [['--alpha', 'straight'], /--alpha: PNG sequence has no such option. It takes bits/],
    [['--format', 'gif', '--scale', '30%'], /--scale/],
    [['--name', '../elsewhere'], /--name: .* is no file name/],
    [['--format', 'rle', '--timecode', '1h'], /--timecode: A timecode such as/],
    [['--font', 'no-such-font.ttf'], /no-such-font\.ttf/],
  ])('%j: one clear word, exit code 1', (args, words) => {
    const { status, error } = wax('render', CARD, '--out', join(folder, 'none'), ...args)
    expect(status).toBe(1)
    expect(error).toMatch(words)
    expect(readdirSync(folder)).not.toContain('none')
  })

  test.each([[[]], [['paint', CARD]], [['render', CARD, '--colour', 'red']]])(
    '%j: says how it is used, exit code 2',
    (args) => {
      const { status, error } = wax(...args)
      expect(status).toBe(2)
      expect(error).toContain('Usage:')
    },
  )
})

test('wax section prints the cross-section of a piece; a piece that is not there is named beside those that are', () => {
  const { status, out } = wax('section', 'demo/cards/05-names.card.json', '--piece', 'name', '--frame', '10')
  const { distances, coats, innerDepth } = JSON.parse(out) as {
    distances: number[]
    coats: { kind: string; colours: number[][]; height?: number[] }[]
    innerDepth: number
  }
  expect(status).toBe(0)
  expect(coats.map(({ kind }) => kind).slice(0, 3)).toEqual(['bevel', 'fill', 'stroke'])
  for (const { colours } of coats) expect(colours).toHaveLength(distances.length)
  expect(coats[0]!.height).toHaveLength(distances.length)
  expect(innerDepth).toBeGreaterThan(5)
  // The first outline is 10 px wide.
  const first = coats[2]!.colours.filter(([, , , a]) => a! > 0.99).length
  expect(Math.abs(first - 10)).toBeLessThanOrEqual(1)
  expect(wax('section', 'demo/cards/05-names.card.json', '--piece', 'boat').error).toMatch(/boat.*name, role/)
})

test('wax render takes a picture for a texture from the command line, and says when one is missing', async () => {
  const pixels = Buffer.from([255, 0, 0, 255, 0, 0, 255, 255])
  const file = join(folder, 'two.png')
  await sharp(pixels, { raw: { width: 2, height: 1, channels: 4 } })
    .png()
    .toFile(file)
  const { id } = await readOwnPicture(new Uint8Array(readFileSync(file)), 'two.png')
  const paint = paintSchema.parse({ type: 'texture', pattern: 'picture', picture: id })
  const card = withBox(emptyCard(64, 64, 1), { width: 40, height: 40 }, { face: [coat('fill', 'f', { paint })] })
  const path = join(folder, 'texture.card.json')
  writeFileSync(path, JSON.stringify(card))
  expect(wax('render', path, '--out', join(folder, 'bare')).error).toMatch(new RegExp(`box-1/f.*${id}`))
  expect(wax('render', path, '--picture', file, '--out', join(folder, 'textured')).status).toBe(0)
  expect(readdirSync(join(folder, 'textured'))).toHaveLength(1)
})

test('wax takes a card whose pictures are named by their files, and a card with all in one archive', async () => {
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#e2683c' } })
    .png()
    .toBuffer()
  const file = new Uint8Array(bytes)
  writeFileSync(join(folder, 'boat.png'), file)
  const { id } = await readOwnPicture(file, 'boat.png')
  const paint = { type: 'texture', pattern: 'picture', picture: 'boat.png' }
  const card = withBox(
    { ...emptyCard(64, 64, 1), seed: 5 },
    { width: 64, height: 64, x: 32, y: 32 },
    { face: [coat('fill', 'f', { paint: paint as never })] },
  )
  const path = join(folder, 'by-name.card.json')
  writeFileSync(path, JSON.stringify(card))
  expect(wax('check', path).out).toBe('valid\n')
  expect(wax('render', path, '--out', join(folder, 'by-name')).status).toBe(0)
  writeFileSync(path, JSON.stringify(card).replace('boat.png', 'none.png'))
  expect(wax('check', path).error).toMatch(/none\.png: The picture file cannot be read/)

  const known = expectCard(JSON.parse(JSON.stringify(card).replace('boat.png', id)))
  const zip = join(folder, 'all.card.zip')
  const pictures = [{ id, fileName: 'boat.png', from: file }]
  const packed = await archiveStream({ card: known, fonts: new Map(), pictures, sequences: [] })
  await pipeline(packed, createWriteStream(zip))
  expect(wax('check', zip).out).toBe('valid\n')
  expect(wax('render', zip, '--out', join(folder, 'zipped')).status).toBe(0)
  const [one, two] = ['by-name', 'zipped'].map((name) => {
    const [only] = readdirSync(join(folder, name))
    return readFileSync(join(folder, name, only!))
  })
  expect(one!.equals(two!)).toBe(true)
})

describe('files that are none of ours, or not only cards', () => {
  test('seals and rosters are checked too, and a byte order mark is no fault', () => {
    expect(wax('check', 'demo/seals/lantern-regatta.seals.json').out).toBe('valid\n')
    expect(wax('check', 'demo/rosters/crews.roster.json').out).toBe('valid\n')
    const marked = join(folder, 'marked.card.json')
    writeFileSync(marked, `\uFEFF${readFileSync('demo/cards/02-lower-third.card.json', 'utf8')}`)
    expect(wax('check', marked).out).toBe('valid\n')
    const broken = join(folder, 'broken.seals.json')
    writeFileSync(broken, JSON.stringify({ format: 'wax-ribbon-seals', version: 1, name: 'x', seals: [] }))
    expect(wax('check', broken)).toMatchObject({ status: 1, out: expect.stringMatching(/^seals/) })
  })

  test.each([
    ['a folder', 'demo/cards'],
    ['a device', '/dev/null'],
    ['what is not there', 'nowhere.card.json'],
  ])('%s gets a word and no stack', (_, path) => {
    for (const command of ['check', 'evaluate', 'proof']) {
      const { status, out, error } = wax(command, path)
      expect([command, status]).toEqual([command, 1])
      expect(`${out}${error}`).not.toMatch(/\n\s+at |node:/)
    }
  })

  test('a frame that no clock shows is refused', () => {
    expect(wax('evaluate', 'demo/cards/02-lower-third.card.json', '--frame', '1e99').error).toMatch(/is no frame/)
  })
})
