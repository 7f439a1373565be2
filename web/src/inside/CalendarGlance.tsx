import type { Calendar } from '@zonal/core/api';
import { zoneWithOffset } from '@zonal/core/forms';
import { may } from '@zonal/core/rights';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Plate } from '../ui/Plate';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { AskSheet } from './AskSheet';
import { sightWords } from './sightWords';
import { t } from '../texts/inside';
import { whoMay } from '../texts/rightsWords';

/** A calendar that one does not look after: what it is for, and what one is to it. */
export function CalendarGlance({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const now = useNow();
  const [asking, setAsking] = useState(false);
  const { name, description, zone, windows, who } = calendar;
  if (asking) return <AskSheet calendar={calendar} onClose={onClose} />;
  return (
    <Sheet title={name} onClose={onClose}>
      <Stack>
        <Row>
          <Plate {...calendar} />
          <span>{description || t('noPurpose')}</span>
        </Row>
        <span>{t('zoneIs', { zone: zoneWithOffset(zone, now) })}</span>
        <span>{sightWords(calendar)}</span>
        {may('know-windows', who) && (
          <span>
            {windows.length ? t('shownOutsideIn', { windows: windows.join(', ') }) : t('noWindowShows')}
          </span>
        )}
        <Faded>{t('toChangeAsk', { who: whoMay('manage') })}</Faded>
        {may('ask-to-see', who) && (
          <Row>
            <Button onPress={() => setAsking(true)}>{t('askForMore')}</Button>
          </Row>
        )}
      </Stack>
    </Sheet>
  );
}
