import { COLOURS, SHOWINGS } from '../../glass';
import { zoneNamed } from '../../zones';
import { PARTS, THEMES } from '../page/choice';
import { CLOCKS, FIRST_DAYS } from '../speech/reading';

export const LOOK_NAMES = ['show', 'parts', 'tz', 'lang', 'clock', 'week', 'theme', 'accent'] as const;
export type LookName = (typeof LOOK_NAMES)[number];

/**
 * How an embed looks where its reader has chosen nothing: its first view, its parts, how it is read, its colours. Each as
 * in the query string of its address; what is left out is as usual.
 */
export type EmbedLook = Readonly<Partial<Record<LookName, string>>>;

const oneOf = (values: readonly string[]) => (value: string) => values.includes(value);
const LANGUAGE = /^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8}){0,3}$/;

/** What each part of a look may be. */
const FITS: Readonly<Record<LookName, (value: string) => boolean>> = {
  show: oneOf(SHOWINGS),
  parts: (value) => value === '' || value.split(',').every(oneOf(PARTS)),
  tz: (value) => zoneNamed(value) !== null,
  lang: (value) => LANGUAGE.test(value),
  clock: oneOf(CLOCKS),
  week: oneOf(Object.keys(FIRST_DAYS)),
  theme: oneOf(THEMES),
  accent: oneOf(COLOURS),
};

/** Returns the names in a look that there are none of, or whose values are none of theirs. */
export function unfitInLook(look: Readonly<Record<string, unknown>>): string[] {
  return Object.entries(look).flatMap(([name, value]) => {
    const fits = Object.hasOwn(FITS, name) && typeof value === 'string' && FITS[name as LookName](value);
    return fits ? [] : [name];
  });
}

/** Returns the address of an embed that looks so, whatever is held with its key. */
export function lookAddress(embed: string, look: EmbedLook): string {
  const query = LOOK_NAMES.flatMap((name) => {
    const value = look[name];
    return value === undefined ? [] : [`${name}=${encodeURIComponent(value)}`];
  });
  return query.length ? `${embed}?${query.join('&')}` : embed;
}

/** What the code of an embed, or its address, says. */
export interface EmbedRead {
  /** The embed's address without its query. */
  readonly address: string;
  readonly look: EmbedLook;
  /** Options that there are none of, or whose values are none of theirs: readers get what is usual instead. */
  readonly unfit: readonly { readonly name: string; readonly value: string }[];
}

/** Returns what a pasted text says of an embed, or null where no address of one stands in it. */
export function readEmbed(text: string): EmbedRead | null {
  const [found] = /https?:\/\/[^\s"'<>]+\/embed\/[^\s"'<>]+/.exec(text) ?? [];
  const written = found?.replaceAll('&amp;', '&');
  if (!written || !URL.canParse(written)) return null;
  const { origin, pathname, searchParams } = new URL(written);
  const said = [...searchParams].map(([name, value]) => ({ name, value }));
  const isUnfit = ({ name, value }: (typeof said)[number]) => unfitInLook({ [name]: value }).length > 0;
  const fit = said.filter((option) => !isUnfit(option));
  return {
    address: origin + pathname,
    look: Object.fromEntries(fit.map(({ name, value }) => [name, value])),
    unfit: said.filter(isUnfit),
  };
}
