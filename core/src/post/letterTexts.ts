import { textsByLanguage } from '../texts/readMessages';

/** What mails to people of the house say, as ICU messages. */
const en = {
  house: 'your organisation',
  unasked:
    'If you did not ask for this, ignore this mail: nothing changes unless the address above is opened.',
  worksOnce:
    'This address works once, and only for the next {minutes, plural, one {# minute} other {# minutes}}.',

  invitationSubject: 'You are invited to the calendars of {house}',
  invitation: '{by} invites you to the calendars of {house}.',
  invitationRights: 'Your rights there:',
  invitationAccept: 'Accept, and choose a name and a password',
  invitationEnds:
    'This address works once, until {ends}. If you do not know what this is about, ignore this mail.',
  steward: 'steward of the house',

  passwordSubject: 'A new password for {house}',
  password: 'Somebody, probably you, asked for a new password for your account at {house}.',
  passwordChoose: 'Choose a new password',

  addressSubject: 'Confirm your address for {house}',
  address: '{name} wants to use this address to sign in to the calendars of {house}.',
  addressConfirm: 'Yes, this is my address',

  addressKnownSubject: 'Your address already has an account at {house}',
  addressKnown:
    'Somebody with an account at {house} wanted to sign in with this address. It belongs to your account, so nothing was changed.',
  addressKnownAdvice: 'If that was you, with a second account, ask a steward which of the two to keep.',

  credentialsSubject:
    '{what, select, password {The password} other {The mail address}} of your account at {house} was changed',
  credentials:
    '{what, select, password {The password} other {The mail address}} of the account of {name} at {house} has just been changed.',
  credentialsAdvice:
    'If this was not you, ask a steward at once to suspend the account and to set it up again with you.',

  alertSubject: '“{window}” needs attention',
  alertOpen: 'Open Reach',
  alertWhy:
    'You get this mail because you publish a calendar that “{window}” shows. You can mute such alerts under Reach.',

  changedSubject: '“{window}” has changed',
  changed:
    '“{window}” of {house} has changed. Your calendar program may not have fetched the change yet, and may still show the old version.',
  changedOpen: 'Open the calendar as it is now',
  changedAdvice:
    'To update your program at once, use its command to refresh. It follows this address: {feed}',

  asksSubject: '{by} asks to {request}',
  asks: '{by} asks to {request}.',
  reason: 'Their reason: “{reason}”',
  asksOpen: 'See what this would show, and answer',
  asksPublisher: 'You get this mail because you publish this calendar.',
  asksStewardSubject: '{by} asks you to {request}',
  asksSteward: '{by} asks you to {request}.',
  asksStewardWhy: 'You get this mail because you are a steward of {house}.',

  grantedSubject: 'Your request was granted',
  declinedSubject: 'Your request was declined',
  granted: '{by} granted your request: you may now {given}.',
  declined: '{by} declined your request to {request}.',
  openCalendars: 'Open the calendars',
  ceilingGranted: 'You asked a steward to {request}. {by} has done so.',
  ceilingDeclined: 'You asked a steward to {request}. {by} declined.',
  openRequests: 'Open your requests',

  testSubject: 'A test from {house}',
  test: '{by} sent this mail to test whether mail arrives. You do not have to do anything.',
} as const;

const de = {
  house: 'Ihrer Organisation',
  unasked:
    'Wenn Sie das nicht angefordert haben, ignorieren Sie diese Mail: Es ändert sich nichts, solange die Adresse oben nicht geöffnet wird.',
  worksOnce:
    'Diese Adresse gilt einmal, und nur in den nächsten {minutes, plural, one {# Minute} other {# Minuten}}.',

  invitationSubject: 'Einladung zu den Kalendern von {house}',
  invitation: '{by} lädt Sie zu den Kalendern von {house} ein.',
  invitationRights: 'Ihre Rechte dort:',
  invitationAccept: 'Einladung annehmen, Namen und Passwort wählen',
  invitationEnds:
    'Diese Adresse gilt einmal, bis zum {ends}. Wenn Sie nicht wissen, worum es geht, ignorieren Sie diese Mail.',
  steward: 'Verwaltung des Hauses',

  passwordSubject: 'Ein neues Passwort für {house}',
  password: 'Jemand, wahrscheinlich Sie, hat ein neues Passwort für Ihr Konto bei {house} angefordert.',
  passwordChoose: 'Neues Passwort wählen',

  addressSubject: 'Bestätigen Sie Ihre Adresse für {house}',
  address: '{name} möchte sich mit dieser Adresse bei den Kalendern von {house} anmelden.',
  addressConfirm: 'Ja, das ist meine Adresse',

  addressKnownSubject: 'Ihre Adresse hat schon ein Konto bei {house}',
  addressKnown:
    'Jemand mit einem Konto bei {house} wollte sich mit dieser Adresse anmelden. Sie gehört zu Ihrem Konto, also wurde nichts geändert.',
  addressKnownAdvice:
    'Wenn Sie das mit einem zweiten Konto waren, fragen Sie die Verwaltung, welches der beiden bleiben soll.',

  credentialsSubject:
    '{what, select, password {Das Passwort} other {Die Mailadresse}} Ihres Kontos bei {house} wurde geändert',
  credentials:
    '{what, select, password {Das Passwort} other {Die Mailadresse}} des Kontos von {name} bei {house} wurde gerade geändert.',
  credentialsAdvice:
    'Wenn Sie das nicht waren, bitten Sie sofort die Verwaltung, das Konto zu sperren und mit Ihnen neu einzurichten.',

  alertSubject: '„{window}“ braucht Aufmerksamkeit',
  alertOpen: 'Reichweite öffnen',
  alertWhy:
    'Sie bekommen diese Mail, weil Sie einen Kalender herausgeben, den „{window}“ zeigt. Unter Reichweite können Sie solche Meldungen stummschalten.',

  changedSubject: '„{window}“ hat sich geändert',
  changed:
    '„{window}“ von {house} hat sich geändert. Ihr Kalenderprogramm hat die Änderung vielleicht noch nicht geholt und zeigt noch die alte Fassung.',
  changedOpen: 'Den Kalender öffnen, wie er jetzt ist',
  changedAdvice:
    'Um Ihr Programm sofort zu aktualisieren, benutzen Sie dort den Befehl zum Aktualisieren. Es folgt dieser Adresse: {feed}',

  asksSubject: '{by} bittet darum, {request}',
  asks: '{by} bittet darum, {request}.',
  reason: 'Begründung: „{reason}“',
  asksOpen: 'Ansehen, was das zeigen würde, und antworten',
  asksPublisher: 'Sie bekommen diese Mail, weil Sie diesen Kalender herausgeben.',
  asksStewardSubject: '{by} bittet Sie, {request}',
  asksSteward: '{by} bittet Sie, {request}.',
  asksStewardWhy: 'Sie bekommen diese Mail, weil Sie zur Verwaltung von {house} gehören.',

  grantedSubject: 'Ihre Anfrage wurde bewilligt',
  declinedSubject: 'Ihre Anfrage wurde abgelehnt',
  granted: '{by} hat Ihre Anfrage bewilligt: {given}.',
  declined: '{by} hat Ihre Anfrage abgelehnt: {request}.',
  openCalendars: 'Kalender öffnen',
  ceilingGranted: 'Sie haben die Verwaltung gebeten, {request}. {by} hat das getan.',
  ceilingDeclined: 'Sie haben die Verwaltung gebeten, {request}. {by} hat abgelehnt.',
  openRequests: 'Ihre Anfragen öffnen',

  testSubject: 'Ein Test von {house}',
  test: '{by} hat diese Mail gesendet, um zu prüfen, ob Mail ankommt. Sie müssen nichts tun.',
} as const;

/** Returns what mails to people of the house say, in a language. */
export const letterTexts = textsByLanguage({ en, de });

/** For the test of all texts. */
export const LETTER_TEXTS = { en, de };
