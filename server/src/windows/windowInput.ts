import { AUDIENCES, COLOURS, DUE_FORMS, GLASSES, ROUNDINGS } from '@zonal/core/glass';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { IsZone } from '../http/inputs';

export class SourceInput {
  @IsUUID() calendarId!: string;
  @IsIn(GLASSES) glass!: (typeof GLASSES)[number];
}

export class HorizonInput {
  @IsInt() @Min(0) @Max(1830) pastDays!: number;
  @IsInt() @Min(0) @Max(1830) nextDays!: number;
}

export class SwitchesInput {
  @IsBoolean() joinLink!: boolean;
  @IsBoolean() people!: boolean;
  @IsBoolean() contact!: boolean;
}

export class WindowInput {
  @IsString() @MinLength(1) @MaxLength(120) name!: string;
  @IsString() @MaxLength(2000) description!: string;
  @IsIn(COLOURS) colour!: (typeof COLOURS)[number];
  @IsString() @MinLength(1) @MaxLength(60) busyWord!: string;
  @IsIn(DUE_FORMS) dueAs!: (typeof DUE_FORMS)[number];
  @IsZone() hostZone!: string;
  @IsDefined() @ValidateNested() @Type(() => HorizonInput) horizon!: HorizonInput;
  @IsIn(ROUNDINGS) rounding!: (typeof ROUNDINGS)[number];
  @IsBoolean() tellTentative!: boolean;
  @IsDefined() @ValidateNested() @Type(() => SwitchesInput) switches!: SwitchesInput;
  @IsBoolean() listed!: boolean;
  @ArrayMinSize(1)
  @ArrayMaxSize(100)
  @ArrayUnique((s: SourceInput) => s.calendarId)
  @ValidateNested({ each: true })
  @Type(() => SourceInput)
  sources!: SourceInput[];
  /** Audience of the first key; only when the window is new. */
  @IsOptional() @IsIn(AUDIENCES) audience?: (typeof AUDIENCES)[number];
  /** The version that was changed; left out when the window is new. */
  @IsOptional() @IsInt() version?: number;
}
