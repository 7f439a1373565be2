import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsBoolean,
  IsDefined,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { EntryInput } from '../entries/entryInput';

/** Changes that may come in one request; a staged edit can have many requests. */
export const MOST_AT_ONCE = 500;

export class ImportedInput {
  @IsString() @MaxLength(64) print!: string;
  @IsInt() sequence!: number;
}

/** What is to become of one entry. */
export class ChangeInput {
  /** Left out for a new entry. */
  @IsOptional() @IsUUID() id?: string;
  /** The version that was seen; 0 for a new entry. */
  @IsInt() @Min(0) version!: number;
  /** The calendar that it is to be in. */
  @IsUUID() calendarId!: string;
  /** Its identifier in files; a new entry without one gets one. */
  @IsOptional() @IsString() @MaxLength(1000) uid?: string;
  /** Left out to delete the entry. */
  @IsOptional() @ValidateNested() @Type(() => EntryInput) entry?: EntryInput | null;
  /** The entry that a new one was a part of until now: outside they stay one. Worked out where it is left out. */
  @IsOptional() @IsUUID() continues?: string;
  /** What is remembered of the file that it comes from. */
  @IsOptional() @ValidateNested() @Type(() => ImportedInput) imported?: ImportedInput | null;
}

export class ChangesInput {
  @IsDefined()
  @ArrayMaxSize(MOST_AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => ChangeInput)
  changes!: ChangeInput[];
}

export class EditInput extends ChangesInput {
  /** What the change is called where it can be taken back, such as “Moved Saturday market”. */
  @IsString() @MinLength(1) @MaxLength(300) label!: string;
  /** Whether more changes follow before it is applied. */
  @IsOptional() @IsBoolean() staged?: boolean;
}
