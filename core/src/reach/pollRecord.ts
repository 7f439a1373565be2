import { DAY, SECOND, type Instant } from '../zones';

/** The forms that programs poll, in the order of the numbers under which they are stored: it stays as it is. */
export const POLL_FORMS = ['feed', 'freeBusy', 'jCal', 'table', 'changes', 'difference', 'dav'] as const;
export type PollForm = (typeof POLL_FORMS)[number];

/** For how many days polls can be kept one by one, and for how many they usually are; later only their sums are known. */
export const KEPT_DAYS = [7, 14, 30, 60, 90, 180, 365] as const;
export const USUAL_KEPT_DAYS = 30;

/** One poll of a subscriber. */
export interface PollRecord {
  /** Instant, in whole seconds. */
  readonly at: Instant;
  readonly form: PollForm;
  /** The revision that it held, 0 where that is not known, and the one that it holds now. */
  readonly had: number;
  readonly has: number;
}

/** A poll takes three bytes for its second of the day (17 bits), its form (4) and whether it held the same already (1). */
const [FORM_AT, SAME_AT] = [17, 21];

/** Returns polls as bytes that can be put behind those of other polls of the same day, in UTC. */
export function packPolls(polls: readonly PollRecord[]): Uint8Array {
  const bytes: number[] = [];
  const number = (n: number) => {
    for (; n >= 0x80; n = Math.floor(n / 0x80)) bytes.push((n % 0x80) | 0x80);
    bytes.push(n);
  };
  for (const { at, form, had, has } of polls) {
    const second = Math.floor((at % DAY) / SECOND);
    const same = had === has;
    const word = second | (POLL_FORMS.indexOf(form) << FORM_AT) | (same ? 1 << SAME_AT : 0);
    bytes.push(word & 0xff, (word >> 8) & 0xff, (word >> 16) & 0xff);
    if (!same) number(had);
    number(has);
  }
  return Uint8Array.from(bytes);
}

/** Returns the polls in the bytes of a day that begins at an instant, in the order in which they were put there. */
export function unpackPolls(bytes: Uint8Array, day: Instant): PollRecord[] {
  const polls: PollRecord[] = [];
  let at = 0;
  const number = () => {
    let [n, unit] = [0, 1];
    for (; bytes[at]! >= 0x80; at++, unit *= 0x80) n += (bytes[at]! & 0x7f) * unit;
    return n + bytes[at++]! * unit;
  };
  while (at < bytes.length) {
    const word = bytes[at]! | (bytes[at + 1]! << 8) | (bytes[at + 2]! << 16);
    at += 3;
    const had = word >> SAME_AT ? null : number();
    const has = number();
    const second = word & ((1 << FORM_AT) - 1);
    polls.push({
      at: day + second * SECOND,
      form: POLL_FORMS[(word >> FORM_AT) & 0xf]!,
      had: had ?? has,
      has,
    });
  }
  return polls;
}
