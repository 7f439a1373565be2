/** Outlines of a calendar's plate. Letters, outline and pattern tell calendars apart; colour comes last. */
export const PLATE_SHAPES = ['square', 'barrel', 'pennant', 'chamfer', 'arch'] as const;
export type PlateShape = (typeof PLATE_SHAPES)[number];

/** What the edge of a plate is filled with. */
export const PLATE_PATTERNS = ['solid', 'stripes', 'dots', 'checks', 'rails'] as const;
export type PlatePattern = (typeof PLATE_PATTERNS)[number];
