import type { OutwardView } from '../glass';
import { dayAt, type Instant } from '../zones';
import { zoneText } from './page/words';
import { momentText, speechFor } from './speech/speech';

/** What a dated copy says of itself: what it is called by the calendar's name, and a sentence for each entry's notes. */
export interface CopyWords {
  readonly nameOf: (name: string) => string;
  readonly note: string;
}

/** Returns what a copy as of `now` says, in the language of the window and by its clocks. */
export function copyWords({ wording, hostZone }: OutwardView, now: Instant, see: string): CopyWords {
  const speech = speechFor(wording.language);
  const day = speech.day(dayAt(hostZone, now));
  const moment = speech.say('inZone', {
    when: momentText(speech, now, hostZone),
    zone: zoneText(hostZone),
  });
  return {
    nameOf: (name) => speech.say('copyName', { name, day }),
    note: speech.say('copyNote', { moment, address: see }),
  };
}
