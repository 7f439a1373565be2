import type { InsideLanguage } from '../texts/languages';
import { JOURNAL_FIELD_DE, JOURNAL_KIND_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';
import { insideTexts } from '../words/texts';

/** What the journal is about, as it is filtered. */
export const JOURNAL_AREAS = {
  people: 'who may do what',
  accounts: 'accounts and invitations',
  ceilings: 'ceilings',
  windows: 'windows',
  keys: 'keys and link sheets',
  calendars: 'calendars',
  house: 'the house',
} as const;
export type JournalArea = keyof typeof JOURNAL_AREAS;

/** What can be noted: its area, what it is called, what of it is noted, and by which of its columns it is told apart. */
export interface JournalKind {
  readonly area: JournalArea;
  readonly word: string;
  /** Columns of its table; `*settings` stands for what is kept in that one column, part by part. */
  readonly noted: readonly string[];
  readonly told: readonly string[];
}

/**
 * Each table of which changes are noted. What is secret (passwords, addresses, what readers are told apart by) is never
 * among what is noted.
 */
export const JOURNAL_KINDS = {
  standings: {
    area: 'people',
    word: 'right',
    noted: ['standing', 'glass'],
    told: ['calendar_id', 'user_id'],
  },
  wishes: {
    area: 'people',
    word: 'access request',
    noted: ['standing', 'glass', 'reason', 'state'],
    told: ['id', 'calendar_id', 'user_id'],
  },
  users: {
    area: 'accounts',
    word: 'account',
    noted: ['name', 'email', 'role', 'rested_at', 'password_at', 'password_address_at'],
    told: ['id'],
  },
  invitations: {
    area: 'accounts',
    word: 'invitation',
    noted: ['email', 'role', 'standings', 'sent_at', 'accepted_at', 'withdrawn_at'],
    told: ['id'],
  },
  ceilings: { area: 'ceilings', word: 'ceiling', noted: ['glass'], told: ['calendar_id', 'audience'] },
  ceiling_requests: {
    area: 'ceilings',
    word: 'request for a higher ceiling',
    noted: ['glass', 'reason', 'state'],
    told: ['id', 'calendar_id', 'audience', 'user_id'],
  },
  windows: {
    area: 'windows',
    word: 'window',
    noted: ['name', 'listed', 'public_until', 'closed_at', 'closes_at', 'deleted_at', '*settings'],
    told: ['id'],
  },
  window_sources: {
    area: 'windows',
    word: 'calendar in a window',
    noted: ['glass', 'fields', 'told_as'],
    told: ['window_id', 'calendar_id'],
  },
  keys: {
    area: 'keys',
    word: 'key',
    noted: [
      'made_out_to',
      'audience',
      'cap',
      'expires_at',
      'withdrawn_at',
      'contact',
      'meant_for',
      'matters',
      'hosts',
    ],
    told: ['id', 'window_id', 'user_id'],
  },
  turned_tokens: {
    area: 'keys',
    word: 'new address of a key',
    noted: ['turned_at', 'ends_at'],
    told: ['key_id', 'turned_at'],
  },
  pushes: {
    area: 'keys',
    word: 'push of a key',
    noted: ['host', 'state'],
    told: ['key_id'],
  },
  link_sheets: {
    area: 'keys',
    word: 'link sheet',
    noted: ['name', 'note', 'items', 'withdrawn_at'],
    told: ['id'],
  },
  calendars: {
    area: 'calendars',
    word: 'calendar',
    noted: ['name', 'zone', 'house_glass', 'known', 'label_holds', 'archived_at', 'lockdown'],
    told: ['id'],
  },
  house: {
    area: 'house',
    word: 'house',
    noted: [
      'name',
      'zone',
      'country',
      'region',
      'properties',
      'watch_words',
      'public_contacts',
      'mail_domains',
      'poll_days',
    ],
    told: ['id'],
  },
  mail_settings: {
    area: 'house',
    word: 'mail server',
    noted: ['host', 'port', 'secure', 'account', 'sender'],
    told: ['id'],
  },
} as const satisfies Readonly<Record<string, JournalKind>>;
export type JournalKindName = keyof typeof JOURNAL_KINDS;

/** What is noted, in words, where the name of its column or of its part is not plain enough. */
const FIELD_WORDS = {
  standing: 'right',
  rested_at: 'suspended since',
  password_at: 'password changed',
  password_address_at: 'address for a new password handed over',
  standings: 'rights',
  sent_at: 'sent',
  accepted_at: 'accepted',
  withdrawn_at: 'withdrawn',
  closed_at: 'closed',
  deleted_at: 'deleted',
  closes_at: 'closes by itself',
  told_as: 'outward name',
  made_out_to: 'issued to',
  cap: 'own ceiling',
  expires_at: 'expires',
  meant_for: 'expected readers',
  matters: 'important',
  hosts: 'sites that may embed it',
  turned_at: 'replaced',
  ends_at: 'old address works until',
  items: 'addresses on it',
  house_glass: 'glass for the House',
  known: 'listed in the directory',
  label_holds: 'labels that hold entries back inside',
  archived_at: 'archived',
  lockdown: 'locked down',
  watch_words: 'sensitive words',
  public_contacts: 'public addresses and numbers',
  mail_domains: 'mail domains',
  poll_days: 'days that polls are kept',
  busyWord: 'word for busy time',
  dueAs: 'form of due items',
  titlePattern: 'pattern of titles',
  hostZone: 'host’s time zone',
  labelHolds: 'labels that hold entries back',
  tellTentative: 'marks tentative times',
  namesCalendars: 'names calendars to readers',
  firstView: 'first view',
  remind: 'reminder, minutes before',
  notices: 'change notices by mail',
  lettingGo: 'days that removed entries are marked',
  include: 'entries shown',
  switches: 'fields that need a switch',
  joinLink: 'joining link',
  planned: 'planned date of milestones',
  publicGraceDays: 'days that the public address works after unlisting',
  public_until: 'public address ends',
  secure: 'encrypted from the first byte',
  windowId: 'window',
  keyId: 'key',
  calendarId: 'calendar',
  nextDays: 'days ahead',
  pastDays: 'days back',
} as const satisfies Readonly<Record<string, string>>;
export type JournalField = keyof typeof FIELD_WORDS;

const isNamed = (field: string): field is JournalField => field in FIELD_WORDS;

/** Returns what a field is called where it was changed. */
export function journalField(field: string, language: InsideLanguage = 'en'): string {
  return isNamed(field) ? inLanguage(FIELD_WORDS, JOURNAL_FIELD_DE, language)[field] : field;
}

/** Returns what a table of the journal is called. */
export function journalKindWord(kind: JournalKindName, language: InsideLanguage = 'en'): string {
  return language === 'de' ? JOURNAL_KIND_DE[kind] : JOURNAL_KINDS[kind].word;
}

/** Letters of a value as it is told; a filter of a window can be long. */
const LONGEST = 300;
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d/;

/** Returns a value as it is told: `–` for none, `yes` and `no`, moments to the minute in UTC, records part by part. */
export function journalValue(value: unknown, language: InsideLanguage = 'en'): string {
  if (value === null || value === undefined || value === '') return '–';
  if (typeof value === 'boolean') return insideTexts(language)(value ? 'yes' : 'no');
  if (typeof value === 'string')
    return MOMENT.test(value) ? `${value.slice(0, 16).replace('T', ' ')} UTC` : cut(value);
  return cut(plain(value, language)) || '–';
}

/** Parts of a record with their names, parts of a list one after the other; what holds nothing is left out. */
function plain(value: unknown, language: InsideLanguage): string {
  if (value === null || value === undefined || value === '') return '';
  if (Array.isArray(value))
    return value
      .map((part) => plain(part, language))
      .filter(Boolean)
      .join('; ');
  if (typeof value !== 'object') return typeof value === 'string' ? value : JSON.stringify(value);
  return Object.entries(value)
    .flatMap(([name, part]) => {
      const said =
        typeof part === 'object' && part !== null ? nested(plain(part, language)) : plain(part, language);
      return said ? [`${journalField(name, language)} ${said}`] : [];
    })
    .join(', ');
}

const nested = (said: string) => said && `(${said})`;

const cut = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text);
