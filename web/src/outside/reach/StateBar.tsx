import type { ReachCounts } from '@zonal/core/api';
import type { SubscriberState } from '@zonal/core/reach';
import styled, { css } from 'styled-components';
import { STATE_ORDER, STATE_WORDS, countWords } from './reachWords';

/** Each state has a texture of its own: full, ruled, dotted, empty, crossed. */
export const textureOf: Readonly<Record<SubscriberState, ReturnType<typeof css>>> = {
  'in-step': css`
    background: var(--ink);
  `,
  due: css`
    background: repeating-linear-gradient(90deg, var(--ink) 0 2px, transparent 2px 5px);
  `,
  late: css`
    background: radial-gradient(circle at 2px 2px, var(--ink) 1.2px, transparent 1.4px) 0 0 / 6px 6px;
  `,
  silent: css`
    background: transparent;
  `,
  once: css`
    background:
      repeating-linear-gradient(45deg, var(--ink) 0 1px, transparent 1px 6px),
      repeating-linear-gradient(-45deg, var(--ink) 0 1px, transparent 1px 6px);
  `,
};

const Bar = styled.div`
  display: flex;
  height: 0.9rem;
  border: 1px solid var(--ink);
  background: var(--sheet);
  min-width: 6rem;
`;

const Part = styled.span<{ $state: SubscriberState }>`
  ${({ $state }) => textureOf[$state]}
  border-right: 1px solid var(--ink);
  &:last-child {
    border-right: 0;
  }
`;

export const Swatch = styled.i<{ $state: SubscriberState }>`
  ${({ $state }) => textureOf[$state]}
  display: inline-block;
  width: 0.95rem;
  height: 0.75rem;
  border: 1px solid var(--ink);
  vertical-align: -0.05em;
  margin-right: 0.4rem;
`;

/** How many readers are in which state, as a bar; what it shows stands beside it in words. */
export function StateBar({ counts }: { counts: ReachCounts }) {
  const all = STATE_ORDER.reduce((sum, s) => sum + counts[s], 0);
  return (
    <Bar role="img" aria-label={countWords(counts)}>
      {STATE_ORDER.filter((s) => counts[s]).map((s) => (
        <Part key={s} $state={s} style={{ flex: counts[s] / all }} title={`${counts[s]} ${STATE_WORDS[s]}`} />
      ))}
    </Bar>
  );
}
