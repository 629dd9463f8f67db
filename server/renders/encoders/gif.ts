import type { FramePicture } from '../../../core/frame/engine'
import { readColour } from '../../../core/values/colour'
import type { Encoder } from './encoder'
import { readRgba } from './movie'
import { pipeInto, rawInput, rawName } from './piped'
import { gifTimes, rateOfTimes } from './shown-times'

// GIF89a: a pixel is clear or solid, and a picture has 256 colours. What is half clear is laid over the matte colour.

/** Alpha from which a pixel is solid, of 255. */
const SOLID = 128

export const gif: Encoder = {
  tags: null,
  shown: ({ options: { matte = '#000000' } }) => Promise.resolve({ of: (picture) => onOrOff(picture, matte) }),
  open: (plan) => {
    const { numerator, denominator } = plan.rate
    const dither = plan.options.dither === false ? 'none' : 'sierra2_4a'
    // A palette for every picture: one for all would be made from all of them, kept in the memory.
    const filter = [
      '[0:v]split[a][b]',
      '[a]palettegen=stats_mode=single:reserve_transparent=1[palette]',
      `[b][palette]paletteuse=new=1:dither=${dither}:alpha_threshold=${SOLID}`,
    ].join(';')
    return Promise.resolve(
      pipeInto([
        ...[...rawInput(plan, rawName(8)), '-filter_complex', filter],
        // As much as is seen is written, or as much as changed where all is solid; clear pixels are clear, not those of the picture before.
        ...[
          '-gifflags',
          '+offsetting-transdiff',
          '-loop',
          '0',
          '-final_delay',
          String((100 * denominator) / numerator),
          '-f',
          'gif',
          '-y',
          plan.paths[0]!,
        ],
      ]),
    )
  },
  read: async ({ paths: [path] }) => {
    const times = await gifTimes(path!)
    return { ...(await readRgba(path!, 'rgba')), times, rate: rateOfTimes(times) }
  },
}

function onOrOff(picture: FramePicture, matte: string): FramePicture {
  const under = readColour(matte).map((value) => value * 255)
  const pixels = picture.pixels.slice()
  const words = new Uint32Array(pixels.buffer)
  for (let i = 0, at = 0; i < words.length; i++, at += 4) {
    if (words[i] === 0) continue
    const alpha = pixels[at + 3]!
    if (alpha === 255) continue
    if (alpha < SOLID) {
      words[i] = 0
      continue
    }
    for (let c = 0; c < 3; c++) pixels[at + c] = Math.round((pixels[at + c]! * alpha + under[c]! * (255 - alpha)) / 255)
    pixels[at + 3] = 255
  }
  return { ...picture, pixels }
}
