import { wallFromText } from '../../zones';

/** Tests of the values of RFC 5545 section 3.3, each by the name that VALUE gives it; they return whether a text is one. */
export const VALUE_TYPES = {
  BINARY: (text: string) => /^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/.test(text),
  'CAL-ADDRESS': isUri,
  DATE: (text: string) => /^\d{8}$/.test(text) && isMoment(`${text}T000000`),
  'DATE-TIME': (text: string) => isMoment(text),
  DURATION: isDuration,
  FLOAT: (text: string) => /^[+-]?\d+(?:\.\d+)?(?:;[+-]?\d+(?:\.\d+)?)?$/.test(text),
  INTEGER: (text: string) => /^[+-]?\d+$/.test(text),
  PERIOD: isPeriod,
  TEXT: (text: string) => /^(?:[^\\;,]|\\[\\;,nN])*$/.test(text),
  /** Several texts, between commas. */
  TEXTS: (text: string) => /^(?:[^\\;]|\\[\\;,nN])*$/.test(text),
  URI: isUri,
  'UTC-OFFSET': (text: string) => /^(?!-0000)[+-](?:[01]\d|2[0-3])[0-5]\d(?:[0-5]\d)?$/.test(text),
} as const;

export type ValueType = keyof typeof VALUE_TYPES;

function isUri(text: string): boolean {
  return /^[a-z][a-z0-9+.-]*:[^\s<>"{}|\\^`]+$/i.test(text);
}

/** A date and time that exists; a leap second counts as one (RFC 5545 sections 3.3.4, 3.3.5 and 3.3.12). */
function isMoment(text: string): boolean {
  const [, year, month, day, hour, minute, second] =
    /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z?$/.exec(text) ?? [];
  if (!year) return false;
  try {
    wallFromText(`${year}-${month}-${day}T${hour}:${minute}:${second === '60' ? '59' : second}`);
    return true;
  } catch {
    return false;
  }
}

/** RFC 5545 section 3.3.6: weeks alone, or days and a time without gaps. */
function isDuration(text: string): boolean {
  const time = String.raw`T(?:\d+H(?:\d+M(?:\d+S)?)?|\d+M(?:\d+S)?|\d+S)`;
  return new RegExp(`^[+-]?P(?:\\d+W|\\d+D(?:${time})?|${time})$`).test(text);
}

/** RFC 5545 section 3.3.9: a start and a later end, or a start and a positive duration. */
function isPeriod(text: string): boolean {
  const [start = '', end = '', ...more] = text.split('/');
  if (more.length || !isMoment(start)) return false;
  if (isDuration(end)) return !end.startsWith('-') && /[1-9]/.test(end);
  return isMoment(end) && end.endsWith('Z') === start.endsWith('Z') && end > start;
}
