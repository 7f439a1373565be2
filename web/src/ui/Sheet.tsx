import { X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { QuietButton } from './Button';
import { DiscardDialog } from './DiscardDialog';
import { UnsavedPart, useUnsavedPart } from './Unsaved';
import { t } from '../texts/base';

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgb(20 28 34 / 45%);
  display: flex;
  justify-content: flex-end;
  z-index: 20;
`;

const Panel = styled(Modal)<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? '54rem' : '38rem')}, 100vw);
  height: 100dvh;
  overflow: auto;
  background: var(--paper);
  border-left: 3px double var(--line);
  padding: 1.1rem 1.4rem 2rem;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  border-bottom: 1px solid var(--hair);
  padding-bottom: 0.6rem;
  margin-bottom: 1rem;
`;

interface SheetProps {
  title: string;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
  /** Whether something was typed that is not saved: then closing the sheet asks first. Forms in it can say so themselves. */
  isChanged?: boolean;
}

/** A sheet laid over the right half of the screen, for one piece of work. Escape closes it. */
export function Sheet({ title, onClose, children, wide, isChanged = false }: SheetProps) {
  const [isAsking, setIsAsking] = useState(false);
  const forms = useUnsavedPart(isChanged);
  const close = () => (forms.hasAny ? setIsAsking(true) : onClose());
  return (
    <Veil isOpen isDismissable={false} onOpenChange={(open) => !open && close()}>
      <Panel $wide={wide ?? false}>
        <Dialog style={{ outline: 'none' }}>
          <Head>
            <Heading slot="title" level={2}>
              {title}
            </Heading>
            <QuietButton aria-label={t('close')} onPress={close}>
              <X aria-hidden="true" />
            </QuietButton>
          </Head>
          <UnsavedPart forms={forms}>{children}</UnsavedPart>
          {isAsking && <DiscardDialog onKeep={() => setIsAsking(false)} onDiscard={onClose} />}
        </Dialog>
      </Panel>
    </Veil>
  );
}
