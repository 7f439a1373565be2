import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Sequelize } from 'sequelize';
import { connect } from '../db/connect';
import { sealWith } from '../db/sealed';
import { TestClient, databaseWithAccount, eventually } from '../testing';
import { eventsOf, expectedOf, uidsOf, type Answer, type Expected } from './expected';
import { FAULTS, UNHEARD_SECONDS, startPair, type Fault, type ProcessPair, type Which } from './processPair';
import { STEPS, doStep, type StepName } from './steps';
import { PLACES, PastComparison, makeScene, type Scene } from './twins';

/*
 * Random histories over two real servers of one database. After each step every address of a window answers exactly what a
 * computation from nothing gives its reader, or refuses; and a reader behind frosted glass gets the same revisions, sequences
 * and times as from a twin of the window that has no hidden step.
 */

/** How many random histories are tried, and how many events each has at most: few in `npm test`, more in `npm run nightly`. */
const HISTORIES = Number(process.env['HISTORIES'] ?? 2);
const MAX_EVENTS = Number(process.env['HISTORY_EVENTS'] ?? 14);

const PUBLIC_URL = 'http://window.example';
const WHICH = ['first', 'second'] as const;

type HistoryEvent =
  | {
      readonly kind: 'step';
      readonly step: StepName;
      readonly place: number;
      /** The process that is asked to do it. */
      readonly by: Which;
      /** What happens to the second process meanwhile. */
      readonly during: Fault;
    }
  | { readonly kind: 'restart'; readonly which: readonly Which[]; readonly signal: 'SIGTERM' | 'SIGKILL' }
  | { readonly kind: 'clock'; readonly secondsAhead: number };

const stepArbitrary = fc.record({
  kind: fc.constant('step' as const),
  step: fc.constantFrom(...(Object.keys(STEPS) as StepName[])),
  place: fc.nat(PLACES - 1),
  by: fc.constantFrom(...WHICH),
  during: fc.oneof(
    { weight: 8, arbitrary: fc.constant('none' as const) },
    { weight: 1, arbitrary: fc.constantFrom(...FAULTS) },
  ),
});
const eventArbitrary: fc.Arbitrary<HistoryEvent> = fc.oneof(
  { weight: 14, arbitrary: stepArbitrary },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('restart' as const),
      which: fc.constantFrom(...WHICH.map((one) => [one]), WHICH),
      signal: fc.constantFrom('SIGTERM' as const, 'SIGKILL' as const),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('clock' as const),
      secondsAhead: fc.constantFrom(600, 0, -600),
    }),
  },
);

let database: string;
let sequelize: Sequelize;
let pair: ProcessPair;

beforeAll(async () => {
  sealWith('a secret of the tests');
  database = await databaseWithAccount();
  sequelize = connect(database, { patient: true });
  pair = await startPair(database);
});
afterAll(async () => {
  await pair?.close();
  await sequelize?.close();
});

/** By secret part of an address, all that it may answer: what is true now, and what nobody has taken away since. */
type Allowed = Map<string, Set<string>>;

/** What the addresses of both windows answer by one process's clock. */
async function expectedNow(scenes: readonly Scene[], which: Which): Promise<Map<string, Expected>> {
  const now = Date.now() + (which === 'second' ? pair.ahead : 0);
  const all = await Promise.all(
    scenes.map(({ windowId }) => expectedOf(sequelize, windowId, PUBLIC_URL, now)),
  );
  return new Map(all.flatMap((answers) => [...answers]));
}

class History {
  private readonly clients: Record<Which, TestClient>;
  private readonly past: PastComparison;
  /** The identifiers of all events that a view ever showed, by its id: only those can be removed. */
  private readonly everShown = new Map<string, Set<string>>();
  private readonly allowed: Record<Which, Allowed> = { first: new Map(), second: new Map() };
  /** What each process answers if it is up to date. */
  private expected!: Record<Which, Map<string, Expected>>;

  private constructor(
    private readonly scenes: readonly [Scene, Scene],
    clients: Record<Which, TestClient>,
  ) {
    this.clients = clients;
    this.past = new PastComparison(scenes);
  }

  static async begin(): Promise<History> {
    const clients = {} as Record<Which, TestClient>;
    for (const which of WHICH) {
      clients[which] = new TestClient(pair.of[which].base);
      await clients[which].signIn();
    }
    const history = new History([await makeScene(clients.first), await makeScene(clients.first)], clients);
    for (let place = 0; place < PLACES; place++)
      await doStep('an entry comes or moves', clients.first, history.scenes, place);
    await history.expectUpToDate();
    // What came before is not compared: both were made one after the other.
    await history.past.expectSame(60_000);
    return history;
  }

  async happen(event: HistoryEvent): Promise<void> {
    if (event.kind === 'step') return this.takeStep(event);
    if (event.kind === 'clock') await pair.setClock(event.secondsAhead);
    else {
      await pair.restart(event.which, event.signal);
      for (const which of event.which) {
        this.clients[which] = new TestClient(pair.of[which].base);
        await this.clients[which].signIn();
      }
    }
    await this.expectUpToDate();
    await this.past.expectSame(0);
  }

  private async takeStep({ step, place, by, during }: HistoryEvent & { kind: 'step' }): Promise<void> {
    const client = this.clients[during === 'none' ? by : 'first'];
    const began = Date.now();
    pair.begin(during);
    let ended = false;
    const end = async () => {
      if (ended) return;
      ended = true;
      await pair.end(during);
    };
    try {
      const status = await doStep(step, client, this.scenes, place);
      const took = Date.now() - began;
      // The answer says until when a process that has not confirmed may serve what it knew.
      if (status === 202) await new Promise((resolve) => setTimeout(resolve, UNHEARD_SECONDS * 1000));
      // Nobody is answered when a draft publishes itself: the processes learn of it one after the other.
      await this.learn(!('isScheduled' in STEPS[step]));
      // A process that is paused answers once it goes on.
      const second = this.expectAllowed('second');
      if (during !== 'paused') await second;
      await this.expectAllowed('first');
      await Promise.all([second, end()]);
      await this.expectUpToDate();
      // Both scenes' entries change at one time; what is done to one after the other takes as long as it took.
      await this.past.expectSame('act' in STEPS[step] ? took + 1000 : 0);
    } finally {
      await end();
    }
  }

  /** Computes what is true now. Whatever a confirmed change took away may not be answered any more. */
  private async learn(confirmed: boolean): Promise<void> {
    const next = {} as Record<Which, Map<string, Expected>>;
    for (const which of WHICH) {
      next[which] = await expectedNow(this.scenes, which);
      for (const [token, { viewId, answer }] of next[which]) {
        const text = JSON.stringify(answer);
        const before = this.allowed[which].get(token) ?? new Set();
        const takenAway = [...before].some((old) => takesAway(JSON.parse(old) as Answer, answer));
        this.allowed[which].set(token, confirmed && takenAway ? new Set([text]) : before.add(text));
        const shown = this.everShown.get(viewId) ?? new Set();
        if (Array.isArray(answer)) for (const uid of uidsOf(answer)) shown.add(uid);
        this.everShown.set(viewId, shown);
      }
    }
    this.expected = next;
  }

  /** Throws if an address answers what nobody may see any more. */
  private async expectAllowed(which: Which): Promise<void> {
    for (const [token, texts] of this.allowed[which]) {
      const answer = await this.ask(which, token);
      if (answer !== 'refused')
        expect({ which, token, allowed: [...texts] }).toEqual({
          which,
          token,
          allowed: expect.arrayContaining([JSON.stringify(answer)]),
        });
    }
  }

  /** Waits until every address answers what is true now. Throws if one goes on to answer something else. */
  private async expectUpToDate(): Promise<void> {
    await eventually(async () => {
      await this.learn(false);
      for (const which of WHICH)
        for (const token of this.expected[which].keys()) {
          const answers = [
            ...this.trueAnswers(which, token),
            ...(this.endedElsewhere(token) ? ['refused'] : []),
          ];
          expect([which, token, answers]).toEqual([
            which,
            token,
            expect.arrayContaining([await this.ask(which, token)]),
          ]);
        }
    });
    // Nothing older may come back from here on.
    for (const which of WHICH)
      for (const token of this.expected[which].keys()) {
        const texts = this.trueAnswers(which, token).map((answer) => JSON.stringify(answer));
        this.allowed[which].set(token, new Set(texts));
      }
    await this.expectOnBoard();
  }

  /** Everything that an address may answer if it is up to date. */
  private trueAnswers(which: Which, token: string): Answer[] {
    const { answer } = this.expected[which].get(token)!;
    return this.endedElsewhere(token) ? [answer, 'gone'] : [answer];
  }

  /**
   * Whether an address has ended by the clock of one process only. What was changed since concerns nobody who could read then,
   * so the other process may refuse, too.
   */
  private endedElsewhere(token: string): boolean {
    const [one, other] = WHICH.map((which) => this.expected[which].get(token)?.answer === 'gone');
    return one !== other;
  }

  /** What an address answers, as far as readers see it; `refused` also if the process does not answer. */
  private async ask(which: Which, token: string): Promise<Answer | 'refused'> {
    const answered = await fetch(`${pair.of[which].base}/feed/${token}.ics`)
      .then(async (response) => ({ status: response.status, text: await response.text() }))
      .catch(() => null);
    if (!answered || answered.status === 503) return 'refused';
    const { status, text } = answered;
    if (status === 410) return 'gone';
    if (status === 404) return 'none';
    expect(status).toBe(200);
    const { shown, removed } = eventsOf(text);
    const viewId = this.expected[which].get(token)?.viewId ?? '';
    for (const uid of removed) expect([...(this.everShown.get(viewId) ?? [])]).toContain(uid);
    return shown;
  }

  /** The notice board names a window if, and only if, it is listed and open. */
  private async expectOnBoard(): Promise<void> {
    await eventually(async () => {
      for (const which of WHICH) {
        const board = await (await fetch(`${pair.of[which].base}/board`)).text();
        for (const { windowId } of this.scenes) {
          const { body } = await this.clients[which].call('GET', `/windows/${windowId}`);
          const named = board.includes(`>${body.wording.name}<`);
          expect([which, named]).toEqual([which, body.listed && !body.closedAt]);
        }
      }
    });
  }

  async close(): Promise<void> {
    for (const { windowId } of this.scenes)
      await this.clients.first.call('POST', `/windows/${windowId}/close`);
  }
}

/** Whether an answer no longer shows something that another one showed. */
function takesAway(before: Answer, after: Answer): boolean {
  if (!Array.isArray(before)) return false;
  if (!Array.isArray(after)) return true;
  return before.some((event) => !after.includes(event));
}

const step = (name: StepName, during: Fault = 'none', by: Which = 'first'): HistoryEvent => {
  return { kind: 'step', step: name, place: 0, by, during };
};
const restart = (which: readonly Which[], signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): HistoryEvent => {
  return { kind: 'restart', which, signal };
};

/** Histories that once went wrong, or that a random one seldom tries. */
const EXAMPLES: [HistoryEvent[]][] = [
  [
    [
      // What was stored of a view does not come back after nobody could see it for a while.
      step('the key shows nothing'),
      restart(['first']),
      step('an entry is kept in'),
      step('another title'),
      restart(WHICH, 'SIGKILL'),
      step('the key shows busy times'),
      step('the key is withdrawn', 'none', 'second'),
      step('an entry is no longer kept in'),
      step('an entry goes', 'none', 'second'),
      step('the key is brought back'),
    ],
  ],
  [
    [
      // Nor does what was on the notice board.
      step('the window is listed'),
      step('the other key is withdrawn'),
      step('the window is unlisted', 'none', 'second'),
      restart(['first']),
      step('an entry goes'),
      step('the window is listed'),
      step('a ceiling shuts the calendar', 'none', 'second'),
      restart(['second']),
      step('no ceiling'),
      step('the window shows nothing'),
    ],
  ],
  [
    [
      // What acts later is checked when it acts.
      step('a colleague may publish'),
      step('a colleague’s draft will show every field', 'none', 'second'),
      step('another description'),
      step('a colleague may not publish', 'silent'),
      step('a colleague’s draft will show every field', 'none', 'second'),
      step('the window will show busy times'),
      step('a colleague may not publish before their draft is due', 'none', 'second'),
      restart(['first'], 'SIGKILL'),
      step('a colleague may not publish before their draft is due', 'paused'),
      step('another title'),
    ],
  ],
  [
    [
      // A clock that is set back opens nothing that has ended.
      step('the key ends in a moment'),
      step('the window will show busy times', 'none', 'second'),
      { kind: 'clock', secondsAhead: -600 },
      step('another title'),
      step('an entry goes'),
      step('the key has no end'),
      step('an entry comes or moves'),
    ],
  ],
  [
    [
      // A process that does not hear of a change stops serving what it took away.
      step('an entry goes', 'silent'),
      step('the last edit is taken back', 'none', 'second'),
      step('an entry is kept in'),
      step('another title'),
      step('the last edit is taken back'),
      step('the last edit is taken back', 'silent'),
      step('an entry goes'),
      step('an entry comes or moves', 'cut'),
      { kind: 'clock', secondsAhead: 600 },
      step('the key is withdrawn', 'paused'),
      step('the key is brought back', 'none', 'second'),
      step('another description', 'silent'),
      { kind: 'clock', secondsAhead: -600 },
      step('the window closes', 'silent'),
      step('the window opens', 'none', 'second'),
      step('the key is replaced'),
      step('the key ends in a moment'),
    ],
  ],
];

it(
  `every address answers what is true, in ${EXAMPLES.length} chosen and ${HISTORIES} random histories`,
  { timeout: 24 * 3_600_000 },
  async () => {
    let events = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.array(eventArbitrary, { minLength: Math.ceil(MAX_EVENTS / 2), maxLength: MAX_EVENTS }),
        async (happening) => {
          await pair.setClock(0);
          const history = await History.begin();
          for (const [at, event] of happening.entries()) {
            await history.happen(event).catch((cause: unknown) => {
              throw new Error(`Event ${at}: ${JSON.stringify(event)}`, { cause });
            });
            events++;
          }
          await history.close();
        },
      ),
      // A failing history is printed as it is: to try shorter ones takes hours.
      { numRuns: EXAMPLES.length + HISTORIES, examples: EXAMPLES, endOnFailure: true },
    );
    expect(events).toBeGreaterThanOrEqual(((EXAMPLES.length + HISTORIES) * MAX_EVENTS) / 2);
  },
);
