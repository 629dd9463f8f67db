import type { FileHandle } from 'node:fs/promises'
import { open, rename, rm } from 'node:fs/promises'
import { z } from 'zod'
import { digest } from './digest'
import { DamagedFrames, frameHead, headBytes, PACKING, packFrame, unpackFrame } from './packed-frame'
import { writeAll } from './write-all'

// Finished frames put down without loss: frame after frame, packed, and at the end a list of where each lies and the hash of its
// pixels. The last eight bytes tell how long the list is.

interface Entry {
  /** Of the card, not of the run: a hold that is played again is the same frames. */
  frame: number
  at: number
  length: number
  hash: string
}

interface List {
  /** How its frames are packed. */
  packing: string
  entries: Entry[]
}

const FOOT = 8

/** A segment as it grows. Until it is closed it has another name. */
export class SegmentWriter {
  private readonly entries = new Map<number, Entry>()
  private end = 0
  private last: Promise<unknown> = Promise.resolve()

  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
  ) {}

  static async create(path: string): Promise<SegmentWriter> {
    return new SegmentWriter(path, await open(half(path), 'w+'))
  }

  /** Frames that it has. */
  get count(): number {
    return this.entries.size
  }

  has(frame: number): boolean {
    return this.entries.has(frame)
  }

  hash(frame: number): string {
    return this.entries.get(frame)!.hash
  }

  /** Resolves when the pixels may be forgotten. */
  async add(frame: number, pixels: Uint8Array): Promise<void> {
    const packing = packFrame(pixels)
    const hash = digest(pixels)
    const packed = await packing
    // One after the other, whoever is packed first.
    const written = this.last.then(async () => {
      await writeAll(this.file, packed, this.end)
      this.entries.set(frame, { frame, at: this.end, length: packed.length, hash })
      this.end += packed.length
    })
    this.last = written.catch(() => {})
    await written
  }

  pixels(frame: number): Promise<Uint8Array<ArrayBuffer>> {
    return unpacked(this.file, this.entries.get(frame)!)
  }

  /** As they lie there, packed. */
  packed(frame: number): Promise<Uint8Array> {
    const { at, length } = this.entries.get(frame)!
    return bytesAt(this.file, at, length)
  }

  /** Writes its list and gives it its name. */
  async close(): Promise<void> {
    await this.last
    const list = Buffer.from(JSON.stringify({ packing: PACKING, entries: [...this.entries.values()] } satisfies List))
    const foot = Buffer.alloc(FOOT)
    foot.writeBigUInt64LE(BigInt(list.length))
    await writeAll(this.file, Buffer.concat([list, foot]), this.end)
    await this.file.sync()
    await this.file.close()
    await rename(half(this.path), this.path)
  }

  /** Gives it up and removes it. */
  async abort(): Promise<void> {
    await this.file.close().catch(() => {})
    await rm(half(this.path), { force: true })
  }
}

const half = (path: string) => `${path}.part`

/** A finished segment. */
export class Segment {
  private constructor(
    private readonly file: FileHandle,
    private readonly entries: Map<number, Entry>,
  ) {}

  /**
   * Throws a DamagedFrames where the file is not whole, of an application that packed in another way, or not what a worker of ours
   * writes: it may come from anybody who has a token. `frameBytes`: of each frame, where that is known.
   */
  static async open(path: string, frameBytes?: number): Promise<Segment> {
    const file = await open(path, 'r')
    try {
      const entries = await listOf(file)
      for (const entry of entries) await expectFrame(file, entry, frameBytes)
      return new Segment(file, new Map(entries.map((entry) => [entry.frame, entry])))
    } catch (error) {
      await file.close()
      throw error
    }
  }

  has(frame: number): boolean {
    return this.entries.has(frame)
  }

  /** Of all its frames. */
  hashes(): [frame: number, hash: string][] {
    return [...this.entries.values()].map(({ frame, hash }) => [frame, hash])
  }

  hash(frame: number): string {
    return this.entries.get(frame)!.hash
  }

  pixels(frame: number): Promise<Uint8Array<ArrayBuffer>> {
    return unpacked(this.file, this.entries.get(frame)!)
  }

  /** As they lie there, packed. */
  packed(frame: number): Promise<Uint8Array> {
    const { at, length } = this.entries.get(frame)!
    return bytesAt(this.file, at, length)
  }

  close(): Promise<void> {
    return this.file.close()
  }
}

/** Bytes of the longest list: a run has few frames, a file of the command line some ten thousand, of 200 bytes each. */
const LONGEST_LIST = 64 * 1024 ** 2

const whole = z.number().int().nonnegative()
const listSchema = z.object({
  packing: z.literal(PACKING),
  entries: z.array(z.object({ frame: whole, at: whole, length: whole, hash: z.string().max(200) })),
})

/** The list at the end of a segment, each of its entries within what is there. */
async function listOf(file: FileHandle): Promise<Entry[]> {
  const { size } = await file.stat()
  if (size < FOOT) throw new DamagedFrames('A segment of frames is not whole.')
  const length = (await bytesAt(file, size - FOOT, FOOT)).readBigUInt64LE()
  if (length > BigInt(Math.min(size - FOOT, LONGEST_LIST)))
    throw new DamagedFrames('The list of a segment is too long.')
  const end = size - FOOT - Number(length)
  const read = listSchema.safeParse(parsed(await bytesAt(file, end, Number(length))))
  if (!read.success) throw new DamagedFrames('The list of a segment is not one of ours.')
  const { entries } = read.data
  if (entries.some((entry) => entry.at + entry.length > end)) {
    throw new DamagedFrames('The list of a segment names frames that are not there.')
  }
  return entries
}

function parsed(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString())
  } catch {
    return null
  }
}

/** Looks at the head of a frame, so that nobody takes memory for what is not there. */
async function expectFrame(file: FileHandle, { at, length }: Entry, frameBytes?: number): Promise<void> {
  const start = await bytesAt(file, at, Math.min(length, 8))
  const head = frameHead(await bytesAt(file, at, headBytes(start, length)), length)
  if (frameBytes !== undefined && head.length !== frameBytes) throw new DamagedFrames('A frame has another size.')
}

const unpacked = async (file: FileHandle, { at, length }: Entry) => unpackFrame(await bytesAt(file, at, length))

async function bytesAt(file: FileHandle, at: number, length: number): Promise<Buffer> {
  const bytes = Buffer.allocUnsafe(length)
  const { bytesRead } = await file.read(bytes, 0, length, at)
  if (bytesRead < length) throw new DamagedFrames('A segment of frames is not whole.')
  return bytes
}
