/** The job in its order, as a newcomer does it: what to press, with the words of the screen. */
export const BEGINNINGS: readonly { id: string; title: string; says: string; more: readonly string[] }[] = [
  {
    id: 'first-card',
    title: 'A first card',
    says: 'On the shelf press “New card”, choose a design, write your words, choose colours, and make the card.',
    more: [
      'The bench opens with it. Space plays it; the ring at the lower left is the loop, the ribbon beside it the same time unrolled.',
      'Nothing has to be saved: every change is kept by itself, and the arrows at the top undo and redo all of them.',
    ],
  },
  {
    id: 'empty-card',
    title: 'From nothing',
    says: '“New card”, then “Empty card”. “Add a piece” at the head of the stack puts words, boxes, shapes, pictures or paths on it.',
    more: [
      'What is selected unfolds in the stack, and its values stand at the right. Drag a value on its label, or type it.',
    ],
  },
  {
    id: 'look',
    title: 'A look',
    says: 'Press “+” in the core of a piece to pour a coat, form its outline, give it a finish or hold it by a mask; type to find one.',
    more: [
      'Slabs lie in true order: what lies higher is nearer to the eye. Drag one to move it; its eye switches it off and on.',
      'A look that is good can be saved as a seal, and pressed on other pieces and cards.',
    ],
  },
  {
    id: 'motion',
    title: 'Motion',
    says: 'The dot beside a value gives it a key at the playhead. Go to another frame, change the value, and it moves.',
    more: [
      'Only what moves has a lane on the ribbon. “Curves” shows how it goes: pull its handles, or choose an easing.',
      '“Move by itself…” in the settings lets a piece turn, swing, float or flicker. A right press on the dot opens the motors of one value.',
      '“Loop closes” says whether the end meets the beginning, and mends what can be mended.',
    ],
  },
  {
    id: 'letters',
    title: 'Letters that fly in',
    says: 'Select words, open “Letter motion” in the settings and choose how they come: each beginning can be changed in all its values.',
    more: [],
  },
  {
    id: 'many',
    title: 'Many names out of one card',
    says: 'The tag beside a value makes it a field. On the shelf bring a table in under “Rosters”: each row fills the fields and becomes a file.',
    more: ['Rows are looked at by the engine: what has no room, no letters or no contrast is marked at its cell.'],
  },
  {
    id: 'deliver',
    title: 'Render',
    says: '“Render” at the upper right offers the formats that carry transparency, and says what each is for.',
    more: [
      'Every file is read again after it was made, and held against the frames. What is not what was made is not offered.',
      'Before that, the proof looks at safe areas, contrast, size, time to read, banding, flashes and the seam.',
    ],
  },
]
