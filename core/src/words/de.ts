import type { Translation } from '../texts/message';
import type { en } from './en';

export const de: Translation<typeof en> = {
  span: '{from} bis {to}',
  notOn: 'nicht am {days}',
  yes: 'ja',
  no: 'nein',

  everyYEARLY: '{interval, plural, =1 {jedes Jahr} other {alle # Jahre}}',
  everyMONTHLY: '{interval, plural, =1 {jeden Monat} other {alle # Monate}}',
  everyWEEKLY: '{interval, plural, =1 {jede Woche} other {alle # Wochen}}',
  everyDAILY: '{interval, plural, =1 {jeden Tag} other {alle # Tage}}',
  everyHOURLY: '{interval, plural, =1 {jede Stunde} other {alle # Stunden}}',
  everyMINUTELY: '{interval, plural, =1 {jede Minute} other {alle # Minuten}}',
  everySECONDLY: '{interval, plural, =1 {jede Sekunde} other {alle # Sekunden}}',
  inMonths: 'im {months}',
  inWeeks: 'in Woche {weeks}',
  onYearDays: 'am Tag {days} des Jahres',
  onMonthDays: 'am Tag {days} des Monats',
  onWeekdays: 'am {days}',
  atHours: 'zur Stunde {hours}',
  atMinutes: 'zur Minute {minutes}',
  atSeconds: 'zur Sekunde {seconds}',
  onlyYEARLY: 'davon nur den {positions} in jedem Jahr',
  onlyMONTHLY: 'davon nur den {positions} in jedem Monat',
  onlyWEEKLY: 'davon nur den {positions} in jeder Woche',
  onlyDAILY: 'davon nur den {positions} an jedem Tag',
  onlyHOURLY: 'davon nur den {positions} in jeder Stunde',
  onlyMINUTELY: 'davon nur den {positions} in jeder Minute',
  onlySECONDLY: 'davon nur den {positions} in jeder Sekunde',
  weeksStart: '(Wochen beginnen am {weekday})',
  timesInAll: ', {count, plural, one {#-mal} other {#-mal}}',
  until: ', bis {day}',
  nthWeekday: '{nth} {weekday}',
  nth: '{number}.',
  nthLast: '{number}.-letzten',
  last: 'letzten',
  fromTheEnd: '{number} vom Ende',
  and: '{first} und {last}',
  or: '{first} oder {last}',
  andWord: 'und',
  orWord: 'oder',

  fromCalendar: 'aus „{name}“',
  withLabel: 'mit Etikett „{label}“',
  withPerson: 'mit „{person}“',
  withStatus: 'mit Status {status}',
  withText: 'mit dem Text „{text}“',
  withProperty: 'deren {name} „{value}“ {test}',
  not: 'nicht {condition}',

  alertFailing: 'Was von „{window}“ zu sehen sein soll, lässt sich nicht berechnen: {reason}',
  alertPush:
    'Pushes an das System von {key} („{window}“) wurden eingestellt: Mehrere Versuche sind gescheitert, oder das System will sie nicht mehr.',
  alertSilent:
    '{readers, plural, one {# Person mit dem Schlüssel {key} von „{window}“ meldet} other {# Personen mit dem Schlüssel {key} von „{window}“ melden}} sich nicht mehr.',
  alertShared:
    '{readers, plural, one {# Person hat} other {# Personen haben}} in dieser Woche den Schlüssel {key} von „{window}“ benutzt; erwartet waren {expected}. Die Adresse wurde wahrscheinlich weitergegeben.',
  alertLate:
    '{count} von {readers, plural, one {# Person} other {# Personen}} haben die dringende Änderung von „{window}“ noch nicht.',
  alertSlow:
    'Nur {count} von {readers, plural, one {# Person} other {# Personen}} dürften die dringende Änderung von „{window}“ rechtzeitig kennen.',

  passwordShort: 'Ein Passwort hat mindestens {least} Zeichen. Drei oder vier Wörter ergeben ein gutes.',
  passwordLong: 'Ein Passwort hat höchstens {most} Zeichen.',
  passwordSimple:
    'Dieses Passwort wiederholt dieselben wenigen Zeichen. Wählen Sie eines, das schwerer zu erraten ist.',
  passwordPersonal:
    'Dieses Passwort ist kaum mehr als Ihr Name oder Ihre Adresse. Wählen Sie eines, das schwerer zu erraten ist.',

  seeThrough: '„{calendar}“ zu sehen ({glass})',
  beEditor: '„{calendar}“ bearbeiten zu dürfen',
  bePublisher: '„{calendar}“ herausgeben zu dürfen',
  roleOf: '{role}: {calendar}',
  roleThrough: '{role} ({glass})',
  raiseHouse: 'die Obergrenze des ganzen Hauses für {audience} auf {glass} zu erhöhen',
  raiseCalendar: 'die Obergrenze von „{calendar}“ für {audience} auf {glass} zu erhöhen',

  limit: '{limit}: {glass}',
  limitDecides: '{limit}: {glass} (entscheidet)',
  limitOfLabel: '{limit} „{label}“',
  asRole: 'durch die Rolle {role}',
  asSteward: 'als Verwaltung',
  glassByName: 'namentlich gegebenes Glas',
  glassOfHouse: 'Glas des ganzen Hauses',
};
