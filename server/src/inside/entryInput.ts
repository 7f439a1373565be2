import {
  ENTRY_LIMITS,
  HOLDS,
  KINDS,
  SHOWS,
  STATUSES,
  type Attachment,
  type KeptProperty,
  type Person,
  type PropertyValue,
  type When,
} from '@zonal/core/entries';
import { ArrayMaxSize, IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { AreKept, IsVersion, IsWhen, Part, Parts, Records } from '../http/inputs';

export class RecurrenceInput {
  /** An RRULE value (RFC 5545 section 3.3.10), or empty. */
  @IsString() @MaxLength(1000) rule!: string;
  @IsWhen({ each: true }) dates!: When[];
  @IsWhen({ each: true }) exceptDates!: When[];
}

export class ContentInput {
  @IsIn(KINDS) kind!: (typeof KINDS)[number];
  /** When a milestone was planned for; null for everything else. */
  @IsOptional() @IsWhen() planned!: When | null;
  @IsString() @MaxLength(500) title!: string;
  @IsString() @MaxLength(500) place!: string;
  @IsString() @MaxLength(ENTRY_LIMITS.letters) description!: string;
  @IsString() @MaxLength(2000) publicLink!: string;
  @IsString() @MaxLength(2000) joinLink!: string;
  @IsString({ each: true })
  @MaxLength(200, { each: true })
  @ArrayMaxSize(ENTRY_LIMITS.labels)
  labels!: string[];
  @Records(
    { name: { text: 300 }, address: { text: 300 }, group: { flag: true, optional: true } },
    ENTRY_LIMITS.people,
  )
  people!: Person[];
  @IsString() @MaxLength(500) contact!: string;
  @Records({ name: { text: 300 }, href: { text: 2000 } }, ENTRY_LIMITS.attachments)
  attachments!: Attachment[];
  @IsIn(STATUSES) status!: (typeof STATUSES)[number];
  @IsIn(SHOWS) shows!: (typeof SHOWS)[number];
  @IsIn(HOLDS) hold!: (typeof HOLDS)[number];
  /** Values of the house's own properties. */
  @Records({ name: { text: 120, least: 1 }, value: { text: 2000 } }, ENTRY_LIMITS.properties)
  properties!: PropertyValue[];
  /** Properties of the file it came from that have no field here; give them back as they were. */
  @AreKept(ENTRY_LIMITS.kept) kept!: KeptProperty[];
}

export class OverrideInput {
  @IsWhen() slot!: When;
  @IsWhen() start!: When;
  @IsWhen() end!: When;
  @Part(() => ContentInput) content!: ContentInput;
}

export class EntryInput extends ContentInput {
  @IsWhen() start!: When;
  @IsWhen() end!: When;
  @IsOptional() @Part(() => RecurrenceInput) recurrence!: RecurrenceInput | null;
  @Parts(() => OverrideInput, ENTRY_LIMITS.overrides) overrides!: OverrideInput[];
  /** The version that was changed; left out when the entry is new. */
  @IsOptional() @IsVersion() version?: number;
  /** As answers give it; it is kept by itself, whatever is sent. */
  @IsOptional() @IsString() @MaxLength(64) lineage?: string | null;
}
