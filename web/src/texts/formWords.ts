import * as entries from '@zonal/core/entries';
import * as forms from '@zonal/core/forms';
import { LANGUAGE } from './language';

/* Days, times, fields and reasons in the language of the page. The names are those of the core. */

export const fieldText = (field: Parameters<typeof forms.fieldText>[0], value: unknown) =>
  forms.fieldText(field, value, LANGUAGE);
export const dayText = (day: number) => forms.dayText(day, LANGUAGE);
export const monthText = (day: number) => forms.monthText(day, LANGUAGE);
export const whenWords = (when: entries.When, on?: string) => forms.whenWords(when, on, LANGUAGE);
export const spanWords = (span: Parameters<typeof forms.spanWords>[0], on?: string) =>
  forms.spanWords(span, on, LANGUAGE);
export const slipText = (slip: entries.Slip) => forms.slipText(slip, LANGUAGE);
export const clockChangeText = (zone: string, now: number) => forms.clockChangeText(zone, now, LANGUAGE);
export const reasonWords = (reasons: Parameters<typeof forms.reasonWords>[0]) =>
  forms.reasonWords(reasons, LANGUAGE);
