import type { OutwardWindow } from '@zonal/core/api';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemOf, useDeleteWindowMutation } from '../api/zonalApi';
import { Button, OutsideButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/ConfirmDialog';
import { ProblemNotice } from '../ui/ProblemNotice';
import { t } from '../texts/glass';

/** Deletes a closed window, after asking. */
export function DeleteWindow({ window }: { window: OutwardWindow }) {
  const [isAsking, setAsking] = useState(false);
  const [remove, { error, isLoading }] = useDeleteWindowMutation();
  const navigate = useNavigate();
  const removeNow = async () => {
    const { error: refused } = await remove(window.id);
    if (!refused) void navigate('/windows');
  };
  return (
    <>
      <Button isDisabled={isLoading} onPress={() => setAsking(true)}>
        {t('deleteWindowMore')}
      </Button>
      <ProblemNotice problem={problemOf(error)} />
      {isAsking && (
        <ConfirmDialog
          title={t('deleteQuestion', { name: window.wording.name })}
          onCancel={() => setAsking(false)}
          buttons={(close) => (
            <>
              <Button autoFocus onPress={() => close(() => setAsking(false))}>
                {t('cancel')}
              </Button>
              <OutsideButton onPress={() => close(() => void removeNow())}>{t('deleteWindow')}</OutsideButton>
            </>
          )}
        >
          <p>{t('deleteWindowHint')}</p>
        </ConfirmDialog>
      )}
    </>
  );
}
