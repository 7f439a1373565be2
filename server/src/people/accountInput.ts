import { PASSWORD_LIMITS, STANDINGS, INVITATION_LIMITS, type Standing } from '@zonal/core/rights';
import { GLASSES, type Glass } from '@zonal/core/glass';
import { Transform } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsBoolean,
  IsEmail,
  IsIn,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  MaxLength,
  MinLength,
} from 'class-validator';
import { IsVersion, IsZone, Parts } from '../http/inputs';
import { INSIDE_LANGUAGES, type InsideLanguage } from '@zonal/core/texts';

const NAME_LETTERS = 120;
const lower = ({ value }: { value: unknown }) =>
  typeof value === 'string' ? value.trim().toLowerCase() : value;
const lowerAll = ({ value }: { value: unknown }) =>
  Array.isArray(value) ? value.map((one: unknown) => lower({ value: one })) : value;
const trimmed = ({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value);

export class PassInput {
  @IsString() @Length(1, 200) token!: string;
}

export class Acceptance extends PassInput {
  @Transform(trimmed) @IsString() @Length(1, NAME_LETTERS) name!: string;
  @IsString() @MaxLength(PASSWORD_LIMITS.most) password!: string;
}

export class FirstSteward extends Acceptance {
  @Transform(lower) @IsEmail() @MaxLength(200) email!: string;
  @Transform(trimmed) @IsString() @Length(1, 200) house!: string;
  @IsZone() zone!: string;
  /** ISO 3166-1, or empty. */
  @IsString() @MaxLength(10) country!: string;
}

export class NewPassword extends PassInput {
  @IsString() @MaxLength(PASSWORD_LIMITS.most) password!: string;
}

export class ForgottenInput {
  @Transform(lower) @IsEmail() @MaxLength(200) email!: string;
}

export class AccountInput {
  @Transform(trimmed) @IsString() @Length(1, NAME_LETTERS) name!: string;
  /** Null for the language of the browser; if it is missing, the language stays as it is. */
  @IsOptional() @IsIn(INSIDE_LANGUAGES) language?: InsideLanguage | null;
}

export class PasswordInput {
  /** The one that there is. */
  @IsString() @MinLength(1) @MaxLength(PASSWORD_LIMITS.most) password!: string;
  @IsString() @MaxLength(PASSWORD_LIMITS.most) next!: string;
}

export class AddressInput {
  @Transform(lower) @IsEmail() @MaxLength(200) email!: string;
  @IsString() @MinLength(1) @MaxLength(PASSWORD_LIMITS.most) password!: string;
}

export class StewardInput {
  @IsBoolean() steward!: boolean;
}

export class RestInput {
  @IsBoolean() rested!: boolean;
}

export class ToCalendarInput {
  @IsUUID() calendarId!: string;
  @IsIn(STANDINGS) standing!: Standing;
  /** Of a reader; null for those who see everything. */
  @IsOptional() @IsIn(GLASSES) glass!: Glass | null;
}

export class InvitationInput {
  @IsBoolean() steward!: boolean;
  @ArrayUnique((s: ToCalendarInput) => s?.calendarId)
  @Parts(() => ToCalendarInput, INVITATION_LIMITS.standings)
  standings!: ToCalendarInput[];
  /** The version that was seen. */
  @IsVersion() version!: number;
}

export class InvitationsInput {
  @Transform(lowerAll)
  @ArrayMinSize(1)
  @ArrayMaxSize(INVITATION_LIMITS.atOnce)
  @ArrayUnique()
  @IsEmail({}, { each: true })
  @MaxLength(200, { each: true })
  emails!: string[];
  @IsBoolean() steward!: boolean;
  @ArrayUnique((s: ToCalendarInput) => s?.calendarId)
  @Parts(() => ToCalendarInput, INVITATION_LIMITS.standings)
  standings!: ToCalendarInput[];
}
