import { zip } from 'fflate'

// Files that move, among those that are brought in.

const NUMBERED = /^(.*?)(\d+)\.png$/i

/** Bytes in which a picture says that it moves. */
const HEAD = 4096

/** Whether a file is a sequence by itself: a video, a GIF, a ZIP file of pictures, a PNG or WebP file that moves. */
export async function isSequence(file: File): Promise<boolean> {
  if (/\.(mov|mp4|m4v|webm|mkv|avi|gif|apng|zip)$/i.test(file.name) || /^(video\/|image\/gif)/.test(file.type))
    return true
  if (!/\.(png|webp)$/i.test(file.name)) return false
  const head = new TextDecoder('latin1').decode(await file.slice(0, HEAD).arrayBuffer())
  // APNG 1.0: acTL comes before the first picture; WebP: ANIM follows VP8X.
  return /\.png$/i.test(file.name) ? head.includes('acTL') : head.includes('ANIM')
}

/** Numbered pictures that are brought in together, from which on they are a sequence: two are two pictures. */
const FEWEST = 3

/** Files in lots that are brought in as one each: numbered pictures with one name together. */
export async function lotsOf(files: readonly File[]): Promise<{ files: File[]; moves: boolean }[]> {
  const stems = new Map<string, File[]>()
  const others: File[] = []
  for (const file of files) {
    const match = NUMBERED.exec(file.name)
    if (match) stems.set(match[1]!, [...(stems.get(match[1]!) ?? []), file])
    else others.push(file)
  }
  const lots = [...stems.values()].flatMap((lot) => (lot.length >= FEWEST ? [{ files: lot, moves: true }] : []))
  const single = [...stems.values()].filter((lot) => lot.length < FEWEST).flat()
  const alone = await Promise.all(
    [...others, ...single].map(async (file) => ({ files: [file], moves: await isSequence(file) })),
  )
  return [...lots, ...alone]
}

/** Numbered pictures as one ZIP file, under the name that they have in common. */
export async function packedPictures(files: readonly File[]): Promise<File> {
  const entries = await Promise.all(
    files.map(async (file) => [file.name, new Uint8Array(await file.arrayBuffer())] as const),
  )
  const bytes = await new Promise<Uint8Array<ArrayBuffer>>((resolve, reject) =>
    zip(Object.fromEntries(entries), { level: 0 }, (error, packed) =>
      error ? reject(error) : resolve(packed as Uint8Array<ArrayBuffer>),
    ),
  )
  const stem = (NUMBERED.exec(files[0]!.name)?.[1] ?? '').replace(/[-_. ]+$/, '') || 'pictures'
  return new File([bytes], `${stem}.zip`)
}

/** The files of a drop, those in folders included. */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].flatMap((item) => item.webkitGetAsEntry() ?? [])
  if (!entries.some(({ isDirectory }) => isDirectory)) return [...data.files]
  return (await Promise.all(entries.map(filesIn))).flat()
}

async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    return [await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))]
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const found: File[] = []
  for (;;) {
    // It gives a hundred at a time.
    const lot = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
    if (lot.length === 0) return found
    for (const inner of lot) if (inner.isFile) found.push(...(await filesIn(inner)))
  }
}
