import type { WindowKey } from '@zonal/core/api';
import { Button, OutsideButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/ConfirmDialog';
import { readersWords } from '../ui/timeWords';
import { t } from '../texts/glass';

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
      title={t('withdrawQuestion', { place: madeOutTo })}
      onCancel={onCancel}
      buttons={(close) => (
        <>
          <Button autoFocus onPress={() => close(onCancel)}>
            {t('cancel')}
          </Button>
          <OutsideButton onPress={() => close(onWithdraw)}>{t('withdrawKey')}</OutsideButton>
        </>
      )}
    >
      <p>
        {t.rich('withdrawHint', {
          use: readers ? t('usedThisWeek', { readers: readersWords(readers) }) : t('notUsedThisWeek'),
          strong: (text) => <strong>{text}</strong>,
        })}
      </p>
    </ConfirmDialog>
  );
}
