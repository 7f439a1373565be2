import type { OutwardWindow } from '@zonal/core/api';
import { dayText } from '@zonal/core/forms';
import { dayAt } from '@zonal/core/zones';
import { useState } from 'react';
import { problemOf, useSetClosingMutation } from '../api/zonalApi';
import { Button, OutsideButton } from '../ui/Button';
import { DateField } from '../ui/DateFields';
import { Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Tick } from '../ui/Tick';
import { endOfDay } from './keyWords';

interface ClosingSheetProps {
  window: OutwardWindow;
  /** Closes it now. */
  onClose: () => void;
  onLeave: () => void;
}

/** Closes a window now, or has it close by itself at the end of a day. */
export function ClosingSheet({ window, onClose, onLeave }: ClosingSheetProps) {
  const [lastDay, setLastDay] = useState('');
  const [farewell, setFarewell] = useState(true);
  const [set, setting] = useSetClosingMutation();
  const problem = problemOf(setting.error);
  const later = async () => {
    const at = endOfDay(lastDay, window.hostZone);
    const { error } = await set({ id: window.id, at, farewell, was: window.closesAt });
    if (!error) onLeave();
  };
  return (
    <Notice>
      <Stack>
        <p>
          Page, embed and feed of this window will answer “closed”, since when, and whom to ask. Programs keep
          what they have fetched already. You can open it again later, with the same addresses.
        </p>
        <Row>
          <OutsideButton onPress={onClose}>Close it for everybody now</OutsideButton>
          <Button onPress={onLeave}>Leave it open</Button>
        </Row>
        <Row style={{ alignItems: 'end' }}>
          <DateField label="Or at the end of" value={lastDay} onChange={setLastDay} />
          <Tick isSelected={farewell} onChange={setFarewell}>
            Tell readers from now on <small>one all-day entry in feeds, a banner on the page</small>
          </Tick>
          <OutsideButton isDisabled={!lastDay || setting.isLoading} onPress={() => void later()}>
            Close it then
          </OutsideButton>
        </Row>
        {problem && <p>{problem.message}</p>}
      </Stack>
    </Notice>
  );
}

/** That a window closes by itself, and the way to leave it open. */
export function ClosingNote({ window }: { window: OutwardWindow }) {
  const [set, setting] = useSetClosingMutation();
  const problem = problemOf(setting.error);
  if (!window.closesAt || window.closedAt) return null;
  const day = dayText(dayAt(window.hostZone, Date.parse(window.closesAt) - 1));
  return (
    <Row role="status">
      <span>
        This window closes by itself at the end of {day}.{' '}
        {window.farewell ? 'Its readers are told.' : 'Its readers are not told.'}
      </span>
      <Button
        isDisabled={setting.isLoading}
        onPress={() => void set({ id: window.id, at: null, farewell: false, was: window.closesAt })}
      >
        Leave it open
      </Button>
      {problem && <span>{problem.message}</span>}
    </Row>
  );
}
