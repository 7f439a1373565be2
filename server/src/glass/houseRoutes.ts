import type { House } from '@zonal/core/api';
import { PROPERTY_KINDS } from '@zonal/core/entries';
import { NOTHING_WATCHED } from '@zonal/core/glass';
import { KEPT_DAYS } from '@zonal/core/reach';
import { Problem } from '@zonal/core/problems';
import type { HouseRights } from '@zonal/core/rights';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsFQDN,
  IsIn,
  IsOptional,
  IsString,
  MaxLength,
  MinLength,
} from 'class-validator';
import type { MakeChange } from '../db/changes';
import { HouseRow } from '../db/models';
import { IsVersion, IsZone, Parts } from '../http/inputs';
import { route, type Call } from '../http/route';
import { windowIdsOn } from './publishWindow';
import { houseWatch } from './requireConfirmed';

export class PropertyInput {
  @IsString() @MinLength(1) @MaxLength(120) name!: string;
  @IsIn(PROPERTY_KINDS) kind!: (typeof PROPERTY_KINDS)[number];
  @IsString({ each: true }) @MaxLength(200, { each: true }) @ArrayMaxSize(200) choices!: string[];
}

export class HouseInput {
  @IsString() @MaxLength(200) name!: string;
  /** The zone that calendars are expected to be in. */
  @IsZone() zone!: string;
  /** Country (ISO 3166-1) and region of the public holidays, or empty. */
  @IsString() @MaxLength(10) country!: string;
  @IsString() @MaxLength(10) region!: string;
  @ArrayUnique((p: PropertyInput) => p?.name)
  @Parts(() => PropertyInput, 50)
  properties!: PropertyInput[];
  /** Words that must not go out unnoticed. */
  @IsString({ each: true })
  @MinLength(2, { each: true })
  @MaxLength(120, { each: true })
  @ArrayMaxSize(200)
  watchWords!: string[];
  /** Mail addresses and telephone numbers that are no sensitive matter. */
  @IsOptional()
  @IsString({ each: true })
  @MinLength(3, { each: true })
  @MaxLength(254, { each: true })
  @ArrayMaxSize(200)
  publicContacts?: string[];
  /** Domains of the house's own mail addresses. */
  @IsOptional()
  @IsFQDN({}, { each: true })
  @ArrayMaxSize(50)
  mailDomains?: string[];
  /** For how many days polls are kept one by one. */
  @IsOptional() @IsIn(KEPT_DAYS) pollDays?: number;
  @IsVersion() version!: number;
}

/** What must not go out unnoticed concerns those who let something out. */
const publishes = (rights: HouseRights) => rights.steward || rights.calendarsFor('publish').length > 0;

async function answer({ rights }: Pick<Call, 'rights'>): Promise<House> {
  const row = (await HouseRow.findByPk(1))!;
  const { name, zone, country, region, properties, mailDomains, pollDays, version } = row;
  const { watchWords, publicContacts } = publishes(rights) ? row : { watchWords: [], publicContacts: [] };
  return {
    ...{ name, zone, country, region, properties },
    ...{ watchWords, publicContacts, mailDomains, pollDays, version },
  };
}

/** A property that goes away breaks filters that name it. */
export const houseRoutes = (change: MakeChange) => [
  route('GET /house', {
    tag: 'House',
    summary: 'The organisation: its zone, its country and its own properties of entries',
    handle: answer,
  }),
  route('GET /house/watch', {
    tag: 'House',
    summary:
      'What is reported before it goes out: the names of the people with an account and the house’s sensitive words; not its public addresses',
    handle: async ({ rights }) => {
      const watch = await houseWatch();
      return publishes(rights) ? watch : { ...NOTHING_WATCHED, country: watch.country };
    },
  }),
  route('PUT /house', {
    tag: 'House',
    summary: 'Change the organisation; for stewards',
    body: HouseInput,
    again: answer,
    handle: async ({ body, user, rights }) => {
      for (const { name, kind, choices } of body.properties) {
        if (kind === 'choice' && !choices.length) throw new Problem('choices-missing', { name });
      }
      const { version, ...rest } = body;
      const changed = await change(user.id, async (transaction) => {
        const columns = { ...rest, version: version + 1 };
        const [count] = await HouseRow.update(columns, { where: { id: 1, version }, transaction });
        const windows = count ? await windowIdsOn(null, transaction) : [];
        return { result: count, touched: windows.map((windowId) => ({ windowId })) };
      });
      if (!changed) throw new Problem('version-conflict', { current: await answer({ rights }), yours: body });
      return answer({ rights });
    },
  }),
];
