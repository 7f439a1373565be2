import type { ReactNode } from 'react';
import { Tooltip, TooltipTrigger } from 'react-aria-components';
import styled from 'styled-components';

const Look = styled(Tooltip)`
  padding: 0.2rem 0.5rem;
  background: var(--ink);
  color: var(--paper);
  font-size: 0.85rem;
  border-radius: 2px;
`;

interface NamedProps {
  name: string;
  /** One button. */
  children: ReactNode;
}

/** A button that says what it stands for while the pointer or the focus is on it. */
export function Named({ name, children }: NamedProps) {
  return (
    <TooltipTrigger delay={300}>
      {children}
      <Look offset={4}>{name}</Look>
    </TooltipTrigger>
  );
}
