import { Button, MainButton } from './Button';
import { ConfirmDialog } from './ConfirmDialog';

interface DiscardDialogProps {
  readonly onKeep: () => void;
  readonly onDiscard: () => void;
}

/** Asks before something that was typed is thrown away. */
export function DiscardDialog({ onKeep, onDiscard }: DiscardDialogProps) {
  return (
    <ConfirmDialog
      title="Discard changes?"
      onCancel={onKeep}
      buttons={(close) => (
        <>
          <MainButton autoFocus onPress={() => close(onKeep)}>
            Keep editing
          </MainButton>
          <Button onPress={() => close(onDiscard)}>Discard changes</Button>
        </>
      )}
    >
      <p>What you typed here has not been saved.</p>
    </ConfirmDialog>
  );
}
