import type { Instant } from '../zones';

/** What an organiser is told of by itself, with what it is about. */
export const ALERT_KINDS = {
  'feed-failing': 'what readers get cannot be computed',
  'push-failing': 'a system no longer receives changes',
  silent: 'a subscriber of an important key has gone silent',
  'passed-on': 'far more readers than expected use a key',
  late: 'not all readers know an urgent change in time',
} as const;
export type AlertKind = keyof typeof ALERT_KINDS;

/** What is to be told of a window, or of one of its keys. */
export interface Raised {
  readonly kind: AlertKind;
  readonly keyId: string | null;
  /** The facts, in a sentence. It is for organisers. */
  readonly say: string;
}

/** What is known of a window that could be worth an alert. */
export interface Watched {
  readonly name: string;
  /** Why it cannot be worked out, or null. */
  readonly trouble: string | null;
  /** Keys that matter with how many of their readers are silent; all keys with how many came, and for how many they are made out. */
  readonly keys: readonly {
    readonly id: string;
    readonly madeOutTo: string;
    readonly silent: number;
    /** Whether pushes to a system of its own were given up. */
    readonly pushFailing: boolean;
    readonly passedOn: { readonly readers: number; readonly meantFor: number } | null;
  }[];
  /** A change that has to be known by a moment: how many readers there are, how many hold it, and how many are expected to by then. */
  readonly urgent: {
    readonly by: Instant;
    readonly readers: number;
    readonly holding: number;
    readonly expected: number;
  } | null;
}

/** A share of readers that is expected to know in time is enough. */
const ENOUGH = 0.9;

/** Returns what is to be told of a window at an instant. */
export function alertsOf({ name, trouble, keys, urgent }: Watched, now: Instant): Raised[] {
  const raised: Raised[] = [];
  if (trouble !== null)
    raised.push({
      kind: 'feed-failing',
      keyId: null,
      say: `What readers should see of “${name}” cannot be computed: ${trouble}`,
    });
  for (const { id, madeOutTo, silent, pushFailing, passedOn } of keys) {
    if (pushFailing)
      raised.push({
        kind: 'push-failing',
        keyId: id,
        say: `Pushes to the system of ${madeOutTo} (“${name}”) have stopped: several attempts failed, or the system no longer wants them.`,
      });
    if (silent > 0)
      raised.push({
        kind: 'silent',
        keyId: id,
        say: `${count(silent)} with the ${madeOutTo} key of “${name}” ${silent === 1 ? 'has' : 'have'} gone silent.`,
      });
    if (passedOn)
      raised.push({
        kind: 'passed-on',
        keyId: id,
        say: `${count(passedOn.readers)} used the ${madeOutTo} key of “${name}” this week; you expected ${passedOn.meantFor}. The address has probably been shared.`,
      });
  }
  if (urgent) {
    const { by, readers, holding, expected } = urgent;
    const missing = readers - holding;
    if (now >= by ? missing > 0 : expected < readers * ENOUGH)
      raised.push({
        kind: 'late',
        keyId: null,
        say:
          now >= by
            ? `${missing} of ${count(readers)} do not have the urgent change of “${name}” yet.`
            : `Only ${Math.floor(expected)} of ${count(readers)} should know the urgent change of “${name}” in time.`,
      });
  }
  return raised;
}

function count(readers: number): string {
  return `${readers} ${readers === 1 ? 'reader' : 'readers'}`;
}
