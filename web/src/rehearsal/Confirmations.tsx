import { DEMANDS, type Demand } from '@zonal/core/glass';
import { useState } from 'react';
import { Field } from '../ui/Field';
import { Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { t } from '../texts/rehearsal';

export const DEMAND_WORDS: Readonly<Record<Demand, string>> = {
  'most-vanishes': t('mostVanishes'),
  'first-listed': t('firstListed'),
  'public-address-ends': t('publicAddressEnds'),
  'sensitive-on-street': t('sensitiveOnStreet'),
};

/** The large effects of a change, and which of them somebody has confirmed so far. */
export interface Confirming {
  readonly demands: readonly Demand[];
  /** What has to be typed to confirm that most of a view vanishes, and what it is. */
  readonly name: string;
  readonly what: string;
  /** What else there is to say about an effect here. */
  readonly notes: Partial<Record<Demand, string>>;
  readonly ticked: readonly Demand[];
  readonly typed: string;
  readonly accepted: readonly Demand[];
  /** Whether every one is confirmed. */
  readonly ready: boolean;
  readonly set: (part: { ticked?: readonly Demand[]; typed?: string }) => void;
}

/** Keeps what is confirmed of the large effects of a change. `what` says what `name` is, as in “the window’s name”. */
export function useConfirming(
  found: readonly Demand[],
  name: string,
  what: string,
  notes: Partial<Record<Demand, string>> = {},
): Confirming {
  const [{ ticked, typed }, setState] = useState({ ticked: [] as readonly Demand[], typed: '' });
  const demands = DEMANDS.filter((d) => found.includes(d));
  const isAccepted = (d: Demand) =>
    d === 'most-vanishes' ? typed.trim() === name.trim() : ticked.includes(d);
  const accepted = demands.filter(isAccepted);
  return {
    demands,
    name: name.trim(),
    what,
    notes,
    ticked,
    typed,
    accepted,
    ready: accepted.length === demands.length,
    set: (part) => setState((s) => ({ ...s, ...part })),
  };
}

/** Asks for each large effect by itself: for the largest by typing, for the others by a tick. Nothing where none is. */
export function Confirmations({ demands, name, what, notes, ticked, typed, set }: Confirming) {
  if (!demands.length) return null;
  return (
    <Stack role="group" aria-label={t('confirmEffects')}>
      <strong>{t('confirmEach')}</strong>
      {demands.map((d) =>
        d === 'most-vanishes' ? (
          <Field
            key={d}
            label={t('typeToConfirm', { effect: DEMAND_WORDS[d], what, name })}
            value={typed}
            onChange={(text) => set({ typed: text })}
          />
        ) : (
          <Tick
            key={d}
            isSelected={ticked.includes(d)}
            onChange={(on) => set({ ticked: on ? [...ticked, d] : ticked.filter((x) => x !== d) })}
          >
            {DEMAND_WORDS[d]} {notes[d]} {t('haveReviewed')}
          </Tick>
        ),
      )}
    </Stack>
  );
}
