import { clockChangeText, zoneText, zoneWithOffset } from '@zonal/core/forms';
import { allZones, type ZoneName } from '@zonal/core/zones';
import { SelectOne } from './Choice';
import { Faded } from './layout';
import { useNow } from './useNow';

const OPTIONS = allZones().map((value) => ({ value, text: zoneText(value) }));

interface ZoneSelectProps {
  label: string;
  value: ZoneName;
  onChange: (zone: ZoneName) => void;
}

/** A time zone, with its offset now and its next clock change beside it. */
export function ZoneSelect({ label, value, onChange }: ZoneSelectProps) {
  const now = useNow();
  return (
    <div>
      <SelectOne label={label} value={value} options={OPTIONS} onChange={onChange} />
      <Faded>
        {zoneWithOffset(value, now)}. {clockChangeText(value, now)}
      </Faded>
    </div>
  );
}
