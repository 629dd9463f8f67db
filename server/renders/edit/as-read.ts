import { access, mkdir, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import type { renders } from '../../database/schema'
import { nameFrom } from '../../../core/formats/deliveries/file-name'
import { encoderOf } from '../encoders/table'
import { seenIn } from '../encoders/seen'
import { rendersFolder } from '../files'
import { Lanes } from '../lanes'
import type { RenderPlan } from '../plan'
import { planFor } from '../plan'
import { straightPicture } from './straight'

// The files of a render as an editing program has them: decoded by ffmpeg, alpha read from the file, each frame once. They are kept as
// PNG files beside the render, and go with it.

type DoneRender = Pick<
  typeof renders.$inferSelect,
  'id' | 'name' | 'document' | 'options' | 'programme' | 'rowName' | 'files' | 'take' | 'attempts'
>

/** Frames that are being read in this process. */
interface Reading {
  frames: number
  ended: boolean
  fault: Error | null
}

const readings = new Map<string, Reading>()

/** How far the frames of a render have been read; begins to read them. */
export interface SoFar {
  width: number
  height: number
  /** The card's frame at each place of the file; of a programme the number of its take: see core/rosters/run.ts. */
  order: number[]
  there: number
  ended: boolean
}

export async function readSoFar(storage: string, render: DoneRender): Promise<SoFar> {
  const { plan, order } = planOf(storage, render)
  const { width, height } = plan
  const whole = await isThere(join(folderOf(storage, render), 'whole'))
  const reading = whole ? null : begin(storage, render)
  if (reading?.fault) throw reading.fault
  return { width, height, order, there: whole ? order.length : reading!.frames, ended: whole || reading!.ended }
}

/** The PNG file of a frame, by its place in the file, as soon as it is read; null where there is none. */
export async function frameAsRead(storage: string, render: DoneRender, place: number): Promise<string | null> {
  const path = join(folderOf(storage, render), nameOf(place))
  if (await isThere(path)) return path
  if (await isThere(join(folderOf(storage, render), 'whole'))) return null
  const reading = begin(storage, render)
  while (!reading.ended) {
    if (await isThere(path)) return path
    await new Promise((go) => setTimeout(go, LOOK))
  }
  if (reading.fault) throw reading.fault
  return (await isThere(path)) ? path : null
}

/** Milliseconds between two looks for a frame that is being read. */
const LOOK = 15

const nameOf = (place: number) => `${String(place).padStart(6, '0')}.png`

const folderOf = (storage: string, { id, attempts }: DoneRender) =>
  join(rendersFolder(storage), `${id}.${attempts}.read`)

const isThere = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  )

function planOf(storage: string, render: DoneRender): RenderPlan {
  const { name, options, files, take, rowName } = render
  const paths = files.map(({ stored }) => join(rendersFolder(storage), stored))
  return planFor(render, { paths, stem: nameFrom(options.name, { card: name, row: rowName, take }) })
}

function begin(storage: string, render: DoneRender): Reading {
  const folder = folderOf(storage, render)
  const known = readings.get(folder)
  if (known) return known
  const reading: Reading = { frames: 0, ended: false, fault: null }
  readings.set(folder, reading)
  void read(folder, planOf(storage, render), () => reading.frames++)
    .catch((error: Error) => {
      reading.fault = error
    })
    .finally(() => {
      reading.ended = true
      // What failed is tried again a little later.
      setTimeout(() => readings.delete(folder), reading.fault ? 5000 : 0)
    })
  return reading
}

async function read(folder: string, { plan }: RenderPlan, onFrame: () => void): Promise<void> {
  await rm(folder, { recursive: true, force: true })
  await mkdir(folder, { recursive: true })
  const { width, height, stored, frames } = await encoderOf(plan.options.format).read(plan)
  const form = { ...plan.form, matte: plan.options.matte }
  let place = 0
  const lanes = new Lanes<Buffer>(async (png) => {
    const path = join(folder, nameOf(place++))
    await writeFile(`${path}.half`, png)
    await rename(`${path}.half`, path)
    onFrame()
  })
  for await (const frame of frames) {
    const seen = seenIn(frame, stored, { width, height })
    const pixels = straightPicture(seen, { width, height }, form)
    await lanes.add(
      sharp(pixels, { raw: { width, height, channels: 4 } })
        .png({ compressionLevel: 1 })
        .toBuffer(),
    )
  }
  await lanes.end()
  await writeFile(join(folder, 'whole'), '')
}
