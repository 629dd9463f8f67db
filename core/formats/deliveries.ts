// The formats that renders are delivered in, without the programs that write them: the render dialog, the command line, the
// checks, the documents and the routes are made from this table; encoders are keyed by it.

/** How far a file may be from the frames that it was made from, in steps of 8 bits. */
export type Tolerance =
  | { exact: true }
  | {
      exact: false
      /** Largest difference of alpha. */
      alpha: number
      /** Of straight colour, where alpha is not 0. */
      colour: { most: number; mean: number }
      /** Where these figures come from. */
      because: string
    }

export interface Delivery {
  format: string
  label: string
  help: string
  /** Of the one file, with its dot. */
  ending: string
  mediaType: string
  /** Bits a channel that the engine can hand over; a wish for others gets the first. */
  bits: readonly [8 | 16, ...(8 | 16)[]]
  /** How colour stands to alpha in the file. */
  alpha: 'straight' | 'premultiplied'
  files: 1
  tolerance: Tolerance
}

export const DELIVERIES = [
  {
    format: 'png',
    label: 'PNG sequence',
    help: 'One PNG a frame with straight alpha, in a ZIP; every editor reads it, nothing is lost',
    ending: '.zip',
    mediaType: 'application/zip',
    bits: [8, 16],
    alpha: 'straight',
    files: 1,
    tolerance: { exact: true },
  },
  {
    format: 'prores4444',
    label: 'ProRes 4444',
    help: 'MOV with 10-bit colour and alpha, as editors like it; BT.709',
    ending: '.mov',
    mediaType: 'video/quicktime',
    bits: [16],
    alpha: 'straight',
    files: 1,
    tolerance: {
      exact: false,
      alpha: 0.5,
      colour: { most: 4, mean: 0.2 },
      because:
        'Half a step of 10-bit alpha is 0.125; dithering and the codec’s 16-bit form add less. Colour as measured on soft glows',
    },
  },
] as const satisfies readonly Delivery[]

export type RenderFormat = (typeof DELIVERIES)[number]['format']

export const RENDER_FORMATS = DELIVERIES.map(({ format }) => format) as [RenderFormat, ...RenderFormat[]]

export const deliveryOf = (format: RenderFormat): Delivery => DELIVERIES.find((delivery) => delivery.format === format)!

/** Bits a channel that the engine hands over for a wish. */
export const bitsFor = ({ bits }: Delivery, wish: 8 | 16): 8 | 16 => (bits.includes(wish) ? wish : bits[0])
