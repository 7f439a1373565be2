import type { OutwardWindow } from '@zonal/core/api';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemOf, useDeleteWindowMutation } from '../api/zonalApi';
import { Button, OutsideButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/ConfirmDialog';
import { ProblemNotice } from '../ui/ProblemNotice';

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
        Delete the window …
      </Button>
      <ProblemNotice problem={problemOf(error)} />
      {isAsking && (
        <ConfirmDialog
          title={`Delete “${window.wording.name}”?`}
          onCancel={() => setAsking(false)}
          buttons={(close) => (
            <>
              <Button autoFocus onPress={() => close(() => setAsking(false))}>
                Cancel
              </Button>
              <OutsideButton onPress={() => close(() => void removeNow())}>Delete the window</OutsideButton>
            </>
          )}
        >
          <p>
            Its rules, its draft and the contacts of its keys are removed. This cannot be undone. Its
            addresses go on saying that it is gone, and lead nowhere else.
          </p>
        </ConfirmDialog>
      )}
    </>
  );
}
