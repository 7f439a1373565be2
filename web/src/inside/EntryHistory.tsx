import type { EntryHistoryLine } from '@zonal/core/api';
import type { Entry } from '@zonal/core/entries';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Waiting } from '../api/Waiting';
import { useEntryHistoryQuery } from '../api/zonalApi';
import { Button } from '../ui/Button';
import { Faded, NotedList, Row } from '../ui/layout';
import { momentWords } from '../ui/timeWords';
import { useNow } from '../ui/useNow';
import { changedFieldWords } from './mergeForms';
import { t } from '../texts/inside';

const Line = styled(Row)`
  > span {
    flex: 1 1 14rem;
  }
`;

interface EntryHistoryProps {
  readonly entry: Entry;
  /** Whether a version can be restored now; otherwise the form holds changes that would be lost. */
  readonly canRestore: boolean;
  readonly onRestore: (version: Entry) => void;
}

/** Lists who changed an entry, when, what changed, and what of it could be seen outside. Fetched when it is opened. */
export function EntryHistory(props: EntryHistoryProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{t('history')}</summary>
      {isOpen && <Lines {...props} />}
    </details>
  );
}

function Lines({ entry, canRestore, onRestore }: EntryHistoryProps) {
  const { data, error } = useEntryHistoryQuery(entry.id);
  const now = useNow();
  if (!data) return <Waiting what={t('fetchingHistory')} error={error} />;
  const { lines } = data;
  if (!lines.length) return <Faded as="p">{t('noHistory')}</Faded>;
  const oldest = lines.at(-1)!;
  const restore = (version: Entry | null, name: string) =>
    version && (
      <Button
        isDisabled={!canRestore}
        aria-label={t('restoreVersion', { version: name })}
        onPress={() => onRestore(version)}
      >
        {t('restore')}
      </Button>
    );
  return (
    <>
      {!canRestore && <Faded as="p">{t('saveFirst')}</Faded>}
      <NotedList aria-label={t('history')}>
        {lines.map((line, place) => {
          const at = momentWords(line.at, now);
          const isCurrent = place === 0 && !line.takenBackAt;
          return (
            <li key={line.editId}>
              <Line>
                <span>
                  <strong>{at}</strong>, {line.by}: {whatWords(line)}
                  {line.takenBackAt && (
                    <small>{t('undoneAt', { time: momentWords(line.takenBackAt, now) })}</small>
                  )}
                  <Outside line={line} now={now} />
                </span>
                {!isCurrent && restore(line.after, t('versionOf', { time: at }))}
              </Line>
            </li>
          );
        })}
        {oldest.before && (
          <li>
            <Line>
              <span>{t('versionBefore', { time: momentWords(oldest.at, now) })}</span>
              {restore(oldest.before, t('theVersionBefore', { time: momentWords(oldest.at, now) }))}
            </Line>
          </li>
        )}
      </NotedList>
    </>
  );
}

/** Returns what an edit did to the entry, in words. */
function whatWords({ before, after }: EntryHistoryLine): string {
  if (!before) return t('createdIt');
  if (!after) return t('deletedIt');
  const fields = changedFieldWords(before, after);
  if (before.calendarId !== after.calendarId) fields.unshift(t('calendarWord'));
  return fields.length ? t('changedFields', { fields: fields.join(', ') }) : t('changedNothing');
}

function Outside({ line: { outside }, now }: { readonly line: EntryHistoryLine; readonly now: number }) {
  if (!outside) return null;
  if (!outside.length) return <small>{t('notVisible')}</small>;
  return (
    <small>
      {t('visibleOutside')}
      {outside.map(({ windowId, windowName, revision, at }, place) => (
        <span key={`${windowId} ${revision}`}>
          {place > 0 && ', '}
          {t.rich('visibleIn', {
            window: windowName,
            revision,
            time: momentWords(at, now),
            link: (text) => <Link to={`/windows/${windowId}/ledger`}>{text}</Link>,
          })}
        </span>
      ))}
    </small>
  );
}
