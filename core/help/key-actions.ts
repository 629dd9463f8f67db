export interface KeyAction {
  does: string
  /** As it ships. */
  keys: string[]
  /** The usual keys of every program stay as they are. */
  usual?: boolean
}

/** All that keys do on the bench, in the order of the sheet. */
export const KEY_ACTIONS = {
  play: { keys: ['Space'], does: 'Play the loop, stop', usual: true },
  hold: { keys: ['H'], does: 'Play the hold again and again, or the whole loop' },
  frameBack: { keys: [','], does: 'One frame back' },
  frameOn: { keys: ['.'], does: 'One frame on' },
  toSeam: { keys: ['Home'], does: 'To the seam' },
  toLast: { keys: ['End'], does: 'To the last frame' },
  undo: { keys: ['Ctrl+Z'], does: 'Undo', usual: true },
  redo: { keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], does: 'Redo', usual: true },
  save: { keys: ['Ctrl+S'], does: 'Save now', usual: true },
  remove: { keys: ['Delete', 'Backspace'], does: 'Take away the key, coat or pieces selected', usual: true },
  cut: { keys: ['Ctrl+X'], does: 'Cut the coat or the pieces', usual: true },
  copy: { keys: ['Ctrl+C'], does: 'Copy the coat or the pieces', usual: true },
  paste: { keys: ['Ctrl+V'], does: 'Paste', usual: true },
  copyCore: { keys: ['Ctrl+Shift+C'], does: 'Copy the whole core' },
  pasteCore: { keys: ['Ctrl+Shift+V'], does: 'Paste the whole core on the pieces selected' },
  duplicate: { keys: ['Ctrl+D'], does: 'Duplicate', usual: true },
  selectAll: { keys: ['Ctrl+A'], does: 'Select all pieces', usual: true },
  group: { keys: ['Ctrl+G'], does: 'Group the pieces selected' },
  ungroup: { keys: ['Ctrl+Shift+G'], does: 'Take the group apart' },
  split: { keys: ['X'], does: 'Split the piece at the playhead' },
  curves: { keys: ['C'], does: 'Open or close the curves' },
  motors: { keys: ['M'], does: 'Motors of the lane whose key is selected' },
  seal: { keys: ['P'], does: 'Press a seal' },
  paint: { keys: ['T'], does: 'Take the brush for the painting or mask selected, put it away' },
  erase: { keys: ['E'], does: 'Erase with the brush, paint with it' },
  narrower: { keys: ['N'], does: 'Brush narrower' },
  broader: { keys: ['B'], does: 'Brush broader' },
  softer: { keys: ['Shift+N'], does: 'Brush softer' },
  harder: { keys: ['Shift+B'], does: 'Brush harder' },
  alone: { keys: ['I'], does: 'See the piece or coat alone, see all' },
  zoomIn: { keys: ['+', '='], does: 'Zoom in' },
  zoomOut: { keys: ['-'], does: 'Zoom out' },
  zoomFit: { keys: ['0'], does: 'Fit the frame' },
  escape: { keys: ['Escape'], does: 'Select the piece, then nothing', usual: true },
  find: { keys: ['/'], does: 'Find pieces, values, actions, seals, frames and help' },
  whole: { keys: ['W'], does: 'The stage in the whole window, or with its panels' },
  sheet: { keys: ['?'], does: 'This sheet' },
} satisfies Record<string, KeyAction>

export type KeyActionId = keyof typeof KEY_ACTIONS
