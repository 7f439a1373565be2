/** The colours that a window or calendar can have: CSS3 names, as COLOR of RFC 7986 section 5.9 requires. */
export const COLOURS = [
  'steelblue',
  'teal',
  'seagreen',
  'olive',
  'darkgoldenrod',
  'sienna',
  'firebrick',
  'mediumvioletred',
  'slateblue',
  'slategray',
] as const;
export type Colour = (typeof COLOURS)[number];
