import { SVGPathData, SVGPathDataTransformer } from 'svg-pathdata'
import type { INode } from 'svgson'
import { parseSync } from 'svgson'
import { formatHex8, parse as parseColour } from 'culori'
import { createCoat, createPiece, freeId } from '../card/create'
import { pastePieces } from '../edit/stack'
import { writePoints, pointsOf } from '../outline/path-points'
import { expectShortPath, readPathData } from '../outline/svg-path'
import { PATH_PARAMETERS } from '../pieces/path'
import type { Card, GroupPiece, PathPiece, Piece } from '../card/schema'
import { WaxError } from '../errors'
import { boundsOf } from '../extent'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Point, Rect } from '../units'
import { MOST_NESTED, scannedXml } from './xml-scan'

/** SVG files larger than this are refused. */
export const LARGEST_SVG_BYTES = 4 * 1024 * 1024
const MOST_FORMS = 200

interface Look {
  fill: string
  stroke: string
  strokeWidth: number
  fillRule: string
  cap: string
  join: string
  opacity: number
  fillOpacity: number
  strokeOpacity: number
}

interface Form extends Look {
  path: string
  name: string
}

/** What SVG 2 starts with. */
const START: Look = {
  ...{ fill: 'black', stroke: 'none', strokeWidth: 1, fillRule: 'nonzero', cap: 'butt', join: 'miter' },
  ...{ opacity: 1, fillOpacity: 1, strokeOpacity: 1 },
}

/** Elements that show nothing by themselves, or that are never run or loaded here. */
const SKIPPED = new Set([
  'defs',
  'script',
  'style',
  'metadata',
  'title',
  'desc',
  'clipPath',
  'mask',
  'symbol',
  'foreignObject',
])

/**
 * The forms of an SVG file as pieces: a group of paths with plain fills and lines, in the middle of the card. Reads
 * path, rect, circle, ellipse, line, polyline, polygon and g with transforms; scripts and everything outside the file
 * are left alone. Throws a WaxError that names the place where the file is broken.
 */
export function svgPieces(card: Card, text: string, fileName: string): { card: Card; id: string } {
  if (text.length > LARGEST_SVG_BYTES) {
    throw new WaxError(
      'svg-too-large',
      fileName,
      'The SVG file is larger than 4 MB.',
      'Simplify it, or bring it in as a PNG.',
    )
  }
  const root = parsed(text, fileName)
  const forms: Form[] = []
  visit(root, START, UNMOVED, forms, fileName)
  if (forms.length === 0) {
    throw new WaxError(
      'empty-svg',
      fileName,
      'This SVG holds no forms that can be read.',
      'Type and pictures in it must be turned into paths first.',
    )
  }
  const span = spanOf(forms)
  const middle = { x: (span.left + span.right) / 2, y: (span.top + span.bottom) / 2 }
  // The last form of an SVG is in front; a card's list begins with the front.
  const enlarge = fitting(card.frame, span)
  const pieces = forms.reverse().flatMap((form) => piecesOf(card, form, { middle, enlarge }))
  const group = {
    ...(createPiece('group', card) as GroupPiece),
    name: fileName.replace(/\.svg$/i, '').slice(0, 200),
    pieces,
  }
  const added = pastePieces(card, [group])
  return { card: added.card, id: added.ids[0]! }
}

function parsed(text: string, fileName: string): INode {
  const scanned = scannedXml(text)
  if (scanned.isTooDeep) {
    throw new WaxError(
      'too-deep',
      fileName,
      `The SVG has more than ${MOST_NESTED} elements within each other.`,
      'Ungroup what is in it, then save it again.',
    )
  }
  let root: INode
  try {
    root = parseSync(scanned.text)
  } catch (error) {
    const what = error instanceof Error ? error.message.split('\n')[0]! : String(error)
    throw new WaxError(
      'broken-svg',
      fileName,
      `The SVG cannot be read: ${what}.`,
      'Save it again, or open it in a text editor and mend it.',
    )
  }
  if (root.name !== 'svg') {
    throw new WaxError('broken-svg', fileName, 'This is no SVG file.', 'An SVG file starts with an svg element.')
  }
  return root
}

function visit(node: INode, look: Look, outer: Matrix, forms: Form[], fileName: string): void {
  if (SKIPPED.has(node.name)) return
  const own = { ...node.attributes, ...declarations(node.attributes.style ?? '') }
  if (own.display === 'none' || own.visibility === 'hidden') return
  const number = (text: string | undefined, standard: number) =>
    Number.isFinite(parseFloat(text ?? '')) ? parseFloat(text!) : standard
  const here: Look = {
    fill: own.fill ?? look.fill,
    stroke: own.stroke ?? look.stroke,
    strokeWidth: number(own['stroke-width'], look.strokeWidth),
    fillRule: own['fill-rule'] ?? look.fillRule,
    cap: own['stroke-linecap'] ?? look.cap,
    join: own['stroke-linejoin'] ?? look.join,
    // These two are inherited, the opacity of what holds a form is added to its own (SVG 2 §13.3, §13.4; CSS Color 4).
    fillOpacity: number(own['fill-opacity'], look.fillOpacity),
    strokeOpacity: number(own['stroke-opacity'], look.strokeOpacity),
    opacity: look.opacity * number(own.opacity, 1),
  }
  const matrix = own.transform ? matricesOf(own.transform).reduce(followed, outer) : outer
  const path = pathOfElement(node.name, own)
  if (path) {
    if (forms.length >= MOST_FORMS) {
      throw new WaxError(
        'svg-too-large',
        fileName,
        `The SVG has more than ${MOST_FORMS} forms.`,
        'Join forms of one colour first.',
      )
    }
    forms.push({
      ...here,
      strokeWidth: here.strokeWidth * (own['vector-effect'] === 'non-scaling-stroke' ? 1 : enlargedBy(matrix)),
      path: transformed(path, matrix, `${fileName}, ${node.name} ${own.id ?? ''}`.trim()),
      name: own.id ?? node.name,
    })
  }
  for (const child of node.children) visit(child, here, matrix, forms, fileName)
}

const declarations = (style: string): Record<string, string> =>
  Object.fromEntries(
    style.split(';').flatMap((line) => {
      const [name, ...value] = line.split(':')
      return name?.trim() && value.length ? [[name.trim(), value.join(':').trim()]] : []
    }),
  )

/** Path data of a basic shape (SVG 2 §10); null for everything else. */
function pathOfElement(kind: string, a: Record<string, string>): string | null {
  const v = (name: string) => parseFloat(a[name] ?? '0') || 0
  switch (kind) {
    case 'path':
      return a.d?.trim() ? a.d : null
    case 'rect': {
      const [x, y, w, h] = [v('x'), v('y'), v('width'), v('height')]
      const rx = Math.min(v(a.rx ? 'rx' : 'ry'), w / 2)
      const ry = Math.min(v(a.ry ? 'ry' : 'rx'), h / 2)
      if (w <= 0 || h <= 0) return null
      if (rx <= 0 || ry <= 0) return `M${x} ${y}h${w}v${h}h${-w}Z`
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}Z`
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [v('cx'), v('cy')]
      const [rx, ry] = kind === 'circle' ? [v('r'), v('r')] : [v('rx'), v('ry')]
      return rx > 0 && ry > 0 ? `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z` : null
    }
    case 'line':
      return `M${v('x1')} ${v('y1')}L${v('x2')} ${v('y2')}`
    case 'polyline':
    case 'polygon': {
      const points = (a.points ?? '').trim()
      return points ? `M${points}${kind === 'polygon' ? 'Z' : ''}` : null
    }
    default:
      return null
  }
}

/** The path on the SVG's own canvas. */
function transformed(path: string, matrix: Matrix, place: string): string {
  expectShortPath(path, place)
  try {
    const data = new SVGPathData(path).toAbs().normalizeHVZ(false, true, true).normalizeST().aToC()
    data.transform(SVGPathDataTransformer.MATRIX(...matrix))
    // Not rounded before it has its size on the card.
    const text = data.encode()
    readPathData(text, place)
    return text
  } catch (error) {
    if (error instanceof WaxError) throw error
    throw new WaxError('broken-svg', place, 'A path of this SVG cannot be read.', 'Save it again as plain SVG.')
  }
}

/**
 * How much transforms enlarge a line's thickness. One that stretches makes lines of uneven thickness, which a path here
 * has not: their mean, by area.
 */
const enlargedBy = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c))

type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

const UNMOVED: Matrix = [1, 0, 0, 1, 0, 0]

/** A matrix within another: what it does is done first (CSS Transforms 1 §11). */
const followed = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  ...([a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j] as const),
  ...([a * k + c * l + e, b * k + d * l + f] as const),
]

/** The matrices of a transform list (CSS Transforms 1 §14). */
function matricesOf(list: string): Matrix[] {
  return [...list.matchAll(/(\w+)\s*\(([^)]*)\)/g)].map(([, name, values]): Matrix => {
    const v = values!
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number)
    const turn = v[0] ?? 0
    switch (name) {
      case 'matrix':
        return [v[0]!, v[1]!, v[2]!, v[3]!, v[4]!, v[5]!]
      case 'translate':
        return [1, 0, 0, 1, v[0] ?? 0, v[1] ?? 0]
      case 'scale':
        return [v[0] ?? 1, 0, 0, v[1] ?? v[0] ?? 1, 0, 0]
      case 'rotate': {
        const [c, s] = [cosDegrees(turn), sinDegrees(turn)]
        const [x, y] = [v[1] ?? 0, v[2] ?? 0]
        return [c, s, -s, c, x - c * x + s * y, y - s * x - c * y]
      }
      case 'skewX':
        return [1, 0, slope(turn), 1, 0, 0]
      case 'skewY':
        return [1, slope(turn), 0, 1, 0, 0]
      default:
        return [1, 0, 0, 1, 0, 0]
    }
  })
}

const slope = (degrees: number) => sinDegrees(degrees) / cosDegrees(degrees)

function spanOf(forms: readonly Form[]): Rect {
  return boundsOf(forms.flatMap(({ path }) => pointsOf(readPathData(path, 'path')).flatMap(({ points }) => points)))
}

/** A form without size is left without. */
const LARGEST_FIT = 100_000

/** Kept at its size where that can be seen and fits; otherwise enlarged to half the frame by this factor. */
function fitting({ width, height }: Card['frame'], { left, top, right, bottom }: Rect): number {
  const share = Math.max((right - left) / width, (bottom - top) / height)
  return share > 1 || share < 0.1 ? Math.min(LARGEST_FIT, 0.5 / Math.max(1e-9, share)) : 1
}

/** `#RRGGBB` or `#RRGGBBAA`; null for none, and for paints that are no colour. */
function hex(colour: string, opacity: number): string | null {
  if (colour === 'none' || colour === 'transparent') return null
  const read = parseColour(colour === 'currentColor' ? 'black' : colour)
  if (!read) return '#808080'
  const text = (formatHex8({ ...read, alpha: (read.alpha ?? 1) * opacity }) ?? '#808080ff').toUpperCase()
  return text.endsWith('FF') ? text.slice(0, 7) : text
}

const LARGEST_THICKNESS = PATH_PARAMETERS.thickness.max

/** A line lies in front of the fill of its form (SVG 2 §13.8, paint-order). */
function piecesOf(card: Card, form: Form, { middle, enlarge }: { middle: Point; enlarge: number }): Piece[] {
  const fill = hex(form.fill, form.opacity * form.fillOpacity)
  const line = hex(form.stroke, form.opacity * form.strokeOpacity)
  const thickness = Math.min(LARGEST_THICKNESS, form.strokeWidth * enlarge)
  const shifted = writePoints(
    pointsOf(readPathData(form.path, form.name)).map((contour) => ({
      ...contour,
      points: contour.points.map((p) => {
        const to = (q: Point) => ({ x: (q.x - middle.x) * enlarge, y: (q.y - middle.y) * enlarge })
        return { ...to(p), before: p.before && to(p.before), after: p.after && to(p.after) }
      }),
    })),
  )
  const piece = (colour: string, thickness: number): PathPiece => ({
    ...(createPiece('path', card) as PathPiece),
    ...{ name: form.name.slice(0, 200), path: shifted, x: 0, y: 0, thickness },
    rule: form.fillRule === 'evenodd' ? 'evenodd' : 'nonzero',
    cap: form.cap === 'round' || form.cap === 'square' ? form.cap : 'butt',
    join: form.join === 'round' || form.join === 'bevel' ? form.join : 'mitre',
    coats: { face: [{ ...createCoat('fill', freeId(card, 'fill')), paint: { type: 'solid', colour } }], behind: [] },
  })
  return [...(line && thickness > 0 ? [piece(line, thickness)] : []), ...(fill ? [piece(fill, 0)] : [])]
}
