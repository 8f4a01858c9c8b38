/** What the numbers of simple shapes are called in the sheet. */
export const SHAPE_WORDS: Readonly<Record<string, { readonly label: string; readonly tip: string }>> = {
  size: { label: 'Sizes', tip: 'How far it reaches along its own axis' },
  radius: { label: 'Radius', tip: 'From its axis to its rim; of a ring to the middle of its tube' },
  topRadius: { label: 'Top radius', tip: 'The radius at the top; 0 makes a cone' },
  height: { label: 'Height', tip: 'From its foot to its top' },
  tube: { label: 'Tube', tip: 'Radius of the tube of a ring' },
  depth: { label: 'Depth', tip: 'How far the outline is drawn out' },
  teeth: { label: 'Teeth', tip: 'How many teeth it has' },
  module: { label: 'Module', tip: 'Pitch diameter over teeth: wheels that mesh have the same' },
  width: { label: 'Width', tip: 'Along its axis' },
  bore: { label: 'Bore', tip: 'Radius of the hole in its middle' },
  profile: { label: 'Profile', tip: 'Distance from the axis, and height' },
  outline: { label: 'Outline', tip: 'X and Y of its corners, round about' },
};
