import type { PROPERTY_KIND_WORDS } from '../entries/properties';
import type { HOLD_WORDS, KIND_WORDS, SHOWS_WORDS, STATUS_WORDS } from '../entries/stateWords';
import type { Colour } from '../glass/colours';
import type { PlatePattern, PlateShape } from '../glass/plates';
import type { WINDOW_TEMPLATES } from '../glass/windowTemplates';
import type {
  AUDIENCE_WORDS,
  GLASS_WORDS,
  LIMITER_WORDS,
  LINK_NOTE_WORDS,
  PART_WORDS,
  SIGHT_MARK_WORDS,
  SWITCH_WORDS,
  TEST_WORDS,
  WORDING_WORDS,
} from '../glass/words';
import type { JOURNAL_AREAS, JournalField, JournalKindName } from '../journal/kinds';
import type { JOURNAL_TURNS } from '../journal/line';
import type { LETTER_KINDS } from '../post/letters';
import type { MAIL_STATES } from '../post/mailState';
import type { PUSH_STATES } from '../reach/push';
import type { SUBSCRIBER_STATES } from '../reach/state';
import type { INVITATION_STATES } from '../rights/invitations';
import type { Deed, Standing, Who } from '../rights/rights';
import type { German } from './inLanguage';

/*
 * The tables of words of the core in German, each of the shape of the English one. They are words of the application: what readers
 * outside get is in the catalogue of the outward forms.
 */

export const GLASS_DE: German<typeof GLASS_WORDS> = {
  shut: { word: 'Zu', plain: 'nichts ist zu sehen' },
  frosted: { word: 'Matt', plain: 'nur wann die Zeit belegt ist' },
  tinted: { word: 'Getönt', plain: 'Titel, Zeit und Ort' },
  clear: { word: 'Klar', plain: 'jedes Feld, das hinausdarf' },
  cut: { word: 'Zugeschnitten', plain: 'die von Hand gewählten Felder' },
};

export const AUDIENCE_DE: German<typeof AUDIENCE_WORDS> = {
  crew: { word: 'Crew', plain: 'namentlich genannte Personen im Haus' },
  house: { word: 'Haus', plain: 'alle in der Organisation' },
  partners: { word: 'Partner', plain: 'namentlich genannte Außenstehende' },
  street: { word: 'Straße', plain: 'alle, die die Adresse haben' },
};

export const LIMITER_DE: German<typeof LIMITER_WORDS> = {
  'house-ceiling': 'Obergrenze des Hauses',
  'calendar-ceiling': 'Obergrenze des Kalenders',
  window: 'Glas des Fensters',
  key: 'Obergrenze des Schlüssels',
  label: 'Etikett, das zurückhält',
  hold: 'Sperre auf dem Eintrag',
};

export const SIGHT_MARK_DE: German<typeof SIGHT_MARK_WORDS> = {
  'clearer-than-usual': 'klarer als hier üblich',
  sensitive: 'heikle Angaben',
  'not-polled': 'seit 60 Tagen nicht benutzt',
  'ends-soon': 'endet innerhalb von 30 Tagen',
};

export const LINK_NOTE_DE: German<typeof LINK_NOTE_WORDS> = {
  withdrawn: 'sein Schlüssel ist zurückgezogen',
  ended: 'sein Schlüssel ist abgelaufen',
  closed: 'sein Fenster ist geschlossen',
  unlisted: 'sein Fenster hängt nicht mehr am Anschlagbrett',
  stopped: 'Leser bekommen im Moment nichts, weil es sich nicht berechnen lässt',
  'busy-only': 'zeigt nur belegte Zeiten',
  'shows-nothing': 'zeigt im Moment nichts',
  'ends-soon': 'sein Schlüssel läuft innerhalb von 30 Tagen ab',
  'closes-soon': 'sein Fenster schließt innerhalb von 30 Tagen',
};

export const TEST_DE: German<typeof TEST_WORDS> = {
  is: 'ist',
  contains: 'enthält',
  'at-least': 'ist mindestens',
  'at-most': 'ist höchstens',
};

export const SWITCH_DE: German<typeof SWITCH_WORDS> = {
  planned: { word: 'Zeigen, um wie viel sich Meilensteine verschoben haben', plain: '' },
  people: { word: 'Namen von Personen zeigen', plain: '' },
  contact: { word: 'Den Kontakt zeigen', plain: '' },
  joinLink: { word: 'Zugangslinks zeigen', plain: 'wer einen hat, kann teilnehmen' },
};

export const PART_DE: German<typeof PART_WORDS> = {
  time: 'Zeit',
  recurrence: 'Wiederholung',
  dates: 'Termine',
  tentative: 'vorläufig',
  calendar: 'Kalender',
};

export const WORDING_DE: German<typeof WORDING_WORDS> = {
  name: 'Name',
  description: 'Beschreibung',
  language: 'Sprache',
  topic: 'Thema',
  place: 'Ort',
  contact: 'Kontakt für Fragen',
  translations: 'weitere Sprachen',
  colour: 'Farbe',
  busyWord: 'Wort für belegte Zeit',
  dueAs: 'Form von Fristen',
  remind: 'vorgeschlagene Erinnerung',
  lettingGo: 'Tage, die Feeds entfernte Einträge nennen',
  notices: 'Änderungsmeldungen per Mail',
  firstView: 'erste Ansicht',
  calendars: 'Namen der Kalender',
  hostZone: 'Zeitzone',
};

export const KIND_DE: German<typeof KIND_WORDS> = {
  event: { word: 'Ereignis', many: 'Ereignisse', plain: '' },
  milestone: {
    word: 'Meilenstein',
    many: 'Meilensteine',
    plain: 'ein Tag oder Zeitpunkt, der sich verschieben kann',
  },
  due: { word: 'Frist', many: 'Fristen', plain: 'bis dahin zu erledigen' },
};

export const STATUS_DE: German<typeof STATUS_WORDS> = {
  confirmed: 'bestätigt',
  tentative: 'vorläufig',
  cancelled: 'abgesagt',
  done: 'erledigt',
};

export const SHOWS_DE: German<typeof SHOWS_WORDS> = { busy: 'belegt', free: 'frei' };

export const HOLD_DE: German<typeof HOLD_WORDS> = {
  none: {
    word: 'keine Sperre',
    marked: '',
    plain: 'Fenster entscheiden, wie viel von diesem Eintrag draußen zu sehen ist.',
  },
  frost: {
    word: 'mattieren',
    marked: 'mattiert: höchstens belegte Zeit',
    plain: 'Draußen ist nie mehr als belegte Zeit zu sehen, was immer ein Fenster sagt.',
  },
  'keep-in': {
    word: 'drinnen lassen',
    marked: 'bleibt drinnen',
    plain: 'Dieser Eintrag geht nie hinaus, was immer ein Fenster sagt.',
  },
};

export const PROPERTY_KIND_DE: German<typeof PROPERTY_KIND_WORDS> = {
  text: 'Text',
  number: 'Zahl',
  choice: 'Auswahl',
  date: 'Tag',
};

export const COLOUR_DE: Readonly<Record<Colour, string>> = {
  steelblue: 'stahlblau',
  teal: 'petrol',
  seagreen: 'seegrün',
  olive: 'oliv',
  darkgoldenrod: 'ocker',
  sienna: 'siena',
  firebrick: 'ziegelrot',
  mediumvioletred: 'purpur',
  slateblue: 'schieferblau',
  slategray: 'schiefergrau',
};

export const PLATE_SHAPE_DE: Readonly<Record<PlateShape, string>> = {
  square: 'Quadrat',
  barrel: 'Fass',
  pennant: 'Wimpel',
  chamfer: 'Fase',
  arch: 'Bogen',
};

export const PLATE_PATTERN_DE: Readonly<Record<PlatePattern, string>> = {
  solid: 'voll',
  stripes: 'Streifen',
  dots: 'Punkte',
  checks: 'Karos',
  rails: 'Schienen',
};

export const TEMPLATE_DE: Readonly<
  Record<keyof typeof WINDOW_TEMPLATES, { readonly name: string; readonly purpose: string }>
> = {
  'busy-times': {
    name: 'Belegte Zeiten',
    purpose: 'Wann Sie in den nächsten zwei Monaten belegt sind, auf die Viertelstunde, und nichts sonst.',
  },
  programme: {
    name: 'Öffentliches Programm',
    purpose: 'Titel, Zeiten und Orte des kommenden Jahres, für alle; Änderungen per Mail.',
  },
  partners: {
    name: 'Pläne für Partner',
    purpose: 'Alles, was hinausdarf, mit Kontakten, für genannte Partner mit je einem Schlüssel.',
  },
};

export const MAIL_STATE_DE: German<typeof MAIL_STATES> = {
  waiting: { word: 'wartet', todo: '' },
  sending: { word: 'wird gesendet', todo: '' },
  sent: { word: 'gesendet', todo: '' },
  kept: {
    word: 'hier aufbewahrt',
    todo: 'Es ist kein Mailserver eingerichtet. Richten Sie unten einen ein, dann wird sie gesendet.',
  },
  failed: {
    word: 'nicht gesendet',
    todo: 'Der Mailserver hat sie nicht angenommen. Lesen Sie den Grund, beheben Sie ihn, und senden Sie noch einmal.',
  },
  unsure: {
    word: 'vielleicht gesendet',
    todo: 'Die Verbindung brach beim Senden ab. Fragen Sie nach, ob sie ankam, bevor Sie noch einmal senden.',
  },
};

export const LETTER_KIND_DE: German<typeof LETTER_KINDS> = {
  invitation: 'Einladung',
  password: 'neues Passwort',
  address: 'Bestätigung einer Adresse',
  'address-known': 'Hinweis, dass eine Adresse schon ein Konto hat',
  credentials: 'Meldung geänderter Zugangsdaten',
  'sight-request': 'Anfrage um Zugang',
  'sight-reply': 'Antwort auf eine Anfrage',
  'ceiling-request': 'Bitte um eine höhere Obergrenze',
  'ceiling-reply': 'Antwort auf eine Bitte um eine höhere Obergrenze',
  alert: 'Meldung zu einem Fenster',
  'notice-confirm': 'Bestätigung der Adresse eines Lesers',
  notice: 'Änderungsmeldung an einen Leser',
  'reach-note': 'Hinweis auf eine Änderung draußen',
  test: 'Testmail',
};

export const PUSH_STATE_DE: German<typeof PUSH_STATES> = {
  on: { word: 'an', todo: '' },
  paused: {
    word: 'angehalten',
    todo: 'Es wird nichts gesendet. Änderungen werden gemeldet, sobald Sie fortsetzen.',
  },
  failing: {
    word: 'aufgegeben',
    todo: 'Mehrere Versuche sind gescheitert. Sehen Sie sich die letzten an, lassen Sie die Ursache beheben, senden Sie einen Test, und setzen Sie fort.',
  },
};

export const SUBSCRIBER_STATE_DE: German<typeof SUBSCRIBER_STATES> = {
  once: 'Höchstens drei Abrufe, alle innerhalb einer Stunde, und seit zwei Tagen keiner: wie nach dem Import einer Datei.',
  silent:
    'Fünf seiner Abstände und mindestens drei Tage länger ohne Abruf, als es verspätet ist: Es hat wahrscheinlich aufgehört.',
  late: 'Anderthalb seiner Abstände länger ohne Abruf als zu dieser Zeit der Woche üblich, Pausen eingerechnet.',
  due: 'Hat den neuesten Stand noch nicht und dürfte in seiner üblichen Zeit abrufen.',
  'in-step': 'Hat den neuesten Stand und ruft wie üblich ab.',
};

export const INVITATION_STATE_DE: German<typeof INVITATION_STATES> = {
  pending: 'noch nicht beantwortet',
  accepted: 'angenommen',
  ended: 'ohne Antwort abgelaufen',
  withdrawn: 'zurückgezogen',
};

export const STANDING_DE: Readonly<Record<Standing, string>> = {
  publisher: 'Herausgabe',
  editor: 'Bearbeitung',
  reader: 'Lesen',
};

export const WHO_DE: Readonly<Record<Who, string>> = {
  steward: 'die Verwaltung des Hauses',
  publisher: 'wer den Kalender herausgibt',
  editor: 'wer den Kalender bearbeitet',
  reader: 'wer den Kalender liest',
  house: 'alle im Haus',
};

export const DEED_DE: Readonly<Record<Deed, string>> = {
  'see-all': 'alles in diesem Kalender sehen',
  see: 'diesen Kalender sehen',
  write: 'Einträge in diesem Kalender schreiben',
  manage: 'diesen Kalender ändern oder löschen',
  people: 'festlegen, wer diesen Kalender sieht oder schreibt',
  publish: 'diesen Kalender draußen zeigen oder davon zurückziehen',
  'see-windows': 'die Fenster über diesem Kalender sehen',
  'know-windows': 'wissen, welche Fenster diesen Kalender zeigen',
  'ask-ceiling': 'um eine höhere Obergrenze für diesen Kalender bitten',
  'ask-to-see': 'um mehr Rechte an diesem Kalender bitten',
  'run-house': 'das Haus verwalten',
};

export const JOURNAL_AREA_DE: German<typeof JOURNAL_AREAS> = {
  people: 'wer was darf',
  accounts: 'Konten und Einladungen',
  ceilings: 'Obergrenzen',
  windows: 'Fenster',
  keys: 'Schlüssel und Linkblätter',
  calendars: 'Kalender',
  house: 'das Haus',
};

export const JOURNAL_KIND_DE: Readonly<Record<JournalKindName, string>> = {
  standings: 'Recht',
  wishes: 'Anfrage um Zugang',
  users: 'Konto',
  invitations: 'Einladung',
  ceilings: 'Obergrenze',
  ceiling_requests: 'Bitte um eine höhere Obergrenze',
  windows: 'Fenster',
  window_sources: 'Kalender in einem Fenster',
  keys: 'Schlüssel',
  turned_tokens: 'neue Adresse eines Schlüssels',
  pushes: 'Push eines Schlüssels',
  link_sheets: 'Linkblatt',
  calendars: 'Kalender',
  house: 'Haus',
  mail_settings: 'Mailserver',
};

export const JOURNAL_TURN_DE: German<typeof JOURNAL_TURNS> = {
  made: 'angelegt',
  changed: 'geändert',
  gone: 'entfernt',
};

export const JOURNAL_FIELD_DE: Readonly<Record<JournalField, string>> = {
  standing: 'Recht',
  rested_at: 'gesperrt seit',
  password_at: 'Passwort geändert',
  password_address_at: 'Adresse für ein neues Passwort weitergegeben',
  standings: 'Rechte',
  sent_at: 'gesendet',
  accepted_at: 'angenommen',
  withdrawn_at: 'zurückgezogen',
  closed_at: 'geschlossen',
  deleted_at: 'gelöscht',
  closes_at: 'schließt sich',
  told_as: 'Name draußen',
  made_out_to: 'ausgestellt für',
  cap: 'eigene Obergrenze',
  expires_at: 'läuft ab',
  meant_for: 'erwartete Leser',
  matters: 'wichtig',
  hosts: 'Websites, die es einbetten dürfen',
  turned_at: 'ersetzt',
  ends_at: 'alte Adresse gilt bis',
  items: 'Adressen darauf',
  house_glass: 'Glas für das Haus',
  known: 'im Verzeichnis gelistet',
  label_holds: 'Etiketten, die Einträge drinnen zurückhalten',
  archived_at: 'weggelegt',
  lockdown: 'verriegelt',
  watch_words: 'heikle Wörter',
  public_contacts: 'öffentliche Adressen und Nummern',
  mail_domains: 'Mail-Domains',
  poll_days: 'Tage, die Abrufe gespeichert bleiben',
  busyWord: 'Wort für belegte Zeit',
  dueAs: 'Form von Fristen',
  titlePattern: 'Muster der Titel',
  hostZone: 'Zeitzone des Gastgebers',
  labelHolds: 'Etiketten, die Einträge zurückhalten',
  tellTentative: 'kennzeichnet vorläufige Zeiten',
  namesCalendars: 'nennt Lesern die Kalender',
  firstView: 'erste Ansicht',
  remind: 'Erinnerung, Minuten vorher',
  notices: 'Änderungsmeldungen per Mail',
  lettingGo: 'Tage, die entfernte Einträge gekennzeichnet bleiben',
  include: 'gezeigte Einträge',
  switches: 'Felder, die einen Schalter brauchen',
  joinLink: 'Zugangslink',
  planned: 'geplanter Tag von Meilensteinen',
  publicGraceDays: 'Tage, die die öffentliche Adresse danach noch gilt',
  public_until: 'öffentliche Adresse endet',
  secure: 'vom ersten Byte an verschlüsselt',
  windowId: 'Fenster',
  keyId: 'Schlüssel',
  calendarId: 'Kalender',
  nextDays: 'Tage voraus',
  pastDays: 'Tage zurück',
};
