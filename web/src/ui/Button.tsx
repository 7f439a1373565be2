import { Button as AriaButton } from 'react-aria-components';
import styled, { css } from 'styled-components';

const base = css`
  display: inline-flex;
  align-items: center;
  gap: 0.45rem;
  padding: 0.35rem 0.8rem;
  min-height: 2.1rem;
  border: 1px solid var(--ink);
  border-radius: 2px;
  background: none;
  cursor: pointer;
  white-space: nowrap;
  text-decoration: none;

  &[data-hovered],
  &:hover {
    background: var(--shade);
  }
  &[data-disabled] {
    opacity: 0.5;
    cursor: default;
  }
  svg {
    width: 1rem;
    height: 1rem;
    flex: none;
  }
`;

/** A plain button. */
export const Button = styled(AriaButton)`
  ${base}
`;

/** The one main action of a place. */
export const MainButton = styled(AriaButton)`
  ${base}
  background: var(--ink);
  color: var(--paper);
  &[data-hovered],
  &:hover {
    background: var(--faded);
  }
`;

/** An action that makes something visible outside, or takes it away from there. */
export const OutsideButton = styled(AriaButton)`
  ${base}
  border-color: var(--outside);
  color: var(--outside);
  &[data-hovered],
  &:hover {
    background: var(--outside-wash);
  }
`;

/** A button that looks like a word in the text. */
export const QuietButton = styled(AriaButton)`
  ${base}
  border-color: transparent;
  padding-inline: 0.4rem;
`;

/** A button that looks like a link in a sentence. */
export const TextButton = styled(AriaButton)`
  display: inline;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
`;
