import type { OutwardOccurrence } from '../glass';
import type { ZoneName } from '../zones';
import { pageEntry } from './page/agenda';
import { spanText } from './page/entryLine';
import { kindText, type Speech } from './speech/speech';

/** Returns in one line when a time is, by the clocks of a zone, where, and what its state is; not what it is called. */
export function summaryText(
  one: OutwardOccurrence,
  zone: ZoneName,
  hostZone: ZoneName,
  speech: Speech,
): string {
  const { content, start } = one;
  return [
    timeText(one, zone, speech),
    content?.status === 'cancelled' && speech.say('cancelled'),
    one.tentative && speech.say('tentative'),
    content?.place,
    content && kindText(speech, content, start, hostZone),
  ]
    .filter(Boolean)
    .join(' · ');
}

/** Returns when a time is, by the clocks of a zone: its day, and from when until when. */
export function timeText(one: OutwardOccurrence, zone: ZoneName, speech: Speech): string {
  const time = pageEntry(one, zone);
  return speech.say('dayTime', { day: speech.day(time.firstDay), time: spanText(time, speech) });
}
