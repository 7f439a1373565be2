import { outwardText, type ShowsBehind } from '../../glass';
import type { WindowLink } from '../windowLink';

/** An address on a link sheet, of a key or of a listed window, that leads somewhere. */
export interface SheetLink extends WindowLink {
  /** What is found there; null where it is not worked out yet. */
  readonly shows: ShowsBehind | null;
}

/** A link sheet as whoever is given it has it: addresses of windows, in the order that they were put in. */
export interface LinkSheet {
  readonly name: string;
  readonly note: string;
  /** Its own address, absolute and without an ending. */
  readonly address: string;
  readonly links: readonly SheetLink[];
}

/** Returns a sheet as it goes out: no form shows control characters. */
export function outwardSheet(sheet: LinkSheet): LinkSheet {
  return { ...sheet, name: outwardText(sheet.name), note: outwardText(sheet.note) };
}
