import type { Translation } from '@zonal/core/texts';
import type { en } from '../en/times';

export const de: Translation<typeof en> = {
  never: 'wahrscheinlich nie',
  by: 'bis {time}',
  seconds: '{count} s',
  minutes: '{count} min',
  hours: '{count, number} h',
  days: '{count, plural, =1 {1 Tag} other {# Tage}}',
  now: 'jetzt',
  percent: '{share} %',
  readers: '{count, plural, one {# Abo} other {# Abos}}',
};
