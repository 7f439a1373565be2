import type { Calendar } from '@zonal/core/api';
import { zoneWithOffset } from '@zonal/core/forms';
import { may, whoMay } from '@zonal/core/rights';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Plate } from '../ui/Plate';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { AskSheet } from './AskSheet';
import { sightWords } from './sightWords';

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
          <span>{description || 'What it is for is not said.'}</span>
        </Row>
        <span>Time zone: {zoneWithOffset(zone, now)}</span>
        <span>{sightWords(calendar)}</span>
        {may('know-windows', who) && (
          <span>{windows.length ? `Shown outside in: ${windows.join(', ')}.` : 'No window shows it.'}</span>
        )}
        <Faded>To change it, ask {whoMay('manage')}.</Faded>
        {may('ask-to-see', who) && (
          <Row>
            <Button onPress={() => setAsking(true)}>Ask for more …</Button>
          </Row>
        )}
      </Stack>
    </Sheet>
  );
}
