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

/** The same as codes, for programs that know no names. */
export const COLOUR_CODES: Readonly<Record<Colour, string>> = {
  steelblue: '#4682B4',
  teal: '#008080',
  seagreen: '#2E8B57',
  olive: '#808000',
  darkgoldenrod: '#B8860B',
  sienna: '#A0522D',
  firebrick: '#B22222',
  mediumvioletred: '#C71585',
  slateblue: '#6A5ACD',
  slategray: '#708090',
};
