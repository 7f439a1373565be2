import { writeForm, writePage } from '@zonal/core/forms';
import { emptyMemo, outwardView, type Reader } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { renderDocument } from '@zonal/server/outside/renderDocument';
import { bodyWriters } from '@zonal/server/outside/renderer';
import { applyDelta, deltaBetween, type RenderedView } from '@zonal/server/outside/viewDelta';
import type { State } from '@zonal/server/outside/viewState';
import ICAL from 'ical.js';
import type { Figure } from './figure';
import { RANGE, RULES, SETTING, manyEntries } from './material';
import { medianRatio, medianTime } from './timing';

const READER: Reader = { audience: 'street', cap: null };
const PAGE = { self: '#', see: '#', feed: '#', copy: '#' };
const PLACE = { publicUrl: 'https://w.example', asOf: 1_000_000, hub: '', mayMail: false, listed: 'bridge' };

/** Works a window of entries out, after what it was before. */
function compiled(entries: ReturnType<typeof manyEntries>, before: State | null, rules = RULES): State {
  const telling = before?.memo?.telling ?? emptyMemo();
  const view = outwardView(entries, rules, RANGE, READER, telling);
  const revision = nextRevision(before?.revision ?? null, view, 1_000_000);
  return { view, revision, memo: { rules, from: RANGE.from, telling } };
}

/** Renders what polls of the feed and of the busy time need, in a copy of the view as another thread has it. */
function rendering(): (state: State) => void {
  const bodies = bodyWriters();
  let sent: State | null = null;
  let copy: RenderedView | null = null;
  return (state) => {
    const { delta, items } = structuredClone(deltaBetween(sent, state));
    sent = state;
    const rendered = (copy = applyDelta(copy, delta, items));
    const { number } = state.revision;
    const order = { viewId: 'v', number, token: 'k', moved: null, farewell: null, now: 0, body: null };
    for (const form of ['feed', 'freeBusy'] as const)
      renderDocument({ ...order, form }, rendered, bodies, PLACE);
  };
}

/** Compiles a window of 10,000 entries, whole and after one edit. */
export function compileFigures(): Figure[] {
  const entries = manyEntries();
  // Another secret each time: nothing that was worked out before is of use.
  let secret = 0;
  const fresh = () => compiled(entries, null, { ...RULES, secret: `secret ${secret++}` });
  const textOf = ({ view, revision }: State) => writeForm('feed', view, revision, SETTING);
  const text = textOf(fresh());
  const document = new ICAL.Component(ICAL.parse(text) as never);
  const cold = medianRatio(
    () => void textOf(fresh()),
    () => void document.toString(),
  );
  const coldServed = medianTime(() => rendering()(fresh()), 5);

  let state = compiled(entries, null);
  const render = rendering();
  render(state);
  let list = entries;
  let n = 0;
  // By itself, as edits come: rubbish left by a cold compile would be cleared away in its time.
  const warm = medianTime(() => {
    list = list.with(5000, { ...list[5000]!, title: `Changed ${n++}` });
    state = compiled(list, state);
    render(state);
  }, 25);
  const preview = medianTime(() => {
    const { view, revision } = compiled(entries, null);
    writePage(view, revision, {
      form: 'page',
      query: {},
      now: RANGE.from,
      addresses: PAGE,
      assets: '/outside/',
    });
  }, 5);
  const size = `${(text.length / 1e6).toFixed(1)} MB`;
  return [
    {
      what: 'cold compile of 10,000 entries against ical.js serialising the same document',
      measured: `compile ${cold.ms.toFixed(0)} ms, ical.js ${cold.otherMs.toFixed(0)} ms, ${size}`,
      ratio: cold.ratio,
      budget: '≤ 1.2',
      kept: cold.ratio <= 1.2,
    },
    {
      what: 'one edit until feed and busy time can be served, against the same cold',
      measured: `edit ${warm.toFixed(1)} ms, cold ${coldServed.toFixed(0)} ms, both with prints and compressed bytes`,
      ratio: warm / coldServed,
      budget: '≤ 0.025',
      kept: warm / coldServed <= 0.025,
    },
    {
      what: 'what the studio’s worker does for a preview of that window after a change of glass, in seconds',
      measured: `${preview.toFixed(0)} ms; the page itself waits for it in a worker`,
      ratio: preview / 1000,
      budget: '< 1',
      kept: preview < 1000,
    },
  ];
}
