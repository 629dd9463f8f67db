import type { Bits, PixelForm } from '../../kernels/pixel-form'
import type { DeliveredFile, Delivery, Tolerance } from './delivery'
import type { DeliveryOptions } from './option'
import { ALPHA, BACKDROP, BURN, CODEC, DITHER, FILL, FLOAT_BITS, INTEGER_BITS, KEY, MATTE, TIMECODE } from './option'
import { fastestOf, oddSides, tooLarge, unevenHundredths } from './refusals'

const EXACT = (): Tolerance => ({ exact: true })
const NEVER = () => null

const display = (bits: Bits, alpha: PixelForm['alpha'] = 'straight'): PixelForm => ({ bits, alpha, light: 'display' })
const bitsIn = ({ bits = 8 }: DeliveryOptions) => bits
const alphaIn = ({ alpha = 'straight' }: DeliveryOptions) => alpha

const one = (ending: string, mediaType: string) => (): readonly [DeliveredFile] => [{ role: '', ending, mediaType }]
const ZIP = one('.zip', 'application/zip')
const MOV = one('.mov', 'video/quicktime')

/** ITU-T H.264 table A-1, level 6.2: macroblocks of 16 × 16, and √8 of them a side at the most. */
const H264_BLOCKS = 139_264
const h264Limit = { side: Math.floor(Math.sqrt(H264_BLOCKS * 8)) * 16, area: H264_BLOCKS * 256 }

export const DELIVERIES = [
  {
    format: 'png',
    label: 'PNG sequence',
    help: 'One PNG a frame, in a ZIP',
    takes: 'Every editor',
    alpha: 'straight',
    loses: null,
    options: { bits: INTEGER_BITS },
    form: (options) => display(bitsIn(options)),
    files: ZIP,
    tolerance: EXACT,
    refusal: NEVER,
  },
  {
    format: 'exr',
    label: 'OpenEXR sequence',
    help: 'One EXR a frame in linear light, premultiplied, in a ZIP',
    takes: 'Compositing',
    alpha: 'premultiplied',
    loses: null,
    options: { bits: FLOAT_BITS },
    form: ({ bits = 'half' }) => ({ bits, alpha: 'premultiplied', light: 'linear' }),
    files: ZIP,
    tolerance: EXACT,
    refusal: NEVER,
  },
  {
    format: 'prores4444',
    label: 'ProRes 4444',
    help: 'MOV with 10-bit colour and 16-bit alpha, BT.709',
    takes: 'Edit suites',
    alpha: 'chosen',
    loses: 'Colour is rounded to what the eye does not see',
    options: { alpha: ALPHA, matte: MATTE, timecode: TIMECODE },
    form: (options) => display(16, alphaIn(options)),
    files: MOV,
    tolerance: () => ({
      exact: false,
      alpha: { most: 0.5, mean: 0.1 },
      colour: { most: 4, mean: 0.15, roundedTo: 10 },
      because:
        'Measured on six demo cards, the busiest among them: alpha 0.37 and 0.03, colour 2.7; of the mean 0.09 to 0.13 is the rounding, up to 0.12 the codec',
    }),
    refusal: NEVER,
  },
  {
    format: 'rle',
    label: 'MOV, run-length',
    help: 'Lossless MOV of 8 bits that the oldest suites read',
    takes: 'Old suites',
    alpha: 'chosen',
    loses: null,
    options: { alpha: ALPHA, matte: MATTE, timecode: TIMECODE },
    form: (options) => display(8, alphaIn(options)),
    files: MOV,
    tolerance: EXACT,
    refusal: NEVER,
  },
  {
    format: 'movpng',
    label: 'MOV, PNG',
    help: 'Lossless MOV whose frames are PNGs',
    takes: 'Most editors',
    alpha: 'chosen',
    loses: null,
    options: { bits: INTEGER_BITS, alpha: ALPHA, matte: MATTE, timecode: TIMECODE },
    form: (options) => display(bitsIn(options), alphaIn(options)),
    files: MOV,
    tolerance: EXACT,
    refusal: NEVER,
  },
  {
    format: 'webm',
    label: 'WebM, VP9',
    help: 'Small video with alpha that web pages play',
    takes: 'Web pages, live overlays',
    alpha: 'straight',
    loses: 'Colour is kept for four pixels at once (4:2:0), and rounded',
    options: {},
    form: () => display(8),
    files: one('.webm', 'video/webm'),
    tolerance: () => ({
      exact: false,
      alpha: { most: 30, mean: 0.3 },
      colour: { most: 20, mean: 1, shared: true },
      because: 'Measured on soft glows and grain: alpha 21 and 0.28, even colours 9 and 0.7',
    }),
    // VP9 bitstream specification 0.6, annex A: level 6.2.
    refusal: (measure) => tooLarge(measure, 'VP9', 16_384, 35_651_584),
  },
  {
    format: 'apng',
    label: 'Animated PNG',
    help: 'One lossless file that browsers play',
    takes: 'Web, chat',
    alpha: 'straight',
    loses: null,
    options: {},
    form: () => display(8),
    files: one('.png', 'image/apng'),
    tolerance: EXACT,
    refusal: NEVER,
  },
  {
    format: 'webp',
    label: 'Animated WebP',
    help: 'One lossless file, smaller than an animated PNG',
    takes: 'Web, chat',
    alpha: 'straight',
    loses: null,
    options: {},
    form: () => display(8),
    files: one('.webp', 'image/webp'),
    tolerance: EXACT,
    // RFC 9649, 2.7.1.1: sizes have 14 bits in a frame.
    refusal: (measure) => tooLarge(measure, 'WebP', 16_383) ?? fastestOf(measure, 'Animated WebP', 90),
  },
  {
    format: 'gif',
    label: 'GIF',
    help: 'For where nothing else goes',
    takes: 'Everything that shows pictures',
    alpha: 'on or off',
    loses: 'A frame has 255 colours, and a pixel is clear or solid: soft edges are laid over the matte colour',
    options: { matte: MATTE, dither: DITHER },
    form: () => display(8),
    files: one('.gif', 'image/gif'),
    tolerance: () => ({
      exact: false,
      alpha: { most: 0, mean: 0 },
      colour: { most: 24, mean: 1, shared: true },
      because:
        'Alpha is held against its nearer end. Even colours were 5 and 0.55 off on cards with gradients and grain',
    }),
    refusal: (measure) => unevenHundredths(measure) ?? fastestOf(measure, 'GIF', 50),
  },
  {
    format: 'fillkey',
    label: 'Fill and key',
    help: 'Two files: the colours, and alpha as a picture of greys',
    takes: 'Mixers and playout',
    alpha: 'in a second file',
    loses: 'But for PNG, colour is kept for two or four pixels at once, and rounded',
    options: { codec: CODEC, fill: FILL, key: KEY, timecode: { ...TIMECODE, matters: ({ codec }) => codec !== 'png' } },
    form: ({ fill = 'black' }) => display(16, fill === 'black' ? 'premultiplied' : 'straight'),
    files: ({ codec = 'prores' }) => {
      const [ending, mediaType] = {
        prores: ['.mov', 'video/quicktime'],
        png: ['.zip', 'application/zip'],
        h264: ['.mp4', 'video/mp4'],
      }[codec] as [string, string]
      return [
        { role: 'fill', ending, mediaType },
        { role: 'key', ending, mediaType },
      ]
    },
    tolerance: ({ codec = 'prores' }) =>
      codec === 'png'
        ? { exact: true }
        : {
            exact: false,
            alpha: codec === 'prores' ? { most: 4, mean: 0.2 } : { most: 10, mean: 0.5 },
            colour: codec === 'prores' ? { most: 6, mean: 0.5, shared: true } : { most: 12, mean: 0.8, shared: true },
            because:
              'Measured: alpha 1.2 and 0.07 in ProRes, 4.4 and 0.22 in H.264; even colours 2.2 and 0.16, 3.4 and 0.37',
          },
    refusal: (measure, { codec = 'prores' }) => {
      if (codec === 'png') return null
      if (codec === 'prores') return oddSides(measure, 'ProRes 422', false)
      return oddSides(measure, 'H.264', true) ?? tooLarge(measure, 'H.264', h264Limit.side, h264Limit.area)
    },
  },
  {
    format: 'review',
    label: 'Review copy',
    help: 'H.264 over a backdrop, with name and timecode if wished: no transparency',
    takes: 'Clients',
    alpha: 'none',
    loses: 'It is not transparent; colour is kept for four pixels at once (4:2:0), and rounded',
    options: {
      backdrop: BACKDROP,
      matte: { ...MATTE, label: 'Colour', help: 'Of the backdrop', matters: ({ backdrop }) => backdrop === 'colour' },
      burn: BURN,
      timecode: TIMECODE,
    },
    form: () => display(8, 'premultiplied'),
    files: one('.mp4', 'video/mp4'),
    tolerance: () => ({
      exact: false,
      alpha: null,
      colour: { most: 12, mean: 1, shared: true },
      because: 'Even colours were 7.2 and 0.7 off, with grain and over a checker',
    }),
    refusal: (measure) =>
      oddSides(measure, 'H.264', true) ?? tooLarge(measure, 'H.264', h264Limit.side, h264Limit.area),
  },
  {
    format: 'still',
    label: 'Still',
    help: 'One frame as a PNG',
    takes: 'Everything that shows pictures',
    alpha: 'straight',
    loses: null,
    options: { bits: INTEGER_BITS },
    form: (options) => display(bitsIn(options)),
    files: one('.png', 'image/png'),
    tolerance: EXACT,
    refusal: ({ frames }) =>
      frames === 1
        ? null
        : {
            code: 'cannot-carry',
            place: 'frames',
            message: `A still is one frame, and ${frames} were chosen.`,
            remedy: 'Choose the same first and last frame.',
          },
  },
] as const satisfies readonly Delivery[]

export type DeliveryFormat = (typeof DELIVERIES)[number]['format']

export const DELIVERY_FORMATS = DELIVERIES.map(({ format }) => format) as [DeliveryFormat, ...DeliveryFormat[]]

export const deliveryOf = (format: DeliveryFormat): Delivery =>
  DELIVERIES.find((delivery) => delivery.format === format)!
