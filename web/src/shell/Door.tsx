import type { FormEvent, ReactNode } from 'react';
import styled from 'styled-components';
import { t } from '../texts/base';

/** What the page to sign in says to everybody. */
export const GREETING = t('greeting');

const Page = styled.main`
  min-height: 100dvh;
  display: grid;
  grid-template-columns: 1fr 1fr;
  @media (max-width: 50rem) {
    grid-template-columns: 1fr;
    align-content: start;
  }
`;

/** Three panes: the inside, the glass, the outside. */
const Panes = styled.div`
  border-right: 3px double var(--line);
  background:
    repeating-linear-gradient(135deg, var(--hair) 0 1px, transparent 1px 9px) 33% 0 / 33.4% 100% no-repeat,
    linear-gradient(var(--shade), var(--shade)) 0 0 / 33.3% 100% no-repeat,
    var(--sheet);
  display: flex;
  align-items: end;
  padding: 2rem;
  min-height: 7rem;
  p {
    font:
      600 1.4rem/1.3 'Literata Variable',
      Georgia,
      serif;
    background: var(--paper);
    border: 1px solid var(--line);
    padding: 0.7rem 1rem;
    max-width: 24rem;
    overflow-wrap: anywhere;
  }
`;

const Form = styled.form`
  align-self: center;
  justify-self: center;
  width: min(24rem, 90vw);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
  padding: 2rem 0;
`;

interface DoorProps {
  /** What stands on the glass. */
  said: ReactNode;
  onSubmit?: () => void;
  children: ReactNode;
}

/** What people see who are not in yet: the panes, and one form beside them. */
export function Door({ said, onSubmit, children }: DoorProps) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit?.();
  };
  return (
    <Page>
      <Panes>
        <p>{said}</p>
      </Panes>
      <Form onSubmit={submit}>{children}</Form>
    </Page>
  );
}
