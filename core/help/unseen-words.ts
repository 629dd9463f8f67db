/** Why a piece is not to be seen at a frame; core/judge/unseen.ts says which it is. */
export const UNSEEN = [
  {
    id: 'off',
    title: 'It is switched off',
    says: 'The piece, or a group that holds it, is switched off.',
    remedy: 'Switch it on by its eye in the stack.',
  },
  {
    id: 'span',
    title: 'It is not there at this frame',
    says: 'Its span begins later or has ended.',
    remedy: 'Go to another frame, or drag the ends of its bar on the ribbon.',
  },
  {
    id: 'clear',
    title: 'It is clear',
    says: 'Its opacity is 0 at this frame, or so small that nothing is left of it.',
    remedy: 'Raise its opacity, or go to a frame at which it has come.',
  },
  {
    id: 'small',
    title: 'It has no size',
    says: 'Its scale, width, height or thickness is 0 at this frame, or it says nothing.',
    remedy: 'Give it a size, or words.',
  },
  {
    id: 'outside',
    title: 'It is outside the frame',
    says: 'All of it stands beyond the edges of the card.',
    remedy: 'Bring it back by its X and Y, or go to a frame at which it has come.',
  },
  {
    id: 'coats',
    title: 'It has no coat',
    says: 'Nothing is poured on it, or all its coats are switched off or clear.',
    remedy: 'Pour a fill, or switch a coat on.',
  },
  {
    id: 'form',
    title: 'Its outline is taken away',
    says: 'An outline step leaves nothing of it: a line that is drawn by 0 %, or an edge that is moved in too far.',
    remedy: 'Look at the outline steps at the foot of its core.',
  },
  {
    id: 'mask',
    title: 'A mask or matte hides it',
    says: 'Its masks, or the masks of a group that holds it, leave nothing of it at this frame.',
    remedy: 'Look at the masks at the left of its core.',
  },
  {
    id: 'behind',
    title: 'It lies behind something',
    says: 'What lies in front of it covers all of it.',
    remedy: 'Drag it higher in the stack, or switch off what covers it.',
  },
] as const

export type UnseenReason = (typeof UNSEEN)[number]['id']
