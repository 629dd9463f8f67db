import { createHash } from 'node:crypto'
import type { FileHandle } from 'node:fs/promises'
import { open, rm } from 'node:fs/promises'
import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import type { FramePicture } from '../../core/frame/engine'
import type { AlphaPlane } from './encoders/encoder'
import { alphaOf } from './encoders/png-sequence'

const pack = promisify(deflateRaw)
const unpack = promisify(inflateRaw)

/** Colour is kept of every so manieth row, of others in the next frame: four frames have seen all. */
const EVERY = 4

/** What the ledger is to keep of frames. */
interface LedgerPlan {
  bits: 8 | 16
  width: number
  height: number
  /** Colour too, for formats that do not keep it to the byte. */
  colour: boolean
}

interface Entry {
  at: number
  length: number
}

/** Rows of straight RGBA of a frame, as it was made. */
export interface KeptRows {
  rows: { y: number; rgba: Uint8Array | Uint16Array }[]
  top: number
}

/**
 * What the engine made, kept until the file has been read again: a hash of every frame's pixels, and its alpha and some of
 * its colour in a scratch file beside the render.
 */
export class Ledger {
  readonly hashes: string[] = []
  private readonly alphas: Entry[] = []
  private readonly colours: Entry[] = []
  private end = 0

  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
    private readonly plan: LedgerPlan,
  ) {}

  static async create(path: string, plan: LedgerPlan): Promise<Ledger> {
    return new Ledger(path, await open(path, 'w+'), plan)
  }

  get frames(): number {
    return this.hashes.length
  }

  async enter({ pixels }: FramePicture): Promise<void> {
    const frame = this.hashes.length
    this.hashes.push(hashOf(pixels))
    const { values } = alphaOf(pixels, this.plan.bits)
    const rows = this.plan.colour ? Buffer.concat(this.rowsOf(frame).map((y) => this.rowBytes(pixels, y))) : null
    const [alpha, colour] = await Promise.all([
      pack(new Uint8Array(values.buffer), { level: 1 }),
      rows && pack(rows, { level: 1 }),
    ])
    this.alphas.push(await this.append(alpha))
    if (colour) this.colours.push(await this.append(colour))
  }

  /** Alpha of a frame as it was entered. */
  async alpha(frame: number): Promise<AlphaPlane> {
    return this.numbers(await this.read(this.alphas[frame]!))
  }

  /** Those rows of a frame whose colour was kept. */
  async colour(frame: number): Promise<KeptRows> {
    const { values, top } = this.numbers(await this.read(this.colours[frame]!))
    const row = this.plan.width * 4
    return { top, rows: this.rowsOf(frame).map((y, i) => ({ y, rgba: values.subarray(i * row, (i + 1) * row) })) }
  }

  async close(): Promise<void> {
    await this.file.close()
    await rm(this.path, { force: true })
  }

  private rowsOf(frame: number): number[] {
    const { height } = this.plan
    return Array.from({ length: Math.ceil((height - (frame % EVERY)) / EVERY) }, (_, i) => (frame % EVERY) + i * EVERY)
  }

  private rowBytes(pixels: Uint8Array, y: number): Uint8Array {
    const row = (this.plan.width * this.plan.bits) / 2
    return pixels.subarray(y * row, (y + 1) * row)
  }

  private numbers(bytes: Uint8Array): AlphaPlane {
    if (this.plan.bits === 8) return { values: bytes, top: 255 }
    return { values: new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2), top: 65535 }
  }

  private async append(packed: Uint8Array): Promise<Entry> {
    await this.file.write(packed, 0, packed.length, this.end)
    const entry = { at: this.end, length: packed.length }
    this.end += packed.length
    return entry
  }

  private async read({ at, length }: Entry): Promise<Uint8Array> {
    const packed = Buffer.allocUnsafe(length)
    await this.file.read(packed, 0, length, at)
    return new Uint8Array(await unpack(packed))
  }
}

export const hashOf = (pixels: Uint8Array): string => createHash('sha256').update(pixels).digest('hex')
