import type { FramePicture } from '../../frame/engine'
import { fringesOf } from '../measures/fringe'
import { faint, FOUND, mark, markReach } from './shown-picture'

/** Where edges have a rim: a light one in red, a dark one in blue. Straight pixels of 8 bits. */
export function haloPicture(picture: FramePicture): FramePicture {
  const shown = faint(picture)
  const reach = markReach(picture)
  fringesOf(picture, (x, y, isLight) => mark(shown, x, y, isLight ? FOUND.bad : FOUND.dark, reach))
  return shown
}
