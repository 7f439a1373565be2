import { WINDOW_LIMITS } from '@zonal/core/glass';
import { IsIn, IsString, MaxLength, MinLength } from 'class-validator';

/** A label, and what becomes of entries that bear it. */
export class LabelHoldInput {
  @IsString() @MinLength(1) @MaxLength(WINDOW_LIMITS.labelLetters) label!: string;
  @IsIn(['frost', 'keep-in']) hold!: 'frost' | 'keep-in';
}
