/** What the fields of constraints are called in the sheet, and what they do. */
export const FIELD_WORDS: Readonly<Record<string, { readonly label: string; readonly tip: string }>> = {
  target: { label: 'Whom', tip: 'The part it is about; pick it in the view or in the rows' },
  start: { label: 'From', tip: 'The frame from which it acts' },
  end: { label: 'To', tip: 'The last frame on which it acts; nothing: for ever' },
  fade: { label: 'Fades over', tip: 'Frames in which the part comes back to its own motion' },
  turn: { label: 'Turn stays too', tip: 'On: it does not turn either while it is planted' },
  axis: { label: 'Its axis', tip: 'The axis of the part that points there, or about which the arm bends' },
  up: { label: 'Upwards', tip: 'The axis of the part that stays as near to up as it can' },
  weight: { label: 'Share', tip: 'How much of it acts: 1 wholly, 0 not at all' },
  middle: { label: 'Elbow', tip: 'The lower link of the arm' },
  tip: { label: 'End', tip: 'The part at the end of the arm' },
  bend: { label: 'Elbow to', tip: 'To which side the elbow bends' },
  path: { label: 'Path', tip: 'The path it goes along' },
  distance: { label: 'Way by', tip: 'The number that says how far along the path it is, in metres' },
  orient: { label: 'Looks along', tip: 'On: its Z looks along the path' },
  offset: { label: 'Off by', tip: 'How far from the other part’s pivot it keeps, along the world’s axes' },
  axes: { label: 'Along', tip: 'The axes of the world in which it goes along' },
  span: { label: 'Looks over', tip: 'Frames over which its way is read' },
  frequency: { label: 'Lag, swings', tip: 'How quickly it catches up: swings a second' },
  damping: { label: 'Damping', tip: '1: it comes to rest without swinging past; less: it swings' },
};

/** A new lag: half a second late, hardly past. */
export const NEW_LAG = { frequency: 1.2, damping: 0.9, start: 0, loop: null } as const;
