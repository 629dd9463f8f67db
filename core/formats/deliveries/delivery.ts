import type { Fault } from '../../errors'
import type { PixelForm } from '../../kernels/pixel-form'
import type { Rate } from '../../values/rate'
import type { DeliveryOptions, OptionTable } from './option'

// A delivery is a form in which a render is handed over. It is told here without the programs that write it: the render
// dialog, the command line, the checks, the documents and the routes are made from these tables; encoders are keyed by them.

/** How far values may be from what the engine made, in steps of 8 bits. */
export interface Allowed {
  most: number
  mean: number
}

/** How near a file must come to the frames that it was made from. */
export type Tolerance =
  | { exact: true }
  | {
      exact: false
      /** Null where the file holds none. */
      alpha: Allowed | null
      /**
       * Where alpha is not 0. `shared`: of the means of four pixels amid even colours, where pixels share a colour or a dither makes
       * it up. `roundedTo`: the mean is the codec's own; what the rounding of the picture's colours to luma and chromas of so many bits
       * gives is measured in each render and allowed beside it.
       */
      colour: Allowed & { shared?: true; roundedTo?: number }
      /** Where these figures come from. */
      because: string
    }

/** A file of a delivery. */
export interface DeliveredFile {
  /** Told in its name where there are several. */
  role: '' | 'fill' | 'key'
  /** Of its name, with its dot. */
  ending: string
  mediaType: string
}

/** What is known of a render before its first frame. */
export interface Measure {
  width: number
  height: number
  rate: Rate
  frames: number
}

export interface Delivery {
  format: string
  label: string
  /** What it is, in one sentence. */
  help: string
  /** Who takes it. */
  takes: string
  /** Whether what is clear in the card stays clear in the file, and how colour stands to alpha there. */
  alpha: 'straight' | 'premultiplied' | 'chosen' | 'on or off' | 'in a second file' | 'none'
  /** What is not kept; null where all is. */
  loses: string | null
  options: OptionTable
  /** How the engine is to hand over the frames. */
  form(options: DeliveryOptions): PixelForm
  files(options: DeliveryOptions): readonly [DeliveredFile, ...DeliveredFile[]]
  tolerance(options: DeliveryOptions): Tolerance
  /** Why this cannot be carried; null where it can. */
  refusal(measure: Measure, options: DeliveryOptions): Fault | null
}
