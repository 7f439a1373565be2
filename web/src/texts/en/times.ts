export const en = {
  never: 'probably never',
  by: 'by {time}',
  seconds: '{count} s',
  minutes: '{count} min',
  hours: '{count, number} h',
  days: '{count, plural, =1 {1 day} other {# days}}',
  now: 'now',
  percent: '{share} %',
  readers: '{count, plural, one {# reader} other {# readers}}',
} as const;
