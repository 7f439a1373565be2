import { oddTimesOf, phasesFor, type Entry, type Occurrence } from '@zonal/core/entries';
import { dayText, timeText, whenWords, zoneText } from '@zonal/core/forms';
import { DAY, wallAt, type ZoneName } from '@zonal/core/zones';
import { Faded } from '../ui/layout';
import { Notice } from '../ui/Notice';

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
              The clocks change here: {whenWords(o.when)}{' '}
              {o.meeting === 'never'
                ? `does not exist in ${place(o.when)}. Everybody will see ${timeText(o.shown)} instead.`
                : `occurs twice in ${place(o.when)}. The first of the two is taken, in every program alike.`}
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
      For readers in {zoneText(zone)} the time changes with the clocks:{' '}
      {phases
        .slice(0, 5)
        .map((p) => `${timeText(p.time)} from ${dayText(p.first)} to ${dayText(p.last)}`)
        .join('; ')}
      . Today it is {timeText(wallAt(zone, now))} there.
    </Faded>
  );
}
