import type { OutwardWindow } from '@zonal/core/api';
import { dayAt } from '@zonal/core/zones';
import { useState } from 'react';
import { problemOf, useSetClosingMutation } from '../api/zonalApi';
import { Button, OutsideButton } from '../ui/Button';
import { LazyDateField } from '../ui/LazyDateField';
import { Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Tick } from '../ui/Tick';
import { endOfDay } from './keyWords';
import { t } from '../texts/glass';
import { dayText } from '../texts/formWords';

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
        <p>{t('closingHint')}</p>
        <Row>
          <OutsideButton onPress={onClose}>{t('closeNow')}</OutsideButton>
          <Button onPress={onLeave}>{t('leaveOpen')}</Button>
        </Row>
        <Row style={{ alignItems: 'end' }}>
          <LazyDateField label={t('closeAtEnd')} value={lastDay} onChange={setLastDay} />
          <Tick isSelected={farewell} onChange={setFarewell}>
            {t('farewell')} <small>{t('farewellHint')}</small>
          </Tick>
          <OutsideButton isDisabled={!lastDay || setting.isLoading} onPress={() => void later()}>
            {t('closeThen')}
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
        {t('closesOn', { day })} {window.farewell ? t('readersTold') : t('readersNotTold')}
      </span>
      <Button
        isDisabled={setting.isLoading}
        onPress={() => void set({ id: window.id, at: null, farewell: false, was: window.closesAt })}
      >
        {t('leaveOpen')}
      </Button>
      {problem && <span>{problem.message}</span>}
    </Row>
  );
}
