import { sentence, type ProblemCode, type ProblemDetails } from '../problems';
import type { InsideLanguage } from '../texts/languages';
import { insideTexts } from '../words/texts';
import type { Instant } from '../zones';

/** Each kind of alert, with what it is about. */
export const ALERT_KINDS = {
  'feed-failing': 'what readers get cannot be computed',
  'push-failing': 'a system no longer receives changes',
  silent: 'a subscriber of an important key has gone silent',
  'passed-on': 'far more readers than expected use a key',
  late: 'not all readers know an urgent change in time',
} as const;
export type AlertKind = keyof typeof ALERT_KINDS;

/** Why a window cannot be computed. */
export interface AlertProblem {
  readonly code: ProblemCode;
  readonly details: ProblemDetails;
}

/** What each kind of alert is made of. `window` and `key` are the names that they have for organisers. */
export interface AlertFacts {
  'feed-failing': { readonly window: string; readonly problem: AlertProblem };
  'push-failing': { readonly window: string; readonly key: string };
  silent: { readonly window: string; readonly key: string; readonly readers: number };
  'passed-on': {
    readonly window: string;
    readonly key: string;
    readonly readers: number;
    readonly expected: number;
  };
  late: {
    readonly window: string;
    /** Whether the moment by which readers should know the change is over. */
    readonly isOver: boolean;
    readonly readers: number;
    /** Of the readers, those who do not have the change, or while the moment is ahead those who should have it in time. */
    readonly count: number;
  };
}

/** An alert about a window, or about one of its keys. */
export type Raised = {
  readonly [K in AlertKind]: {
    readonly kind: K;
    readonly keyId: string | null;
    readonly facts: AlertFacts[K];
  };
}[AlertKind];

/** Returns an alert in one or two sentences. They are for organisers. */
export function alertWords(
  { kind, facts }: Pick<Raised, 'kind' | 'facts'>,
  language: InsideLanguage = 'en',
): string {
  const t = insideTexts(language);
  const words: { readonly [K in AlertKind]: (facts: AlertFacts[K]) => string } = {
    'feed-failing': ({ window, problem: { code, details } }) =>
      t('alertFailing', { window, reason: sentence(code, details, language) }),
    'push-failing': (known) => t('alertPush', known),
    silent: (known) => t('alertSilent', known),
    'passed-on': (known) => t('alertShared', known),
    late: ({ isOver, ...known }) => t(isOver ? 'alertLate' : 'alertSlow', known),
  };
  return (words[kind] as (facts: Raised['facts']) => string)(facts);
}

/** What is known of a window that could be worth an alert. */
export interface Watched {
  readonly name: string;
  /** Why it cannot be computed, or null. */
  readonly trouble: AlertProblem | null;
  readonly keys: readonly {
    readonly id: string;
    readonly madeOutTo: string;
    /** Of an important key: how many of its readers are silent. */
    readonly silent: number;
    /** Whether pushes to a system of its own were given up. */
    readonly pushFailing: boolean;
    /** How many readers came and how many were expected, if these were far fewer. */
    readonly passedOn: { readonly readers: number; readonly meantFor: number } | null;
  }[];
  /** A change that readers should know by a moment: how many readers there are, have it, and should have it by then. */
  readonly urgent: {
    readonly by: Instant;
    readonly readers: number;
    readonly holding: number;
    readonly expected: number;
  } | null;
}

/** If at least this share of the readers should know an urgent change in time, there is no alert. */
const ENOUGH_READERS = 0.9;

/** Returns the alerts of a window at an instant. */
export function alertsOf({ name: window, trouble, keys, urgent }: Watched, now: Instant): Raised[] {
  const raised: Raised[] = [];
  if (trouble !== null)
    raised.push({ kind: 'feed-failing', keyId: null, facts: { window, problem: trouble } });
  for (const { id: keyId, madeOutTo: key, silent, pushFailing, passedOn } of keys) {
    if (pushFailing) raised.push({ kind: 'push-failing', keyId, facts: { window, key } });
    if (silent > 0) raised.push({ kind: 'silent', keyId, facts: { window, key, readers: silent } });
    if (passedOn) {
      const { readers, meantFor: expected } = passedOn;
      raised.push({ kind: 'passed-on', keyId, facts: { window, key, readers, expected } });
    }
  }
  if (urgent) {
    const { by, readers, holding, expected } = urgent;
    const [isOver, missing] = [now >= by, readers - holding];
    const count = isOver ? missing : Math.floor(expected);
    if (isOver ? missing > 0 : expected < readers * ENOUGH_READERS)
      raised.push({ kind: 'late', keyId: null, facts: { window, isOver, readers, count } });
  }
  return raised;
}
