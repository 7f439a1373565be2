import type { EntryChange, LateKey } from '@zonal/core/api';
import { instantOfWhen } from '@zonal/core/entries';
import { useState } from 'react';
import { useKnowingQuery } from '../api/zonalApi';
import { Faded, NotedList, Stack } from '../ui/layout';
import { byWords, momentWords, percent, readersWords } from '../ui/timeWords';
import { t } from '../texts/rehearsal';

interface WhenKnownProps {
  windowIds: readonly string[];
  /** The moment at which what changes begins; what is past is of no use. */
  begins: number | null;
}

const DAY = 86_400_000;
/** Without a moment of its own it is told for a day. */
const STEP = 60_000;

/** Returns when the first of some changed entries begins, as it is afterwards; null where none begins yet. */
export function beginningOf(changes: readonly EntryChange[], now: number): number | null {
  const starts = changes.flatMap(({ entry }) => {
    if (!entry) return [];
    // Days begin by the clocks of this device, which is near enough.
    return [instantOfWhen(entry.start, Intl.DateTimeFormat().resolvedOptions().timeZone)];
  });
  const next = starts.filter((at) => at > now);
  return next.length ? Math.min(...next) : null;
}

const lateWords = ({ madeOutTo, late, readers }: LateKey) =>
  t('lateReaders', { place: madeOutTo, late, readers });

/** When readers of windows would know of a change if it were made now, and whose programs will not have looked in time. */
export function WhenKnown({ windowIds, begins }: WhenKnownProps) {
  const [now] = useState(() => Math.floor(Date.now() / STEP) * STEP);
  const by = new Date(begins ?? now + DAY).toISOString();
  const { data } = useKnowingQuery({ windows: windowIds.join(','), by }, { skip: !windowIds.length });
  const told = data?.windows.filter((w) => w.forecast.readers > 0) ?? [];
  if (!told.length) return null;
  const at = Date.parse(data!.at);
  return (
    <section aria-label={t('whenKnown')}>
      <Stack>
        <h3>{t('whenKnown')}</h3>
        <NotedList>
          {told.map(({ id, name, forecast, known, late }) => (
            <li key={id}>
              {t.rich('whenKnownIn', {
                name,
                readers: readersWords(forecast.readers),
                half: byWords(forecast.halfBy, at),
                nine: byWords(forecast.nineInTenBy, at),
                strong: (text) => <strong>{text}</strong>,
              })}
              <small>
                {begins === null
                  ? t('knownWithinDay', { share: percent(known / forecast.readers) })
                  : t('knownBefore', { share: percent(known / forecast.readers), time: momentWords(by, at) })}
                {late.length > 0 && ` ${t('notInTime', { places: late.map(lateWords).join(', ') })}`}
              </small>
            </li>
          ))}
        </NotedList>
        <Faded>{t('whenKnownHint')}</Faded>
      </Stack>
    </section>
  );
}
