import { Button, MainButton } from './Button';
import { ConfirmDialog } from './ConfirmDialog';
import { t } from '../texts/base';

interface DiscardDialogProps {
  readonly onKeep: () => void;
  readonly onDiscard: () => void;
}

/** Asks before something that was typed is thrown away. */
export function DiscardDialog({ onKeep, onDiscard }: DiscardDialogProps) {
  return (
    <ConfirmDialog
      title={t('discardQuestion')}
      onCancel={onKeep}
      buttons={(close) => (
        <>
          <MainButton autoFocus onPress={() => close(onKeep)}>
            {t('keepEditing')}
          </MainButton>
          <Button onPress={() => close(onDiscard)}>{t('discard')}</Button>
        </>
      )}
    >
      <p>{t('notSaved')}</p>
    </ConfirmDialog>
  );
}
