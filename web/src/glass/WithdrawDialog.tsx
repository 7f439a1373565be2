import type { WindowKey } from '@zonal/core/api';
import { Button, OutsideButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/ConfirmDialog';
import { readersWords } from '../ui/timeWords';

interface WithdrawDialogProps {
  readonly withdrawn: WindowKey;
  readonly onWithdraw: () => void;
  readonly onCancel: () => void;
}

/** Says how many readers lose the addresses of a key before it is withdrawn. */
export function WithdrawDialog({ withdrawn, onWithdraw, onCancel }: WithdrawDialogProps) {
  const { madeOutTo, readers } = withdrawn;
  return (
    <ConfirmDialog
      title={`Withdraw the key of ${madeOutTo}?`}
      onCancel={onCancel}
      buttons={(close) => (
        <>
          <Button autoFocus onPress={() => close(onCancel)}>
            Cancel
          </Button>
          <OutsideButton onPress={() => close(onWithdraw)}>Withdraw the key</OutsideButton>
        </>
      )}
    >
      <p>
        <strong>
          {readers ? `${readersWords(readers)} used it this week.` : 'Nobody used it this week.'}
        </strong>{' '}
        Its page, embed and feeds stop working at once. Programs keep what they have already fetched. You can
        bring the key back within a day.
      </p>
    </ConfirmDialog>
  );
}
