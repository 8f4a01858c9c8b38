/** What hands can do that no command names: for the shortcuts sheet. */
export const GESTURES: readonly { readonly what: string; readonly how: string }[] = [
  { what: 'Zoom at the pointer', how: 'wheel' },
  { what: 'Zoom time only', how: 'Shift+wheel' },
  { what: 'Zoom value only', how: 'Ctrl+Shift+wheel' },
  { what: 'Pan', how: 'middle-drag or Space-drag' },
  { what: 'Orbit the view', how: 'drag, right-drag pans' },
  { what: 'Select keys and handles', how: 'click, box; Ctrl adds or takes' },
  { what: 'Move keys on one axis only', how: 'Shift-drag' },
  { what: 'Leave a copy behind', how: 'Alt-drag or Ctrl+C, Ctrl+V' },
  { what: 'Add a key on a curve', how: 'double-click, or D at the playhead' },
  { what: 'Pick an axis in a move, turn or size', how: 'X Y Z, then a number' },
  { what: 'Give up any drag', how: 'Esc' },
  { what: 'Scrub a number', how: 'drag it; arrows step, Shift by ten' },
  { what: 'Type a number', how: '12/5 · 40 cm · 90 rpm · by 3 · times 2' },
];
