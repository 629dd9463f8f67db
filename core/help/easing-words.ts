import { STANDARD_EASINGS } from '../values/easing'
import { PEAKS } from '../values/easing-shapes'

// The easings that the bench offers by name, in words.

const SAYS: Readonly<Record<(typeof STANDARD_EASINGS)[number] | (typeof PEAKS)[number]['id'], string>> = {
  linear: 'The same speed all the way: for turns that never end, and for what is pulled along',
  ease: 'Sets off quickly and comes to rest softly',
  'ease-in': 'Sets off slowly and is fastest at the end: for what leaves',
  'ease-out': 'Is fastest at the start and comes to rest softly: for what arrives',
  'ease-in-out': 'Slow at both ends: for what moves from rest to rest',
  hold: 'Stays as it is until the next key, then jumps',
  early: 'Most of the way in the first moments, then a long settling',
  middle: 'Hardly moves, is thrown across, and hardly moves again',
  late: 'Creeps at first and is fastest just before it arrives',
}

export interface EasingWords {
  id: string
  label: string
  easing: string
  says: string
}

export const EASING_WORDS: readonly EasingWords[] = [
  ...STANDARD_EASINGS.map((easing) => ({ id: easing, label: easing, easing, says: SAYS[easing] })),
  ...PEAKS.map(({ id, label, easing }) => ({ id, label, easing, says: SAYS[id] })),
]
