import {
  ENTRY_LIMITS,
  HOLDS,
  KINDS,
  SHOWS,
  STATUSES,
  type KeptProperty,
  type When,
} from '@zonal/core/entries';
import { ArrayMaxSize, IsBoolean, IsIn, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import { AreKept, IsVersion, IsWhen, Part, Parts } from '../http/inputs';

export class PersonInput {
  @IsString() @MaxLength(300) name!: string;
  @IsString() @MaxLength(300) address!: string;
  @IsOptional() @IsBoolean() group?: boolean;
}

export class AttachmentInput {
  @IsString() @MaxLength(300) name!: string;
  @IsString() @MaxLength(2000) href!: string;
}

export class PropertyValueInput {
  @IsString() @MinLength(1) @MaxLength(120) name!: string;
  @IsString() @MaxLength(2000) value!: string;
}

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
  @Parts(() => PersonInput, ENTRY_LIMITS.people) people!: PersonInput[];
  @IsString() @MaxLength(500) contact!: string;
  @Parts(() => AttachmentInput, ENTRY_LIMITS.attachments)
  attachments!: AttachmentInput[];
  @IsIn(STATUSES) status!: (typeof STATUSES)[number];
  @IsIn(SHOWS) shows!: (typeof SHOWS)[number];
  @IsIn(HOLDS) hold!: (typeof HOLDS)[number];
  /** Values of the house's own properties. */
  @Parts(() => PropertyValueInput, ENTRY_LIMITS.properties)
  properties!: PropertyValueInput[];
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
