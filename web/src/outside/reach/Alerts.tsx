import type { Alert } from '@zonal/core/api';
import { Bell, BellOff } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useAlertsQuery, useMuteMutation } from '../../api/zonalApi';
import { Button } from '../../ui/Button';
import { Faded, NotedList, Row, Stack } from '../../ui/layout';
import { ProblemNotice } from '../../ui/ProblemNotice';
import { lengthWords } from '../../ui/timeWords';
import { t } from '../../texts/outside';

const Line = styled.li`
  display: flex;
  gap: 0.8rem;
  align-items: start;
  justify-content: space-between;
`;

/** So often, in milliseconds, it is looked whether there is something to hear of. */
export const LOOK = 15_000;

interface AlertsProps {
  /** Of one window alone; of all where it is left out. */
  windowId?: string;
  now: number;
}

/** What organisers should hear of; each can be muted, and heard again. */
export function Alerts({ windowId, now }: AlertsProps) {
  const { data = [] } = useAlertsQuery(undefined, { pollingInterval: LOOK });
  const own = data.filter((a) => windowId === undefined || a.windowId === windowId);
  const [heard, muted] = [own.filter((a) => !a.muted), own.filter((a) => a.muted)];
  if (!own.length) return null;
  return (
    <section aria-labelledby="alerts">
      <Stack>
        <h2 id="alerts">{t('needsAttention')}</h2>
        {heard.length > 0 ? (
          <List alerts={heard} now={now} linked={windowId === undefined} label={t('needsAttention')} />
        ) : (
          <Faded>{t('onlyMuted')}</Faded>
        )}
        {muted.length > 0 && (
          <details>
            <summary>{t('mutedCount', { count: muted.length })}</summary>
            <List alerts={muted} now={now} linked={windowId === undefined} label={t('mutedAlerts')} />
          </details>
        )}
      </Stack>
    </section>
  );
}

interface ListProps {
  alerts: readonly Alert[];
  now: number;
  linked: boolean;
  label: string;
}

function List({ alerts, now, linked, label }: ListProps) {
  const [mute, muting] = useMuteMutation();
  const problem = problemOf(muting.error);
  return (
    <>
      <NotedList aria-label={label}>
        {alerts.map(({ id, kind, windowId, keyId, say, since, muted }) => (
          <Line key={id}>
            <span>
              {linked ? <Link to={`/reach/${windowId}`}>{say}</Link> : say}
              <small>{t('sinceLength', { length: lengthWords(now - Date.parse(since)) })}</small>
            </span>
            <Button
              isDisabled={muting.isLoading}
              onPress={() => void mute({ windowId, body: { kind, keyId, muted: !muted } })}
            >
              {muted ? <Bell aria-hidden="true" /> : <BellOff aria-hidden="true" />}
              {muted ? t('unmute') : t('mute')}
            </Button>
          </Line>
        ))}
      </NotedList>
      {problem && (
        <Row>
          <ProblemNotice problem={problem} />
        </Row>
      )}
    </>
  );
}
