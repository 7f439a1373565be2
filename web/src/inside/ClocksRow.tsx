import { driftsBetween } from '@zonal/core/entries';
import { offsetText, zoneText } from '@zonal/core/forms';
import { offsetAt, type ZoneName, dayAt } from '@zonal/core/zones';
import styled from 'styled-components';
import type { House } from '@zonal/core/api';
import { ChoiceStrip } from '../ui/Choice';
import { Faded } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { ZoneSelect } from '../ui/ZoneSelect';
import type { Desk, Layer } from './deskSlice';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

const Box = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.4rem;
  align-items: end;
  padding: 0.6rem 0.8rem;
  border: 1px solid var(--hair);
  background: var(--sheet);
  > p {
    flex-basis: 100%;
  }
`;

const Layers = styled.fieldset`
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 0.9rem;
  flex-wrap: wrap;
  legend {
    font-size: 0.85rem;
    color: var(--faded);
    padding: 0;
  }
`;

interface ClocksRowProps {
  desk: Desk;
  set: (part: Partial<Desk>) => void;
  onLayer: (layer: Layer) => void;
  home: ZoneName;
  house: House | undefined;
  spotName: string | null;
  now: number;
}

/** Whose clocks are looked at, a second zone beside them, and what is laid under the views. */
export function ClocksRow({ desk, set, onLayer, home, house, spotName, now }: ClocksRowProps) {
  const words: Record<Layer, string> = {
    holidays: house?.country
      ? t('layerHolidays', { place: [house.country, house.region].filter(Boolean).join('-') })
      : t('layerHolidaysNone'),
    moon: t('layerMoon'),
    sun: spotName ? t('layerSun', { place: spotName }) : t('layerSunNone'),
  };
  return (
    <Box role="group" aria-label={t('clocksAndLayers')}>
      <ZoneSelect
        label={t('readAs')}
        value={desk.readAs}
        none={t('ownZones')}
        onChange={(readAs) => set({ readAs })}
        bare
      />
      <ZoneSelect
        label={t('secondZone')}
        value={desk.secondZone}
        none={t('noneWord')}
        onChange={(secondZone) => set({ secondZone })}
        bare
      />
      {(desk.view === 'week' || desk.view === 'month') && (
        <ChoiceStrip
          label={t('calendars')}
          value={desk.sideBySide ? 'beside' : 'over'}
          options={[
            { value: 'over', text: t('overEachOther') },
            { value: 'beside', text: t('sideBySide') },
          ]}
          onChange={(way) => set({ sideBySide: way === 'beside' })}
        />
      )}
      <Layers>
        <legend>{t('underDays')}</legend>
        {(['holidays', 'moon', 'sun'] as const).map((layer) => (
          <Tick key={layer} isSelected={desk.layers.includes(layer)} onChange={() => onLayer(layer)}>
            {words[layer]}
          </Tick>
        ))}
      </Layers>
      {desk.secondZone && desk.secondZone !== (desk.readAs || home) && (
        <Faded as="p">{driftWords(desk.readAs || home, desk.secondZone, now)}</Faded>
      )}
    </Box>
  );
}

/** Says how far two zones are apart now, and when that becomes another distance. */
function driftWords(zone: ZoneName, other: ZoneName, now: number): string {
  const apart = offsetAt(other, now) - offsetAt(zone, now);
  const hours = (ms: number) => offsetText(ms).replace('UTC', '') || '0:00';
  const drifts = driftsBetween(zone, other, { from: now, to: now + 366 * 86_400_000 });
  const steps = drifts.map((d) =>
    t('driftStep', { hours: hours(d.distance), day: dayText(dayAt(zone, d.at)) }),
  );
  const values = { other: zoneText(other), hours: hours(apart), zone: zoneText(zone) };
  return steps.length
    ? t('driftWithSteps', { ...values, steps: steps.join(', ') })
    : t('driftAllYear', values);
}
