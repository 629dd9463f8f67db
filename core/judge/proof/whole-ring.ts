import type { Card } from '../../card/schema'
import type { FramePicture } from '../../frame/engine'
import { zonesOf } from '../../time/held'
import type { Frames } from '../../units'
import { perSecond } from '../../values/rate'
import { LUMINANCES } from '../measures/contrast'
import type { Flashes } from '../measures/flashes'
import { flashesIn } from '../measures/flashes'
import type { RingDifference } from '../ring-difference'
import { pictureDifference, ringDifference } from '../ring-difference'
import type { WithEngine } from '../with-engine'
import type { CourseFrame } from './course'
import { courseAt } from './course'
import type { SmallPicture } from './moments'

/** Width of the small pictures of all frames, in px: a field of 10 degrees of WCAG is a third of it. */
const SMALL = 192

/** What all frames of the loop tell. */
export interface WholeRing {
  flashes: Flashes
  ring: RingDifference | null
  course: CourseFrame[]
  pictures: SmallPicture[]
}

/** All frames, small: flashes over grey, the steps round the ring, and where everything stands. */
export async function wholeRing(
  card: Card,
  withEngine: WithEngine,
  onShare: (share: number) => void,
): Promise<WholeRing> {
  const scale = Math.min(1, SMALL / card.frame.width)
  const at = (frame: Frames) => withEngine((engine) => engine.render(card, frame, { scale }))
  const steps: number[] = []
  const course: CourseFrame[] = []
  const pictures: SmallPicture[] = []
  const first = await at(0)
  let before = first
  for (let frame = 0; frame < card.length; frame++) {
    const picture = frame === 0 ? first : await at(frame)
    if (frame > 0) steps.push(pictureDifference(before, picture).mean)
    const now = courseAt(card, frame, await withEngine((engine) => engine.outlook(card, frame)))
    course.push(now)
    pictures.push(smallPicture(picture, now, scale))
    before = picture
    onShare((frame + 1) / card.length)
  }
  steps.push(pictureDifference(before, first).mean)
  return {
    ...{ course, pictures },
    flashes: flashesIn(pictures, perSecond(card.rate), zonesOf(card) === null),
    ring: card.length > 1 ? ringDifference(steps) : null,
  }
}

const MID_GREY = 128

function smallPicture({ width, height, pixels }: FramePicture, { pieces }: CourseFrame, scale: number): SmallPicture {
  const luminance = new Float32Array(width * height)
  const red = new Float32Array(width * height)
  luminance.fill(LUMINANCES[MID_GREY]!)
  for (let i = 0, at = 0; i < luminance.length; i++, at += 4) {
    const alpha = pixels[at + 3]!
    if (alpha === 0) continue
    const under = MID_GREY * (255 - alpha)
    const r = LUMINANCES[Math.round((pixels[at]! * alpha + under) / 255)]!
    const g = LUMINANCES[Math.round((pixels[at + 1]! * alpha + under) / 255)]!
    const b = LUMINANCES[Math.round((pixels[at + 2]! * alpha + under) / 255)]!
    luminance[i] = 0.2126 * r + 0.7152 * g + 0.0722 * b
    red[i] = r > 0 && r / (r + g + b) >= 0.8 ? Math.max(0, (r - g - b) * 320) : 0
  }
  const type = pieces.flatMap(({ type, bounds: { left, top, right, bottom } }) =>
    type ? [{ left: left * scale, top: top * scale, right: right * scale, bottom: bottom * scale }] : [],
  )
  return { width, height, luminance, red, type }
}
