import {
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import { EntryInput } from './entryInput';
import { IsVersion, Part, Parts } from '../http/inputs';

/** Changes that may come in one request; a staged edit can have many requests. */
export const MOST_AT_ONCE = 500;

export class ImportedInput {
  @IsString() @MaxLength(64) print!: string;
  @IsInt() @Min(0) @Max(2_000_000_000) sequence!: number;
}

/** What is to become of one entry. */
export class ChangeInput {
  /** Left out for a new entry. */
  @IsOptional() @IsUUID() id?: string;
  /** The version that was seen; 0 for a new entry. */
  @IsVersion() version!: number;
  /** The calendar that it is to be in. */
  @IsUUID() calendarId!: string;
  /** Its identifier in files; a new entry without one gets one. */
  @IsOptional() @IsString() @MaxLength(1000) uid?: string;
  /** Left out to delete the entry. */
  @IsOptional() @Part(() => EntryInput) entry?: EntryInput | null;
  /** The entry that a new one was a part of until now: outside they stay one. Worked out where it is left out. */
  @IsOptional() @IsUUID() continues?: string;
  /** What is remembered of the file that it comes from. */
  @IsOptional() @Part(() => ImportedInput) imported?: ImportedInput | null;
}

export class ChangesInput {
  @Parts(() => ChangeInput, MOST_AT_ONCE)
  changes!: ChangeInput[];
}

export class EditInput extends ChangesInput {
  /** What the change is called where it can be taken back, such as “Moved Saturday market”. */
  @IsString() @MinLength(1) @MaxLength(300) label!: string;
  /** Whether more changes follow before it is applied. */
  @IsOptional() @IsBoolean() staged?: boolean;
}
