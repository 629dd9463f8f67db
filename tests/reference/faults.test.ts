import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import { counts } from '#core/values/parameters'
import type { Card } from '#core/card/schema'
import { stroke } from '#core/coats/stroke'
import type { FramePicture } from '#core/frame/engine'
import { Engine } from '#core/frame/engine'
import { PictureBook } from '#core/paint/pictures'
import { FontBook } from '#core/type/font-book'
import type { Spot } from '../support/brute'
import { atPixels, coverOf, cubicLine, stood, toLine, toPolygon } from '../support/brute'

// Cards that showed a fault when a second implementation, written from the documents, drew them too. Each is held here
// against plain reckoning from the definitions: distances by trying every edge, cover by counting samples.

const engine = new Engine()

/** One step of 16 bits, in 255ths. */
const DITHER = 1.01 / 257

interface Raw {
  [key: string]: unknown
  pieces: [Record<string, unknown>, ...Record<string, unknown>[]]
}

const raw = (name: string) => JSON.parse(readFileSync(`tests/reference/faults/${name}.card.json`, 'utf8')) as Raw
const draw = (name: string): FramePicture => engine.render(expectCard(raw(name)), 0, { bits: 16 })

/** A straight channel of a pixel, in 255ths. */
function channel({ width, pixels }: FramePicture, x: number, y: number, c: number): number {
  return new Uint16Array(pixels.buffer, pixels.byteOffset)[(y * width + x) * 4 + c]! / 257
}
const alpha = (picture: FramePicture, x: number, y: number) => channel(picture, x, y, 3)

/** The most and the mean by which alpha differs from what is wanted (0–1, null where nothing is wanted), in 255ths. */
function against(picture: FramePicture, wanted: (x: number, y: number) => number | null) {
  let [most, sum, count] = [0, 0, 0]
  for (let y = 0; y < picture.height; y++) {
    for (let x = 0; x < picture.width; x++) {
      const value = wanted(x, y)
      if (value === null) continue
      const off = Math.abs(alpha(picture, x, y) - value * 255)
      most = Math.max(most, off)
      sum += off
      count++
    }
  }
  return { most, mean: sum / count, count }
}

describe('a curved line has no edges inside', () => {
  const curve = cubicLine([
    [-100, 40],
    [-40, -120],
    [40, 120],
    [100, -40],
  ])
  const away = toLine(stood(curve, 200.3, 150.7))
  /** Px inside a line 20 px thick. */
  const depth = atPixels(400, 300, (x, y) => 10 - away(x, y))

  test('an even glow inside falls off from its sides alone', () => {
    const { most, count } = against(draw('P7-curve-glow-in'), (x, y) => {
      const d = depth(x, y)
      return d > 1 && d < 8.5 ? 1 - d / 9 : null
    })
    expect(count).toBeGreaterThan(3000)
    expect(most).toBeLessThan(2)
  })

  test('a stroke inside runs along its sides alone', () => {
    const { most } = against(draw('P7-curve-stroke-in'), (x, y) => {
      const d = depth(x, y)
      return d > 1 && d < 4 ? 1 : d > 6 ? 0 : null
    })
    expect(most).toBeLessThan(DITHER)
  })

  test('a bevel is smooth: lit where its side faces the light, in shade on the other', () => {
    const picture = draw('P6-path-6-0')
    // Light from 120° at 45°: a straight slope of 45° has the brightness of its normal.
    let most = 0
    let count = 0
    for (let y = 1; y < 299; y++) {
      for (let x = 1; x < 399; x++) {
        // Whole slopes only, away from the round ends, where neighbours have other normals.
        if (depth(x, y) < 2 || depth(x, y) > 4.5 || x < 112 || x > 288) continue
        const [gx, gy] = [depth(x + 1, y) - depth(x - 1, y), depth(x, y + 1) - depth(x, y - 1)].map((v) => v / 2)
        const light = [Math.cos((120 * Math.PI) / 180) * Math.SQRT1_2, -Math.sin((120 * Math.PI) / 180) * Math.SQRT1_2]
        const length = Math.hypot(gx!, gy!, 1)
        const bright = Math.max(0, (-gx! * light[0]! - gy! * light[1]! + Math.SQRT1_2) / length)
        const wanted =
          bright > Math.SQRT1_2 ? (bright - Math.SQRT1_2) / (1 - Math.SQRT1_2) : (Math.SQRT1_2 - bright) / Math.SQRT1_2
        most = Math.max(most, Math.abs(alpha(picture, x, y) - wanted * 255))
        count++
      }
    }
    expect(count).toBeGreaterThan(1000)
    // Slopes of neighbouring pixels on a bend, not of the curve's own normal.
    expect(most).toBeLessThan(12)
  })

  test('so is an arc', () => {
    const { most } = against(draw('P8-arc-24'), (x, y) => {
      const [dx, dy] = [x + 0.5 - 200, y + 0.5 - 150]
      // The upper half of a ring of 90 px, with round ends, 24 px thick.
      const off = dy <= 0 ? Math.abs(Math.hypot(dx, dy) - 90) : Math.hypot(Math.abs(dx) - 90, dy)
      return off < 11 ? 1 - (12 - off) / 40 : null
    })
    expect(most).toBeLessThan(2)
  })

  const half = cubicLine([
    [-50, 20],
    [-20, -60],
    [20, 60],
    [50, -20],
  ])
  const scaled = atPixels(400, 300, toLine(stood(half, 200.3, 150.7, 13, 2)))

  test('mitres make no spikes on it', () => {
    // 10 px thick and a stroke of 4 px around it, twice enlarged; round ends.
    const { most } = against(draw('P9-scale-mitre-13'), (x, y) => {
      const d = scaled(x, y)
      return d > 10.8 && d < 17.2 ? 1 : d > 18.8 || d < 9.2 ? 0 : null
    })
    expect(most).toBeLessThan(0.6)
  })

  test('a body swept from it is whole, and none of it shows on the line', () => {
    const picture = draw('P4-line-behind-2-depth-s')
    const { most } = against(picture, (x, y) => (scaled(x, y) < 9.2 ? 0 : null))
    expect(most).toBe(0)
    // What is not clear is whole, but for pixels on an edge of the body: few beside so long an edge.
    let [whole, broken] = [0, 0]
    for (let y = 0; y < 300; y++) {
      for (let x = 0; x < 400; x++) {
        const a = alpha(picture, x, y)
        if (a > 254) whole++
        else if (a > 1) broken++
      }
    }
    expect(whole).toBeGreaterThan(2500)
    expect(broken).toBeLessThan(900)
  })
})

describe('a firm shadow', () => {
  const box = (x: number, y: number): Spot[] =>
    stood(
      [
        [-50, -28],
        [50, -28],
        [50, 28],
        [-50, 28],
      ],
      x,
      y,
    )
  const grown = (corners: Spot[], by: number) => {
    const away = toPolygon(corners)
    return (x: number, y: number) => coverOf((px, py) => away(px, py) - by, x, y)
  }

  test('is whole where it is moved to the right', () => {
    expect(against(draw('09-clip-right'), grown(box(178.5 + 30, 150), 20)).most).toBeLessThan(4)
  })

  test('is whole where it is moved up, around a star', () => {
    const star = Array.from({ length: 10 }, (_, i): Spot => {
      const [a, r] = [(i * Math.PI) / 5, i % 2 ? Math.cos(Math.PI / 5) * 0.6 : 1]
      return [Math.sin(a) * r * 90, -Math.cos(a) * r * 80]
    })
    const corners = stood(star, 200.3, 150.7 - 30, 11)
    const { most, mean } = against(draw('09-firm-30-90-40-100'), grown(corners, 40))
    // The most where two arcs meet in a hollow.
    expect(most).toBeLessThan(8)
    expect(mean).toBeLessThan(0.02)
  })

  test('a little soft, is the same on all its sides', () => {
    // The key light stands at 120°: the shadow falls 40 px to −60°.
    const [dx, dy] = [40 * Math.cos(Math.PI / 3), 40 * Math.sin(Math.PI / 3)]
    const picture = draw('09-clip-default-light')
    // Softness 24 at firmness 90: spread 21.6, sigma 1.2. Whole and clear a little way off its edge.
    const away = toPolygon(box(180 + dx, 156.5 + dy))
    const { most } = against(picture, (x, y) => {
      const d = away(x + 0.5, y + 0.5) - 21.6
      return d < -6 ? 1 : d > 6 ? 0 : null
    })
    expect(most).toBeLessThan(0.5)
  })
})

test('softness below a pixel blurs by as much as it says', () => {
  // The variance of a blurred edge is that of the pixel and of the blur together: across a straight upper edge.
  const card = raw('09-small-0-0-0.6')
  const profile = (softness: number) => {
    const [piece] = card.pieces
    const [shadow] = (piece as { coats: { behind: Record<string, unknown>[] } }).coats.behind
    const still = {
      ...piece,
      rotation: 0,
      y: 150.5,
      height: 90,
      coats: { face: [], behind: [{ ...shadow, softness }] },
    }
    const picture = engine.render(expectCard({ ...card, pieces: [still] }), 0, { bits: 16 })
    const column = Array.from({ length: 12 }, (_, i) => alpha(picture, 200, 100 + i) / 255)
    const steps = column.slice(1).map((value, i) => value - column[i]!)
    const mean = steps.reduce((sum, step, i) => sum + step * i, 0)
    return steps.reduce((sum, step, i) => sum + step * (i - mean) ** 2, 0)
  }
  const plain = profile(0)
  for (const softness of [0.2, 0.6, 1, 1.6, 2.4]) {
    expect(profile(softness) - plain).toBeCloseTo((softness / 2) ** 2, 2)
  }
})

describe('coats by distance around a group are those of the piece in it', () => {
  test.each(['21-corner-12-20', '21-gs-0', '21-gs-640-30', '21-gc-bevel-out', '21-gc-glow-even'])('%s', (name) => {
    const card = raw(name)
    const [group] = card.pieces
    const { coats } = group as { coats: Record<'face' | 'behind', object[]> }
    const [inner] = (group as { pieces: { coats: { face: object[] } }[] }).pieces
    const face = [...coats.face, ...inner!.coats.face]
    const direct = { ...inner, x: group.x, y: group.y, coats: { ...coats, face } }
    const [grouped, alone] = [card, { ...card, pieces: [direct] }].map((one) =>
      engine.render(expectCard(one), 0, { bits: 16 }),
    ) as [FramePicture, FramePicture]
    const { most, mean } = against(grouped, (x, y) => alpha(alone, x, y) / 255)
    // Distances from pixels are good to a tenth of one beside straight edges, to a quarter around a slanting corner.
    expect(most).toBeLessThan(64)
    expect(mean).toBeLessThan(0.06)
  })
})

describe('pictures', () => {
  const withPicture = (card: Raw, width: number, height: number, at: (x: number, y: number) => readonly number[]) => {
    const pictures = new PictureBook()
    const pixels = new Uint8Array(width * height * 4)
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) pixels.set(at(x, y), (y * width + x) * 4)
    pictures.add((card.pieces[0] as { picture: string }).picture, { width, height, pixels })
    return new Engine(new FontBook(), pictures).render(expectCard(card), 0, { bits: 16 })
  }

  test('enlarged, do not mix their border with the one opposite', () => {
    const picture = withPicture(raw('27-halves-x8'), 8, 8, (x) => (x < 4 ? [255, 0, 0, 255] : [0, 0, 255, 255]))
    for (let y = 32; y < 96; y++) {
      expect(channel(picture, 32, y, 2)).toBe(0)
      expect(channel(picture, 95, y, 0)).toBe(0)
    }
  })

  test('of a disc have a stroke of even width all around', () => {
    const disc = (x: number, y: number) => (Math.hypot(x - 49.5, y - 49.5) < 40 ? 255 : 0)
    const picture = withPicture(raw('27-disc-stroke'), 100, 100, (x, y) => [255, 0, 0, disc(x, y)])
    const { most } = against(picture, (x, y) => {
      const d = Math.hypot(x + 0.5 - 150, y + 0.5 - 150) - 40
      // The disc has steps of whole pixels: it is itself only good to one.
      return d > 1.5 && d < 18.5 ? 1 : d > 21.5 ? 0 : null
    })
    expect(most).toBeLessThan(1)
  })
})

describe('cut corners', () => {
  const shape = (points: Spot[]) => stood(points, 200, 150)
  test('have no holes where a pixel lies on the normal of a corner', () => {
    const roof = shape([
      [-90, 60],
      [0, 30],
      [90, 60],
      [90, 90],
      [0, 60],
      [-90, 90],
    ])
    const triangle = shape([
      [0, -90],
      [60, 90],
      [-60, 90],
    ])
    const within = (corners: Spot[], width: number) => {
      const away = toPolygon(corners)
      return (x: number, y: number) => (away(x + 0.5, y + 0.5) < width ? 1 : null)
    }
    expect(against(draw('06-natural-roof-mitre'), within(roof, 19)).most).toBeLessThan(DITHER)
    // A bevel cuts off as much as the cosine of half the turn.
    expect(against(draw('06-natural-tri31-bevel'), within(triangle, 5)).most).toBeLessThan(DITHER)
  })

  test('as mitres stick out as far as their limit allows', () => {
    const card = raw('06-natural-tri31-bevel')
    const [piece] = card.pieces as unknown as [{ coats: { face: [object, object] } }]
    const [stroke, fill] = piece.coats.face
    const coats = { face: [{ ...stroke, join: 'mitre' }, fill], behind: [] }
    const picture = engine.render(expectCard({ ...card, pieces: [{ ...piece, coats }] }), 0, { bits: 16 })
    // The width over the sine of half the tip's angle, above the tip at (200, 60).
    const tip = 60 - 16 / Math.sin(Math.atan(60 / 180))
    expect(alpha(picture, 200, Math.ceil(tip) + 4)).toBeGreaterThan(254)
    expect(alpha(picture, 200, Math.floor(tip) - 2)).toBe(0)
  })

  test('of sharp tips are cut in the middle of a pixel too', () => {
    // The cut lies the width times the sine of half the tip's angle before the point.
    const tip = draw('06-tip-8-0-bevel-4-9.3')
    const cut = 320.3 + 9.3 * (8 / Math.hypot(240, 8))
    expect(alpha(tip, 320, 150) / 255).toBeCloseTo(cut - 320, 1)
    expect(alpha(tip, 321, 150)).toBe(0)
    const spike = draw('06-spike-outside--5-bevel')
    const edge = 320.3 + 7 * (30 / Math.hypot(240, 30))
    expect(alpha(spike, Math.floor(edge), 150) / 255).toBeCloseTo(edge % 1, 1)
  })
})

describe('round forms', () => {
  const area = (picture: FramePicture) => {
    let sum = 0
    for (let y = 0; y < picture.height; y++) for (let x = 0; x < picture.width; x++) sum += alpha(picture, x, y)
    return sum / 255
  }

  test('an ellipse of a radius of 1,000 px is one', () => {
    // Straight pieces lie within a hundredth of a pixel of it.
    expect(Math.abs(area(draw('01-bigdisc-1000')) - Math.PI * 1e6)).toBeLessThan(0.01 * 2 * Math.PI * 1000)
  })

  test('a polygon with round corners has the arcs of circles', () => {
    const sharp = (3 / 2) * 100 ** 2 * Math.sin((2 * Math.PI) / 3)
    const lost = 20 ** 2 * (3 * Math.tan(Math.PI / 3) - Math.PI)
    // Straight pieces lie within a hundredth of a pixel of the arcs.
    expect(Math.abs(area(draw('01-tri-round')) - sharp + lost)).toBeLessThan(0.01 * 2 * Math.PI * 20)
  })
})

describe('strokes stacked inside', () => {
  test('leave no hairline between them', () => {
    const bare = draw('08-seam-inside-nofill')
    const filled = draw('08-seam-inside')
    for (let x = 170; x < 230; x++) {
      // The seam runs 6.5 px below the upper edge, through the row 116.
      expect(alpha(bare, x, 116)).toBe(255)
      expect(channel(filled, x, 116, 2)).toBe(0)
    }
  })

  test('are not offered across the edge, where there is nothing to stack on', () => {
    const [piece] = expectCard(raw('08-stack-across-as')).pieces
    const [, across] = piece!.coats.face
    expect(counts(stroke.parameters.stacked!, across!)).toBe(false)
    expect(counts(stroke.parameters.stacked!, { ...across!, side: 'inside' })).toBe(true)
  })
})

describe('what lies behind a shape', () => {
  test('draws no rim on the edge that hides it: a body', () => {
    const picture = draw('18-rim-True')
    // On white, white disc, black body to the lower right: the upper left half of the disc's edge stays white.
    for (let y = 75; y < 226; y++) {
      for (let x = 125; x < 276; x++) {
        const [dx, dy] = [x + 0.5 - 200.3, y + 0.5 - 150.7]
        if (dx + dy < -3) expect(channel(picture, x, y, 0)).toBeGreaterThan(254.4)
      }
    }
  })

  test('draws no rim: a hard shadow right below it', () => {
    const card = raw('18-rim-True')
    const [piece] = card.pieces
    const { face } = (piece as { coats: { face: object[] } }).coats
    const shadow = { id: 's', kind: 'shadow', distance: 0, softness: 0 }
    const picture = engine.render(expectCard({ ...card, pieces: [{ ...piece, coats: { face, behind: [shadow] } }] }), 0)
    expect(picture.pixels.every((value) => value === 255)).toBe(true)
  })
})

test('a depth tapers about the same point of the piece, however it is turned', () => {
  const card = raw('18-star--30-60-False')
  const area = (rotation: number) => {
    const [piece] = card.pieces as unknown as [{ coats: { behind: object[] } }]
    const coats = { face: [], behind: [{ ...piece.coats.behind[0], direction: -30 + rotation }] }
    const turned = { ...card, pieces: [{ ...piece, rotation, coats }] } as unknown as Card
    const { pixels } = engine.render(expectCard(turned), 0)
    return pixels.reduce((sum, value, i) => (i % 4 === 3 ? sum + value : sum), 0) / 255
  }
  const upright = area(0)
  for (const rotation of [11, 37, 90, 151]) expect(area(rotation) / upright).toBeCloseTo(1, 3)
})

test('an even glow that is firm all through ends where its reach ends', () => {
  const card = raw('21-gc-glow-even')
  const box = { id: 'a', kind: 'box', name: 'a', x: 200, y: 150, width: 100, height: 60 }
  const glow = { id: 'g', kind: 'glow', measure: 'even', firmness: 100, reach: 20, falloff: 'linear' }
  const pieces = [{ ...box, coats: { face: [], behind: [glow] } }]
  const picture = engine.render(expectCard({ ...card, pieces }), 0, { bits: 16 })
  expect(alpha(picture, 200 + 50 + 19, 150)).toBe(255)
  expect(alpha(picture, 200 + 50 + 20, 150)).toBe(0)
})
