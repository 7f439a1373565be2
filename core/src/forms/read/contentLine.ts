import ICAL from 'ical.js';

/** A content line (RFC 5545 section 3.1) as jCal (RFC 7265 section 3.4), with its text after the colon. */
export interface LineParts {
  /** In small letters. */
  readonly name: string;
  readonly parameters: Readonly<Record<string, string | string[]>>;
  readonly type: string;
  readonly values: readonly unknown[];
  readonly text: string;
}

/** Properties whose values are read from their text later on, so that one bad value costs one entry and not the file. */
const DATES = new Set([
  'dtstart',
  'dtend',
  'due',
  'duration',
  'rrule',
  'exrule',
  'rdate',
  'exdate',
  'recurrence-id',
  'tzid',
  'tzoffsetfrom',
  'tzoffsetto',
  'x-zonal-planned',
]);

/** Returns a content line taken apart. Throws an Error with the reason when it is none. */
export function partsOfLine(content: string): LineParts {
  const name = /^[A-Za-z0-9_.-]+(?=[;:])/.exec(content)?.[0].toLowerCase();
  if (name === undefined) throw new Error(`“${content.slice(0, 40)}” is not a property (NAME:value)`);
  if (DATES.has(name)) return { name, ...plainParts(content.slice(name.length)) };
  try {
    const [, parameters, type, ...values] = ICAL.parse.property(content) as [
      string,
      Record<string, string | string[]>,
      string,
      ...unknown[],
    ];
    return { name, parameters, type, values, text: textAfterColon(content) };
  } catch (error) {
    throw new Error((error as Error).message.replace(/[.\s]+$/, ''), { cause: error });
  }
}

/** Returns what stands after the first colon outside quotes. */
function textAfterColon(content: string): string {
  const colon = colonIn(content);
  return colon < 0 ? '' : content.slice(colon + 1);
}

function colonIn(content: string): number {
  let quoted = false;
  for (let i = 0; i < content.length; i++) {
    if (content[i] === '"') quoted = !quoted;
    else if (content[i] === ':' && !quoted) return i;
  }
  return -1;
}

/** A colon in an unquoted zone name (`TZID=(UTC+07:00) Bangkok`): then the value starts after the last one. */
const LAST_DATES = /:(\d{8}(?:T\d{4,6}Z?)?(?:[,/][\dTZPWDHMS+-]+)*)\s*$/i;

function plainParts(rest: string): Omit<LineParts, 'name'> {
  let colon = colonIn(rest);
  const dates = LAST_DATES.exec(rest);
  if (dates && dates.index > colon && rest.startsWith(';')) colon = dates.index;
  if (colon < 0) throw new Error(`“${rest.slice(0, 40)}” has no value`);
  const parameters: Record<string, string | string[]> = {};
  for (const piece of piecesOf(rest.slice(1, colon))) {
    const equals = piece.indexOf('=');
    if (equals > 0)
      parameters[piece.slice(0, equals).trim().toLowerCase()] = unquoted(piece.slice(equals + 1));
  }
  const text = rest.slice(colon + 1);
  return { parameters, type: 'text', values: [text], text };
}

/** Cuts parameters apart at semicolons outside quotes that are not escaped. */
function piecesOf(text: string): string[] {
  return text.match(/(?:"[^"]*"|\\.|[^;"\\])+/g) ?? [];
}

/** Returns a parameter's value without its quotes, with what RFC 6868 writes by a caret. */
function unquoted(text: string): string {
  const inner = /^\s*"(.*)"\s*$/.exec(text)?.[1] ?? text;
  return inner.replace(/\^(['n^])/g, (_, c: string) => (c === 'n' ? '\n' : c === "'" ? '"' : '^'));
}

/** Returns a text as it was meant, whether it was escaped (RFC 5545 section 3.3.11) or not, for comparing names. */
export function plainTzid(text: string): string {
  return text
    .replace(/\\([\\,;])/g, '$1')
    .replace(/\s+/g, ' ')
    .trim();
}
