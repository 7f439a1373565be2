import {
  GLASSES,
  GLASS_WORDS,
  LIMITER_WORDS,
  effectiveGlass,
  sourceLimits,
  type Audience,
  type Ceilings,
  type Glass,
} from '../glass';
import type { Made } from './houseRights';
import { clearerInside, type InsideGlass } from './insideView';
import type { Sight, Standing } from './rights';
import type { InsideLanguage } from '../texts/languages';
import { GLASS_DE, LIMITER_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';
import { insideTexts } from '../words/texts';
import { standingNames } from './wishWords';

/** Somebody who was made something to a calendar. */
export interface NamedPerson extends Made {
  readonly name: string;
}

/** How one person, or everybody, sees a calendar from inside, and why. */
export interface InsideWay {
  /** Empty for everybody in the house. */
  readonly name: string;
  readonly standing: Standing | 'steward' | 'house';
  readonly sight: Sight;
  readonly why: string;
}

/** What a ring inside sees of a calendar: the clearest of all ways. */
export interface InsideCell {
  readonly sight: Sight;
  readonly ways: readonly InsideWay[];
}

export interface InsideRow {
  readonly calendarId: string;
  readonly crew: InsideCell;
  readonly house: InsideCell;
}

/** Returns what somebody inside sees of a calendar, for the two rings that are inside; null for the others, and where it is not known. */
export function insideCellOf(
  rows: readonly InsideRow[],
  calendarId: string,
  audience: Audience,
): InsideCell | null {
  const row = rows.find((r) => r.calendarId === calendarId);
  return row && (audience === 'crew' || audience === 'house') ? row[audience] : null;
}

/** Sights from nothing to everything. */
const SIGHTS: readonly Sight[] = [...GLASSES, 'all'];

/** Returns who sees a calendar from inside: named colleagues and stewards, and everybody in the house. */
export function insideSight(
  calendarId: string,
  {
    people,
    stewards,
    houseGlass,
  }: {
    readonly people: readonly NamedPerson[];
    readonly stewards: readonly string[];
    readonly houseGlass: Glass;
  },
  ceilings: Ceilings,
  language: InsideLanguage = 'en',
): InsideRow {
  const t = insideTexts(language);
  const glasses = inLanguage(GLASS_WORDS, GLASS_DE, language);
  const limiters = inLanguage(LIMITER_WORDS, LIMITER_DE, language);
  const through = (glass: InsideGlass): Pick<InsideWay, 'sight' | 'why'> => {
    const sources = [{ calendarId, glass: glass.glass, fields: [], as: '' }];
    const limits = sourceLimits(calendarId, { sources, ceilings }, { audience: glass.audience, cap: null });
    const { glass: sight, reasons } = effectiveGlass(limits);
    const own = glass.audience === 'crew' ? t('glassByName') : t('glassOfHouse');
    const why = reasons.map(({ by, glass: limit }) =>
      t('limit', { limit: by === 'window' ? own : limiters[by], glass: glasses[limit].word.toLowerCase() }),
    );
    return { sight, why: why.join(', ') };
  };
  const crew = [
    ...people
      .filter((p) => !stewards.includes(p.name))
      .map(({ name, standing, glass }): InsideWay => {
        if (standing !== 'reader')
          return {
            name,
            standing,
            sight: 'all',
            why: t('asRole', { role: standingNames(language)[standing] }),
          };
        return {
          name,
          standing,
          ...through(clearerInside(calendarId, glass ?? 'shut', houseGlass, ceilings)),
        };
      }),
    ...stewards.map((name): InsideWay => ({ name, standing: 'steward', sight: 'all', why: t('asSteward') })),
  ];
  const house: InsideWay = {
    name: '',
    standing: 'house',
    ...through({ audience: 'house', glass: houseGlass }),
  };
  return { calendarId, crew: cellOf(crew), house: cellOf(house.sight === 'shut' ? [] : [house]) };
}

function cellOf(ways: readonly InsideWay[]): InsideCell {
  const clearest = Math.max(0, ...ways.map((w) => SIGHTS.indexOf(w.sight)));
  const seeing = ways.filter((w) => w.sight !== 'shut');
  return {
    sight: SIGHTS[clearest]!,
    ways: [...seeing].sort((a, b) => SIGHTS.indexOf(b.sight) - SIGHTS.indexOf(a.sight)),
  };
}
