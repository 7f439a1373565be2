import type { Speech } from '../speech/speech';
import { dayAt, type Instant, type ZoneName } from '../../zones';

/** Why an address leads nowhere, or not just now. */
export type Refusal =
  | 'unknown'
  | 'closed'
  | 'expired'
  | 'withdrawn'
  | 'turned'
  | 'unlisted'
  | 'stopped'
  | 'unheard'
  | 'waiting'
  | 'many';

/** What readers of a closed window are told: since when it is, by the clocks of its zone, and whom to ask. */
export interface Closing {
  readonly at: Instant | null;
  readonly zone: ZoneName;
  readonly contact: string;
}

export interface RefusalWords {
  readonly title: string;
  readonly say: string;
}

/** Returns why an address leads nowhere in words: what it is, and what to do. */
export function refusalWords(speech: Speech, why: Refusal, closing: Closing | null = null): RefusalWords {
  const title = speech.say(`${why}Title`);
  if (why !== 'closed') return { title, say: speech.say(`${why}Say`) };
  const { at, zone, contact } = closing ?? { at: null, zone: 'UTC', contact: '' };
  const since =
    at === null ? speech.say('closedSay') : speech.say('closedSince', { day: speech.day(dayAt(zone, at)) });
  return {
    title,
    say: `${since} ${contact ? speech.say('questions', { contact }) : speech.say('askGiver')}`,
  };
}
