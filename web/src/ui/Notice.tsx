import type { ReactNode } from 'react';
import styled from 'styled-components';

const Look = styled.div`
  border: 1px solid var(--line);
  border-left: 5px solid var(--warn);
  background: var(--sheet);
  padding: 0.6rem 0.8rem;
`;

/** A refusal or a warning, read out by screen readers when it appears. */
export function Notice({ children }: { children: ReactNode }) {
  return <Look role="alert">{children}</Look>;
}

const Blank = styled.div`
  border: 1px dashed var(--line);
  padding: 2.5rem 1rem;
  text-align: center;
  color: var(--faded);
  display: grid;
  gap: 0.8rem;
  justify-items: center;
`;

/** What stands where there is nothing yet: why, and what to do. */
export function Empty({ children }: { children: ReactNode }) {
  return <Blank>{children}</Blank>;
}

const Wait = styled.p`
  padding: 1.5rem;
  color: var(--faded);
`;

/** Says that something is on its way. */
export function Loading({ what }: { what: string }) {
  return <Wait role="status">{what} …</Wait>;
}
