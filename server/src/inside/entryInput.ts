import {
  CONTENT_FIELDS,
  ENTRY_FIELDS,
  ENTRY_LIMITS,
  type Content,
  type Shape,
  type When,
} from '@zonal/core/entries';
import { ArrayMaxSize, IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { AreKept, IsStoredImage, IsVersion, IsWhen, Part, Parts, Records } from '../http/inputs';

export class RecurrenceInput {
  /** An RRULE value (RFC 5545 section 3.3.10), or empty. */
  @IsString() @MaxLength(1000) rule!: string;
  @IsWhen({ each: true }) dates!: When[];
  @IsWhen({ each: true }) exceptDates!: When[];
}

/** What a value of each shape must be, and how much of it there can be. */
const SHAPE_CHECKS: Readonly<Record<Shape, () => PropertyDecorator[]>> = {
  line: () => [IsString(), MaxLength(ENTRY_LIMITS.lineLetters)],
  text: () => [IsString(), MaxLength(ENTRY_LIMITS.letters)],
  link: () => [IsString(), MaxLength(ENTRY_LIMITS.linkLetters)],
  choice: () => [],
  labels: () => [
    IsString({ each: true }),
    MaxLength(ENTRY_LIMITS.labelLetters, { each: true }),
    ArrayMaxSize(ENTRY_LIMITS.labels),
  ],
  people: () => [
    Records(
      {
        name: { text: ENTRY_LIMITS.nameLetters },
        address: { text: ENTRY_LIMITS.nameLetters },
        group: { flag: true, optional: true },
      },
      ENTRY_LIMITS.people,
    ),
  ],
  attachments: () => [
    Records(
      { name: { text: ENTRY_LIMITS.nameLetters }, href: { text: ENTRY_LIMITS.linkLetters } },
      ENTRY_LIMITS.attachments,
    ),
  ],
  properties: () => [
    Records(
      {
        name: { text: ENTRY_LIMITS.propertyNameLetters, least: 1 },
        value: { text: ENTRY_LIMITS.propertyLetters },
      },
      ENTRY_LIMITS.properties,
    ),
  ],
  image: () => [IsOptional(), IsStoredImage()],
  moment: () => [IsOptional(), IsWhen()],
  kept: () => [AreKept(ENTRY_LIMITS.kept)],
};

/** The content of an entry: each field is checked by what its home in core says of it. */
export const ContentInput = class ContentInput {} as new () => Content;
export type ContentInput = Content;

for (const field of CONTENT_FIELDS) {
  const home = ENTRY_FIELDS[field];
  const own = home.shape === 'choice' ? [IsIn(Object.keys(home.of))] : SHAPE_CHECKS[home.shape]();
  for (const check of [...own, ...(home.later ? [IsOptional()] : [])]) check(ContentInput.prototype, field);
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
