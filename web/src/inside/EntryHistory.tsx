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
      <summary>History</summary>
      {isOpen && <Lines {...props} />}
    </details>
  );
}

function Lines({ entry, canRestore, onRestore }: EntryHistoryProps) {
  const { data, error } = useEntryHistoryQuery(entry.id);
  const now = useNow();
  if (!data) return <Waiting what="Fetching the history" error={error} />;
  const { lines } = data;
  if (!lines.length) return <Faded as="p">Nobody has changed this entry in the last 60 days.</Faded>;
  const oldest = lines.at(-1)!;
  const restore = (version: Entry | null, name: string) =>
    version && (
      <Button isDisabled={!canRestore} aria-label={`Restore ${name}`} onPress={() => onRestore(version)}>
        Restore
      </Button>
    );
  return (
    <>
      {!canRestore && <Faded as="p">Save or discard your changes before you restore a version.</Faded>}
      <NotedList aria-label="History">
        {lines.map((line, place) => {
          const at = momentWords(line.at, now);
          const isCurrent = place === 0 && !line.takenBackAt;
          return (
            <li key={line.editId}>
              <Line>
                <span>
                  <strong>{at}</strong>, {line.by}: {whatWords(line)}
                  {line.takenBackAt && <small>Taken back: {momentWords(line.takenBackAt, now)}</small>}
                  <Outside line={line} now={now} />
                </span>
                {!isCurrent && restore(line.after, `the version of ${at}`)}
              </Line>
            </li>
          );
        })}
        {oldest.before && (
          <li>
            <Line>
              <span>As it was before {momentWords(oldest.at, now)}</span>
              {restore(oldest.before, `the version before ${momentWords(oldest.at, now)}`)}
            </Line>
          </li>
        )}
      </NotedList>
    </>
  );
}

/** Returns what an edit did to the entry, in words. */
function whatWords({ before, after }: EntryHistoryLine): string {
  if (!before) return 'wrote it';
  if (!after) return 'deleted it';
  const fields = changedFieldWords(before, after);
  if (before.calendarId !== after.calendarId) fields.unshift('calendar');
  return fields.length ? `changed ${fields.join(', ')}` : 'saved it without changing a field';
}

function Outside({ line: { outside }, now }: { readonly line: EntryHistoryLine; readonly now: number }) {
  if (!outside) return null;
  if (!outside.length) return <small>Not visible by itself in any window.</small>;
  return (
    <small>
      Visible outside:{' '}
      {outside.map(({ windowId, windowName, revision, at }, place) => (
        <span key={`${windowId} ${revision}`}>
          {place > 0 && ', '}
          <Link to={`/windows/${windowId}/ledger`}>{windowName}</Link>, revision {revision} (
          {momentWords(at, now)})
        </span>
      ))}
    </small>
  );
}
