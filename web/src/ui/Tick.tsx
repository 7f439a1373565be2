import { Check } from 'lucide-react';
import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';

const Look = styled(Checkbox)`
  /* Its hidden input goes where it goes, also in what scrolls by itself. */
  position: relative;
  display: flex;
  align-items: flex-start;
  gap: 0.5rem;
  cursor: pointer;
  > i {
    flex: none;
    display: grid;
    place-items: center;
    width: 1.1rem;
    height: 1.1rem;
    margin-top: 0.1rem;
    border: 1px solid var(--ink);
    background: var(--sheet);
  }
  &[data-disabled] {
    opacity: 0.5;
    cursor: default;
  }
  svg {
    width: 0.9rem;
    height: 0.9rem;
  }
  small {
    display: block;
    color: var(--faded);
  }
`;

interface TickProps {
  isSelected: boolean;
  isDisabled?: boolean;
  onChange: (value: boolean) => void;
  children: ReactNode;
}

/** A tick box with its words. */
export function Tick({ children, ...props }: TickProps) {
  return (
    <Look {...props}>
      {({ isSelected }) => (
        <>
          <i aria-hidden="true">{isSelected && <Check />}</i>
          <span>{children}</span>
        </>
      )}
    </Look>
  );
}
