import { REZONES } from '@zonal/core/entries';
import { COLOURS, PLATE_PATTERNS, PLATE_SHAPES } from '@zonal/core/glass';
import {
  IsBoolean,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import { IsVersion, IsZone } from '../http/inputs';

export class CalendarInput {
  @IsString() @MinLength(1) @MaxLength(120) name!: string;
  @IsString() @MaxLength(2000) description!: string;
  @IsZone() zone!: string;
  /** Two or three letters by which the calendar is told apart. */
  @Matches(/^[A-Z0-9]{2,3}$/, { message: 'plate must be two or three capital letters or digits' })
  plate!: string;
  @IsIn(COLOURS) colour!: (typeof COLOURS)[number];
  @IsOptional() @IsIn(PLATE_SHAPES) shape?: (typeof PLATE_SHAPES)[number];
  @IsOptional() @IsIn(PLATE_PATTERNS) pattern?: (typeof PLATE_PATTERNS)[number];
  /** Name of its home place. */
  @IsOptional() @IsString() @MaxLength(200) place?: string;
  /** Degrees; north and east are positive. Both or none. */
  @IsOptional() @IsNumber() @Min(-90) @Max(90) latitude?: number | null;
  @IsOptional() @IsNumber() @Min(-180) @Max(180) longitude?: number | null;
  /** The version that was changed; left out when the calendar is new. */
  @IsOptional() @IsVersion() version?: number;
}

export class ArchiveInput {
  @IsBoolean() archived!: boolean;
}

export class ZoneInput {
  @IsZone() zone!: string;
  /** What the entries keep: what clocks show, or the moment itself. */
  @IsIn(REZONES) keep!: (typeof REZONES)[number];
}
