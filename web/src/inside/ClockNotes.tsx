import { oddTimesOf, phasesFor, type Entry, type Occurrence } from '@zonal/core/entries';
import { timeText, zoneText } from '@zonal/core/forms';
import { DAY, wallAt, type ZoneName } from '@zonal/core/zones';
import { Faded } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { t } from '../texts/inside';
import { dayText, whenWords } from '../texts/formWords';

interface ClockNotesProps {
  /** The entry as it would be stored. */
  entry: Entry;
  date: Pick<Occurrence, 'start' | 'end'>;
  /** Zones of readers whose clocks are told of. */
  readers: readonly ZoneName[];
  home: ZoneName;
  now: number;
}

/** What clock changes do to an entry: times that do not exist or occur twice, and what readers elsewhere see of a series. */
export function ClockNotes({ entry, date, readers, home, now }: ClockNotesProps) {
  const odd = oddTimesOf(date);
  return (
    <>
      {odd.length > 0 && (
        <Notice>
          {odd.map((o) => (
            <p key={o.end}>
              {t(o.meeting === 'never' ? 'clockSkips' : 'clockTwice', {
                when: whenWords(o.when),
                zone: place(o.when),
                shown: timeText(o.shown),
              })}
            </p>
          ))}
        </Notice>
      )}
      {readers.map((zone) => (
        <Phases key={zone} entry={entry} zone={zone} home={home} now={now} />
      ))}
    </>
  );
}

const place = (when: { kind: string; zone?: string }) => zoneText(when.zone ?? '');

function Phases({ entry, zone, home, now }: { entry: Entry; zone: ZoneName; home: ZoneName; now: number }) {
  const phases = phasesFor(entry, { from: now - DAY, to: now + 366 * DAY }, zone, home);
  if (phases.length < 2) return null;
  return (
    <Faded>
      {t('phasesFor', {
        zone: zoneText(zone),
        phases: phases
          .slice(0, 5)
          .map((p) => t('phase', { time: timeText(p.time), first: dayText(p.first), last: dayText(p.last) }))
          .join('; '),
        now: timeText(wallAt(zone, now)),
      })}
    </Faded>
  );
}
