/** A container of moving pictures: what its files begin with, and ffmpeg's reader of it. */
interface Container {
  reader: string
  begins(start: Buffer): boolean
}

const hasAt =
  (at: number, ...signs: string[]) =>
  (start: Buffer) =>
    signs.some((sign) => start.toString('latin1', at, at + sign.length) === sign)

const isPng = hasAt(0, '\x89PNG\r\n\x1a\n')

/** Packets of 188 bytes, or of 192 with a time before each (ISO/IEC 13818-1 §2.4.3.2). */
const PACKETS = [
  [0, 188],
  [4, 196],
] as const

/**
 * What may be brought in. Each is one file that holds all of its pictures: lists that name other files (playlists, manifests,
 * concatenations) have no place here, since whoever reads them opens what they name.
 */
const CONTAINERS: readonly Container[] = [
  // ISO/IEC 14496-12 §4.2: a file is a row of boxes. QuickTime files may begin with any of these.
  { reader: 'mov', begins: hasAt(4, 'ftyp', 'moov', 'mdat', 'wide', 'free', 'skip', 'pnot') },
  // EBML (RFC 8794 §11.2.1).
  { reader: 'matroska', begins: hasAt(0, '\x1a\x45\xdf\xa3') },
  { reader: 'gif', begins: hasAt(0, 'GIF87a', 'GIF89a') },
  { reader: 'apng', begins: (start) => isPng(start) && start.includes('acTL') },
  // Stills, so that somebody who brings one is told what it is.
  { reader: 'png_pipe', begins: (start) => isPng(start) },
  { reader: 'jpeg_pipe', begins: hasAt(0, '\xff\xd8\xff') },
  { reader: 'avi', begins: (start) => hasAt(0, 'RIFF')(start) && hasAt(8, 'AVI ')(start) },
  // SMPTE ST 377-1: a partition pack's key.
  { reader: 'mxf', begins: hasAt(0, '\x06\x0e\x2b\x34') },
  { reader: 'mpegts', begins: (start) => PACKETS.some((at) => at.every((k) => start[k] === 0x47)) },
  { reader: 'mpeg', begins: hasAt(0, '\x00\x00\x01\xba') },
  { reader: 'mpegvideo', begins: hasAt(0, '\x00\x00\x01\xb3') },
  { reader: 'ogg', begins: hasAt(0, 'OggS') },
  { reader: 'asf', begins: hasAt(0, '\x30\x26\xb2\x75\x8e\x66\xcf\x11') },
  { reader: 'flv', begins: hasAt(0, 'FLV') },
  { reader: 'ivf', begins: hasAt(0, 'DKIF') },
  { reader: 'yuv4mpegpipe', begins: hasAt(0, 'YUV4MPEG2 ') },
]

/** Bytes that tell what a file is: a PNG file may have a colour profile before it says that it moves. */
export const TELLING_BYTES = 8192

/** ffmpeg's reader of a file that begins so; null for what is no container of moving pictures. */
export const readerFor = (start: Buffer): string | null =>
  CONTAINERS.find(({ begins }) => begins(start))?.reader ?? null

export const READERS: readonly string[] = CONTAINERS.map(({ reader }) => reader)
