import { useState, type ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { Row } from './layout';

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgb(20 28 34 / 45%);
  display: grid;
  place-items: center;
  z-index: 30;
`;

const Panel = styled(Modal)`
  width: min(28rem, 92vw);
  background: var(--paper);
  border: 1px solid var(--line);
  padding: 1rem 1.2rem 1.2rem;
  p {
    margin: 0.5rem 0 1rem;
  }
`;

interface ConfirmDialogProps {
  readonly title: string;
  readonly children: ReactNode;
  /** Called for Escape, too. */
  readonly onCancel: () => void;
  /** Returns the buttons. `close` closes the dialog and then calls what it is given. */
  readonly buttons: (close: (onClosed: () => void) => void) => ReactNode;
}

/** Asks before something is done that takes something away. */
export function ConfirmDialog({ title, children, onCancel, buttons }: ConfirmDialogProps) {
  // Closes at once, even if the owner takes it away later (a router does so in a transition): until the page below is no
  // longer inert, the focus cannot go back to the field it came from.
  const [isOpen, setOpen] = useState(true);
  const close = (onClosed: () => void) => {
    setOpen(false);
    onClosed();
  };
  return (
    <Veil isOpen={isOpen} onOpenChange={(open) => !open && close(onCancel)}>
      <Panel>
        <Dialog role="alertdialog" style={{ outline: 'none' }}>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
          <Row>{buttons(close)}</Row>
        </Dialog>
      </Panel>
    </Veil>
  );
}
