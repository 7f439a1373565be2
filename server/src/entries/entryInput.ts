import { HOLDS, KINDS, SHOWS, STATUSES, type KeptProperty, type When } from '@zonal/core/entries';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { IsWhen } from '../http/inputs';

const LONG = 50_000;

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
  @IsString() @MaxLength(LONG) description!: string;
  @IsString() @MaxLength(2000) publicLink!: string;
  @IsString() @MaxLength(2000) joinLink!: string;
  @IsString({ each: true }) @MaxLength(200, { each: true }) @ArrayMaxSize(100) labels!: string[];
  @ValidateNested({ each: true }) @Type(() => PersonInput) @ArrayMaxSize(1000) people!: PersonInput[];
  @IsString() @MaxLength(500) contact!: string;
  @ValidateNested({ each: true })
  @Type(() => AttachmentInput)
  @ArrayMaxSize(100)
  attachments!: AttachmentInput[];
  @IsIn(STATUSES) status!: (typeof STATUSES)[number];
  @IsIn(SHOWS) shows!: (typeof SHOWS)[number];
  @IsIn(HOLDS) hold!: (typeof HOLDS)[number];
  /** Values of the house's own properties. */
  @ValidateNested({ each: true })
  @Type(() => PropertyValueInput)
  @ArrayMaxSize(100)
  properties!: PropertyValueInput[];
  /** Properties of the file it came from that have no field here; give them back as they were. */
  @IsArray() @ArrayMaxSize(500) kept!: KeptProperty[];
}

export class OverrideInput {
  @IsWhen() slot!: When;
  @IsWhen() start!: When;
  @IsWhen() end!: When;
  @IsDefined() @ValidateNested() @Type(() => ContentInput) content!: ContentInput;
}

export class EntryInput extends ContentInput {
  @IsWhen() start!: When;
  @IsWhen() end!: When;
  @IsOptional() @ValidateNested() @Type(() => RecurrenceInput) recurrence!: RecurrenceInput | null;
  @ValidateNested({ each: true }) @Type(() => OverrideInput) @ArrayMaxSize(2000) overrides!: OverrideInput[];
  /** The version that was changed; left out when the entry is new. */
  @IsOptional() @IsInt() version?: number;
  /** As answers give it; it is kept by itself, whatever is sent. */
  @IsOptional() @IsString() @MaxLength(64) lineage?: string | null;
}
