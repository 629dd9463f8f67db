import { describe, expect, test } from '@jest/globals'
import { DOMMatrix, DOMPoint } from '@napi-rs/canvas'
import { readCard } from '#core/card/read'
import type { GroupPiece, PathPiece } from '#core/card/schema'
import { WaxError } from '#core/errors'
import { svgPieces } from '#core/formats/svg-in'
import { scannedXml } from '#core/formats/xml-scan'
import { Engine } from '#core/frame/engine'
import { pointsOf } from '#core/outline/path-points'
import { readPathData } from '#core/outline/svg-path'
import { emptyCard, pixelAt } from '../support/engine'

const engine = new Engine()
const empty = emptyCard(200, 200)
const bring = (inner: string, head = '') =>
  svgPieces(empty, `${head}<svg xmlns="http://www.w3.org/2000/svg">${inner}</svg>`, 'mark.svg').card
const paths = (inner: string) => (bring(inner).pieces[0] as GroupPiece).pieces as PathPiece[]
const boundsOf = (inner: string) => engine.outlook(bring(inner), 0)[0]!.bounds

describe('an SVG comes in as paths', () => {
  test('front last in the file, front first on the card; colours, opacity, none', () => {
    const found = paths(
      '<g fill="#ff0000" opacity=".5"><rect width="50" height="40"/><circle r="20" style="fill: rgb(0, 128, 0)"/></g><rect width="9" height="9" fill="none"/>',
    )
    expect(found.map((piece) => piece.coats.face[0]!.paint)).toEqual([
      { type: 'solid', colour: '#00800080' },
      { type: 'solid', colour: '#FF000080' },
    ])
  })

  test('all together stand in the middle of the card, at their own size', () => {
    expect(boundsOf('<rect x="500" y="700" width="80" height="60"/>')).toEqual({
      left: 60,
      top: 70,
      right: 140,
      bottom: 130,
    })
  })

  test('what is larger than the frame, or hardly to be seen, comes to half of it', () => {
    const { left, right } = boundsOf('<rect width="4000" height="400"/>')
    expect(right - left).toBeCloseTo(100, 0)
    const small = boundsOf('<rect width="4" height="2"/>')
    expect(small.right - small.left).toBeCloseTo(100, 0)
  })

  test('transforms of groups lie around those of what they hold (CSS Transforms 1)', () => {
    // A square of 10, scaled to 20 × 40, then a quarter turn: 40 × 20.
    const { left, top, right, bottom } = boundsOf(
      '<g transform="rotate(90)"><rect transform="scale(4 8)" width="10" height="10"/></g>',
    )
    expect([right - left, bottom - top].map((v) => Math.round(v))).toEqual([80, 40])
    const moved = boundsOf(
      '<rect transform="translate(7 3) rotate(180 5 5) matrix(2 0 0 2 0 0) skewX(45)" width="30" height="30"/>',
    )
    expect(Math.round(moved.right - moved.left)).toBe(120)
  })

  test('lines keep their thickness, ends and corners; a fill with a line is two pieces, the line in front', () => {
    const [line, fill] = paths(
      '<path d="M0 0H60V60Z" fill="blue" stroke="#222" stroke-width="5" stroke-linecap="round" stroke-linejoin="bevel"/>',
    )
    expect(line).toMatchObject({ thickness: 5, cap: 'round', join: 'bevel' })
    expect(fill).toMatchObject({ thickness: 0, coats: { face: [{ paint: { colour: '#0000FF' } }] } })
  })

  test('round boxes, ellipses, polygons and holes are filled as they are there', () => {
    const card = bring(
      '<path fill-rule="evenodd" fill="white" d="M0 0H100V100H0Z M25 25H75V75H25Z"/><ellipse cx="50" cy="50" rx="10" ry="15" fill="#ff0000"/>',
    )
    expect(readCard(card).faults).toBeNull()
    const picture = engine.render(card, 0)
    expect(pixelAt(picture, 60, 60)).toEqual([1, 1, 1, 1])
    expect(pixelAt(picture, 78, 100)[3]).toBe(0)
    expect(pixelAt(picture, 100, 100)).toEqual([1, 0, 0, 1])
    expect(boundsOf('<rect rx="20" width="100" height="60"/>')).toEqual({ left: 50, top: 70, right: 150, bottom: 130 })
    expect(boundsOf('<polygon points="0,0 90,0 90,60"/>')).toEqual({ left: 55, top: 70, right: 145, bottom: 130 })
  })
})

describe('what is no SVG, or more than one', () => {
  const fault = (inner: string, head = '') => {
    try {
      bring(inner, head)
    } catch (error) {
      return (error as WaxError).fault.code
    }
    return null
  }

  test('is refused by name, and says what to do', () => {
    expect(fault('<text>Only words</text>')).toBe('empty-svg')
    expect(fault('<path d="M 0 0 L banana"/>')).toBe('broken-svg')
    expect(fault(Array.from({ length: 300 }, () => '<rect width="9" height="9"/>').join(''))).toBe('svg-too-large')
    expect(() => svgPieces(empty, '<html></html>', 'page.svg')).toThrow(WaxError)
    expect(() => svgPieces(empty, 'x'.repeat(5_000_000), 'long.svg')).toThrow('larger than 4 MB')
  })

  test('entities that would grow without end are taken off; scripts and hidden parts are left out', () => {
    const bomb = '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>'
    expect(fault('<rect width="20" height="20"/>', bomb)).toBeNull()
    expect(
      paths(
        '<script>1</script><defs><rect width="1" height="1"/></defs><rect display="none" width="5" height="5"/><rect id="seen" width="20" height="20"/>',
      ).map(({ name }) => name),
    ).toEqual(['seen'])
  })
})

describe('what an SVG says of its lines and opacities', () => {
  const line = (inner: string) => paths(inner).find(({ thickness }) => (thickness as number) > 0)!

  test('lines are as thick as transforms make them; those that do not scale are not', () => {
    const rect = (more: string) => `<rect width="30" height="30" fill="none" stroke="#000" stroke-width="4" ${more}/>`
    expect(line(rect('')).thickness).toBeCloseTo(4, 6)
    expect(line(`<g transform="scale(2)">${rect('transform="rotate(30)"')}</g>`).thickness).toBeCloseTo(8, 6)
    // Uneven: the mean by area, √(4 · 1).
    expect(line(rect('transform="scale(4 1)"')).thickness).toBeCloseTo(8, 6)
    expect(line(rect('transform="scale(3)" vector-effect="non-scaling-stroke"')).thickness).toBeCloseTo(4, 6)
  })

  test('fill-opacity and stroke-opacity are inherited and multiplied with the opacity', () => {
    const inner = '<rect width="60" height="40" fill="#ff0000" stroke="#0000ff" opacity=".5"/>'
    const colours = paths(`<g fill-opacity=".5" stroke-opacity=".2">${inner}</g>`).map((p) => p.coats.face[0]!.paint)
    expect(colours).toEqual([
      { type: 'solid', colour: '#0000FF1A' },
      { type: 'solid', colour: '#FF000040' },
    ])
  })

  test.each([
    '<rect width="5" height="5"/>',
    '<circle r="0.004"/>',
    '<rect width="1e-7" height="1e-7"/>',
    '<path d="M1 1L1 1"/>',
  ])('however small it is, the card can be kept: %s', (inner) =>
    expect(readCard(bring(`${inner}<rect width="0.001" height="0.002"/>`)).faults).toBeNull(),
  )
})

describe('transforms as a second implementation has them (DOMMatrix, Geometry Interfaces 1)', () => {
  /** Corners of a rectangle from its first one on: places of pieces, which stand in the middle of all, do not count. */
  const corners = (inner: string) => {
    const { points } = pointsOf(readPathData(paths(inner)[0]!.path as string, 'path'))[0]!
    return points.slice(0, 4).flatMap(({ x, y }) => [x - points[0]!.x, y - points[0]!.y])
  }
  const wanted = (matrix: DOMMatrix) => {
    const at = [
      [5, 7],
      [45, 7],
      [45, 27],
      [5, 27],
    ].map(([x, y]) => matrix.transformPoint(new DOMPoint(x, y)))
    return at.flatMap(({ x, y }) => [x - at[0]!.x, y - at[0]!.y])
  }
  const rect = '<rect x="5" y="7" width="40" height="20"/>'

  test.each([
    ['rotate(35 12 -40)', () => new DOMMatrix().translate(12, -40).rotate(35).translate(-12, 40)],
    ['skewY(20) scale(1.5, 0.5)', () => new DOMMatrix().skewY(20).scale(1.5, 0.5)],
    ['translate(9) skewX(-15) rotate(70)', () => new DOMMatrix().translate(9).skewX(-15).rotate(70)],
  ])('%s', (transform, matrix) => {
    const found = corners(`<g transform="${transform}">${rect}</g>`)
    // Points are written in hundredths: half of one for each of the two that are told apart.
    wanted(matrix()).forEach((value, i) => expect(Math.abs(found[i]! - value)).toBeLessThanOrEqual(0.0101))
  })

  test('a point turned about stands where it is: x comes before y', () => {
    // Two squares, one turned about its own middle: both have the same middle still.
    const [turned, still] = paths(
      '<rect x="100" y="10" width="20" height="20"/><rect x="100" y="10" width="20" height="20" transform="rotate(45 110 20)"/>',
    ).map(({ path }) => pointsOf(readPathData(path as string, 'path'))[0]!.points.slice(0, 4))
    const middle = (points: { x: number; y: number }[]) => [
      points.reduce((sum, { x }) => sum + x, 0) / 4,
      points.reduce((sum, { y }) => sum + y, 0) / 4,
    ]
    middle(turned!).forEach((value, i) => expect(value).toBeCloseTo(middle(still!)[i]!, 1))
  })
})

test('opacities of all groups that hold a form are multiplied (CSS Color 4 §12)', () => {
  const inner = '<g opacity="0.5"><g opacity="0.5"><rect width="50" height="40" fill="#000" opacity="0.8"/></g></g>'
  // 0.5 · 0.5 · 0.8 = 0.2 = 51 of 255.
  expect(paths(inner)[0]!.coats.face[0]!.paint).toEqual({ type: 'solid', colour: '#00000033' })
})

describe('files that were made to freeze', () => {
  const fault = (text: string) => {
    try {
      svgPieces(empty, text, 'mark.svg')
      return null
    } catch (error) {
      if (!(error instanceof WaxError)) throw error
      return error.fault.code
    }
  }

  test('are gone over once, however many document types begin in them', () => {
    const text = '<!DOCTYPE '.repeat(100_000)
    // A scan that goes back to the beginning for each of them would look at 5·10^10 signs, and not end in a minute.
    expect(scannedXml(text).text).toBe('')
    expect(fault(text)).toBe('broken-svg')
  })

  test.each([
    ['20,000 groups in each other', `<svg>${'<g>'.repeat(20_000)}${'</g>'.repeat(20_000)}</svg>`, 'too-deep'],
    ['as many that never end', `<svg>${'<g>'.repeat(20_000)}`, 'too-deep'],
    ['a path of three megabytes', `<svg><path d="M0 0${'L123 456'.repeat(400_000)}"/></svg>`, 'path-too-long'],
    ['as many numbers without letters', `<svg><path d="M0 0L${'123 456 '.repeat(400_000)}"/></svg>`, 'path-too-long'],
  ])('%s', (_, text, code) => expect(fault(text)).toBe(code))

  test('a form of as many points as are let in comes in', () => {
    const points = Array.from({ length: 19_990 }, (_, i) => `${i % 997} ${(i * 31) % 991}`).join(' ')
    expect(paths(`<path d="M0 0L${points}"/>`)).toHaveLength(1)
  })

  test('the library reads on past a document type with brackets, quotes and comments in it', () => {
    const head = `<!DOCTYPE svg [ <!-- ]> don't --> <!ENTITY a "]>"> <!ENTITY b '<g>'> ]>`
    expect(scannedXml(`${head}<svg a=">"/>`)).toEqual({ text: '<svg a=">"/>', isTooDeep: false })
    expect(paths(`<rect width="9" height="9" id="a"/>`)).toHaveLength(1)
    expect(scannedXml('<svg><![CDATA[<g>]]><!-- <g> --><?x <g>?></svg>').text).toContain('CDATA')
  })
})
