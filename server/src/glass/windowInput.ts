import {
  AUDIENCES,
  COLOURS,
  CUT_FIELDS,
  DEMANDS,
  DUE_FORMS,
  LETTING_GO,
  PUBLIC_ADDRESS_GRACE_DAYS,
  REMINDERS,
  FIRST_VIEWS,
  ROUNDINGS,
  SOURCE_GLASSES,
  WINDOW_LIMITS,
} from '@zonal/core/glass';
import type * as Window from '@zonal/core/glass';
import {
  ArrayUnique,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
} from 'class-validator';
import { IsDay, IsInstant, IsVersion, IsZone, Part, Parts } from '../http/inputs';
import { LabelHoldInput } from '../http/labelHoldInput';

const LANGUAGE = /^$|^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/;

export class SourceInput {
  @IsUUID() calendarId!: string;
  @IsIn(SOURCE_GLASSES) glass!: (typeof SOURCE_GLASSES)[number];
  /** Fields that go out where the glass is cut. */
  @IsIn(CUT_FIELDS, { each: true }) @ArrayUnique() fields!: (typeof CUT_FIELDS)[number][];
  /** The calendar's name as outsiders may read it in titles. */
  @IsString() @MaxLength(WINDOW_LIMITS.nameLetters) as!: string;
}

export class HorizonInput {
  @IsIn(['rolling', 'fixed']) kind!: 'rolling' | 'fixed';
  @ValidateIf((h: HorizonInput) => h.kind === 'rolling')
  @IsInt()
  @Min(0)
  @Max(WINDOW_LIMITS.rollingDays)
  pastDays!: number;
  @ValidateIf((h: HorizonInput) => h.kind === 'rolling')
  @IsInt()
  @Min(0)
  @Max(WINDOW_LIMITS.rollingDays)
  nextDays!: number;
  @ValidateIf((h: HorizonInput) => h.kind === 'fixed') @IsDay() from!: string;
  @ValidateIf((h: HorizonInput) => h.kind === 'fixed') @IsDay() to!: string;
}

export class SwitchesInput {
  @IsBoolean() joinLink!: boolean;
  @IsBoolean() people!: boolean;
  @IsBoolean() contact!: boolean;
  /** Whether milestones tell when they were planned for, and so their slip. */
  @IsBoolean() planned!: boolean;
}

export class IncludeInput {
  @IsBoolean() free!: boolean;
  @IsBoolean() cancelled!: boolean;
  @IsBoolean() tentative!: boolean;
}

export class WordingTextInput {
  @IsString() @Matches(LANGUAGE) @MinLength(2) @MaxLength(WINDOW_LIMITS.languageLetters) language!: string;
  @IsString() @MinLength(1) @MaxLength(WINDOW_LIMITS.nameLetters) name!: string;
  @IsString() @MaxLength(WINDOW_LIMITS.descriptionLetters) description!: string;
  @IsString() @MaxLength(WINDOW_LIMITS.nameLetters) topic!: string;
}

export class ClosingInput {
  /** An instant (ISO 8601 with a zone); null to stay open. */
  @IsOptional() @IsInstant() at!: string | null;
  @IsBoolean() farewell!: boolean;
  /** What was set before. */
  @IsOptional() @IsInstant() was!: string | null;
}

export class WindowInput implements Window.WindowInput {
  @IsString() @MinLength(1) @MaxLength(WINDOW_LIMITS.nameLetters) name!: string;
  @IsString() @MaxLength(WINDOW_LIMITS.descriptionLetters) description!: string;
  /** A language tag (RFC 5646) of name and description, or empty. */
  @IsString() @Matches(LANGUAGE) @MaxLength(WINDOW_LIMITS.languageLetters) language!: string;
  @IsString() @MaxLength(WINDOW_LIMITS.nameLetters) topic!: string;
  /** The place that it is about; empty, or left out, where none is named. */
  @IsOptional() @IsString() @MaxLength(WINDOW_LIMITS.nameLetters) place!: string;
  @IsString() @MaxLength(WINDOW_LIMITS.contactLetters) contact!: string;
  @ArrayUnique((t: WordingTextInput) => t?.language)
  @Parts(() => WordingTextInput, WINDOW_LIMITS.translations)
  translations!: WordingTextInput[];
  @IsIn(COLOURS) colour!: (typeof COLOURS)[number];
  @IsString() @MinLength(1) @MaxLength(WINDOW_LIMITS.busyWordLetters) busyWord!: string;
  @IsIn(DUE_FORMS) dueAs!: (typeof DUE_FORMS)[number];
  /** Minutes before timed entries at which programs are told to remind; 0, or left out, for never. */
  @IsOptional() @IsIn(REMINDERS) remind!: number;
  /** For how many days feeds tell that something has left. */
  @IsOptional() @IsIn(LETTING_GO) lettingGo!: number;
  /** Whether readers may leave a mail address to hear of changes; where it is left out, they may. */
  @IsOptional() @IsBoolean() notices!: boolean;
  @IsString() @MinLength(1) @MaxLength(WINDOW_LIMITS.patternLetters) titlePattern!: string;
  @IsZone() hostZone!: string;
  @Part(() => HorizonInput) horizon!: HorizonInput;
  /** See Filter in core; null takes everything. */
  @IsOptional() @IsObject() filter!: Window.Filter | null;
  @Part(() => IncludeInput) include!: IncludeInput;
  @ArrayUnique((h: LabelHoldInput) => h?.label)
  @Parts(() => LabelHoldInput, WINDOW_LIMITS.labelHolds)
  labelHolds!: LabelHoldInput[];
  @IsIn(ROUNDINGS) rounding!: (typeof ROUNDINGS)[number];
  @IsBoolean() tellTentative!: boolean;
  @Part(() => SwitchesInput) switches!: SwitchesInput;
  /** Whether readers see which calendar an entry is from; left out for no. */
  @IsOptional() @IsBoolean() namesCalendars!: boolean;
  /** What its page shows first; left out for the month, or the list where the month is nearly over. */
  @IsOptional() @IsIn(FIRST_VIEWS) firstView!: (typeof FIRST_VIEWS)[number];
  @IsBoolean() listed!: boolean;
  /** For how many days its public address goes on after it is unlisted. */
  @IsOptional() @IsIn(PUBLIC_ADDRESS_GRACE_DAYS) publicGraceDays!: number;
  @ArrayUnique((s: SourceInput) => s?.calendarId)
  @Parts(() => SourceInput, 1000)
  sources!: SourceInput[];
  /** Audience of the first key; only when the window is new. */
  @IsOptional() @IsIn(AUDIENCES) audience?: (typeof AUDIENCES)[number];
  /** The version that was changed; left out when the window is new. */
  @IsOptional() @IsVersion() version?: number;
  /** Large effects that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: (typeof DEMANDS)[number][];
}

/** A window as it is being worked on: what was typed is kept, and is checked when it is shown outside; see unfitIn. */
export class DraftInput {
  @IsObject() body!: Partial<Window.WindowInput>;
  /** The version of the draft that was changed; 0 where there was none. */
  @IsVersion() version!: number;
}

export class ScheduleInput {
  /** When the draft is to be shown by itself; null for not. */
  @IsOptional() @IsInstant() at!: string | null;
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: (typeof DEMANDS)[number][];
}
