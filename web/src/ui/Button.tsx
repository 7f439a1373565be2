import { forwardRef, useState } from 'react';
import { Button as AriaButton, type ButtonProps } from 'react-aria-components';
import styled, { css } from 'styled-components';

/**
 * A button that keeps the focus when it is disabled while it has it, for example during the call that it started: otherwise the
 * focus would fall to the page, and keys such as Escape would no longer reach the dialog around the button.
 */
const BaseButton = forwardRef<HTMLButtonElement, ButtonProps>(function BaseButton(props, ref) {
  const { isDisabled = false, ...rest } = props;
  const [hasFocus, setHasFocus] = useState(false);
  const isHeld = isDisabled && hasFocus;
  return (
    <AriaButton
      {...rest}
      {...(isHeld ? { ...HELD, type: 'button' } : {})}
      ref={ref}
      isDisabled={isDisabled && !hasFocus}
      onFocusChange={(isFocused) => {
        setHasFocus(isFocused);
        props.onFocusChange?.(isFocused);
      }}
    />
  );
});

const doNothing = () => undefined;

/** What makes a button do nothing and say so, although it can have the focus. */
const HELD = {
  'aria-disabled': true,
  'data-held': '',
  onPress: doNothing,
  onPressStart: doNothing,
  onPressEnd: doNothing,
  onClick: doNothing,
} as const;

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
  &[data-disabled],
  &[data-held] {
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
export const Button = styled(BaseButton)`
  ${base}
`;

/** The one main action of a place. */
export const MainButton = styled(BaseButton)`
  ${base}
  background: var(--ink);
  color: var(--paper);
  &[data-hovered],
  &:hover {
    background: var(--faded);
  }
`;

/** An action that makes something visible outside, or takes it away from there. */
export const OutsideButton = styled(BaseButton)`
  ${base}
  border-color: var(--outside);
  color: var(--outside);
  &[data-hovered],
  &:hover {
    background: var(--outside-wash);
  }
`;

/** A button that looks like a word in the text. */
export const QuietButton = styled(BaseButton)`
  ${base}
  border-color: transparent;
  padding-inline: 0.4rem;
`;

/** A button that looks like a link in a sentence. */
export const TextButton = styled(BaseButton)`
  display: inline;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
`;
