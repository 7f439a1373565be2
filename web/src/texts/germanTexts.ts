import type { Messages } from '@zonal/core/texts';

/** The rooms whose German texts are fetched when somebody reads German. The page to sign in has its own. */
export type Room =
  'glass' | 'help' | 'house' | 'inside' | 'labels' | 'outside' | 'rehearsal' | 'shell' | 'times';

let german: Readonly<Record<Room, Messages>> | null = null;

/** Stores the German texts. To be called before anything that shows texts is imported. */
export function registerGermanTexts(texts: Readonly<Record<Room, Messages>>): void {
  german = texts;
}

/** Returns the German texts of a room, or null if they have not been fetched. */
export const germanTextsOf = (room: Room): Messages | null => german && german[room];
