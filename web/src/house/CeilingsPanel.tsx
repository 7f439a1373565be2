import {
  AUDIENCE_WORDS,
  GLASS_WORDS,
  AUDIENCES,
  GLASSES,
  withCeiling,
  type Audience,
  type Demand,
  type Glass,
} from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useAnswerRequestMutation,
  useCalendarsQuery,
  useCeilingsQuery,
  useHouseQuery,
  useWatchQuery,
  useSetCeilingMutation,
  useWindowsQuery,
} from '../api/zonalApi';
import type { Calendar, CeilingRequest } from '@zonal/core/api';
import type { RehearsalQuestion } from '../workers/questions';
import { Confirmations, useConfirming } from '../rehearsal/Confirmations';
import { RehearsalView } from '../rehearsal/RehearsalView';
import { rehearsedWindow } from '@zonal/core/glass';
import { useAnswer } from '../workers/useAnswer';
import { Button, OutsideButton } from '../ui/Button';
import { Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Plate } from '../ui/Plate';
import { Sheet } from '../ui/Sheet';
import { dayOf } from '../ui/dayOf';

const Wide = styled.div`
  overflow-x: auto;
  table {
    border-collapse: collapse;
    background: var(--sheet);
    border: 1px solid var(--line);
    min-width: 44rem;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    padding: 0.4rem 0.6rem;
    border-bottom: 1px solid var(--hair);
    font-weight: 400;
    vertical-align: top;
  }
  select {
    padding: 0.2rem 0.3rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 2px;
  }
  small {
    display: block;
    color: var(--faded);
    font-size: 0.75rem;
  }
`;

/** A ceiling that is about to be set. */
interface Wanted {
  readonly calendarId: string | null;
  readonly audience: Audience;
  readonly glass: Glass | null;
  /** The request that is granted by it. */
  readonly requestId?: string;
}

/** The clearest glass that each audience may ever get, for the house and for each calendar, and what was asked for. */
export function CeilingsPanel({ steward }: { steward: boolean }) {
  const { data, error } = useCeilingsQuery();
  const { data: calendars = [] } = useCalendarsQuery();
  const [wanted, setWanted] = useState<Wanted | null>(null);
  if (error) return <ProblemNotice problem={problemOf(error)} />;
  if (!data) return <Loading what="Fetching ceilings" />;
  const open = data.requests.filter((r) => r.state === 'open');
  const rows = [null, ...calendars.filter((c) => !c.archivedAt)];
  return (
    <Stack as="section" aria-labelledby="ceilings">
      <h2 id="ceilings">Ceilings</h2>
      <Faded>
        The clearest glass that an audience may ever get. A window that wants more gets no more than this, at
        once and everywhere.
      </Faded>
      {open.map((r) => (
        <Request
          key={r.id}
          request={r}
          calendars={calendars}
          steward={steward}
          onGrant={() => setWanted({ ...r, requestId: r.id })}
        />
      ))}
      <Wide>
        <table>
          <thead>
            <tr>
              <th scope="col">For</th>
              {AUDIENCES.map((a) => (
                <th scope="col" key={a}>
                  <Row style={{ gap: '0.35rem' }}>
                    <Rings audience={a} /> {AUDIENCE_WORDS[a].word}
                  </Row>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((calendar) => (
              <tr key={calendar?.id ?? 'house'}>
                <th scope="row">
                  {calendar ? (
                    <Row style={{ flexWrap: 'nowrap' }}>
                      <Plate {...calendar} /> {calendar.name}
                    </Row>
                  ) : (
                    <strong>The whole house</strong>
                  )}
                </th>
                {AUDIENCES.map((audience) => {
                  const calendarId = calendar?.id ?? null;
                  const own = data.ceilings.find(
                    (c) => c.calendarId === calendarId && c.audience === audience,
                  );
                  return (
                    <td key={audience}>
                      {steward ? (
                        <select
                          aria-label={`Ceiling of ${calendar?.name ?? 'the house'} for ${AUDIENCE_WORDS[audience].word}`}
                          value={own?.glass ?? ''}
                          onChange={(e) =>
                            setWanted({
                              calendarId,
                              audience,
                              glass: (e.target.value || null) as Glass | null,
                            })
                          }
                        >
                          <option value="">none</option>
                          {GLASSES.map((g) => (
                            <option key={g} value={g}>
                              {GLASS_WORDS[g].word}
                            </option>
                          ))}
                        </select>
                      ) : (
                        <span>{own ? GLASS_WORDS[own.glass].word : 'none'}</span>
                      )}
                      {own && (
                        <small>
                          {own.by}, {dayOf(own.at)}
                        </small>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {wanted && <CeilingSheet wanted={wanted} calendars={calendars} onClose={() => setWanted(null)} />}
    </Stack>
  );
}

function placeOf(calendarId: string | null, calendars: readonly Calendar[]): string {
  return calendarId ? (calendars.find((c) => c.id === calendarId)?.name ?? 'a calendar') : 'the whole house';
}

function Request({
  request,
  calendars,
  steward,
  onGrant,
}: {
  request: CeilingRequest;
  calendars: readonly Calendar[];
  steward: boolean;
  onGrant: () => void;
}) {
  const [reply, replying] = useAnswerRequestMutation();
  const { id, by, audience, glass, reason, calendarId, at } = request;
  return (
    <Notice>
      <p>
        {by} asks, {dayOf(at)}: {GLASS_WORDS[glass].word} for {AUDIENCE_WORDS[audience].word}, for{' '}
        {placeOf(calendarId, calendars)}. {reason && `“${reason}”`}
      </p>
      {steward && (
        <Row>
          <Button isDisabled={replying.isLoading} onPress={onGrant}>
            Grant it …
          </Button>
          <Button
            isDisabled={replying.isLoading}
            onPress={() => void reply({ id, grant: false, confirmed: [] })}
          >
            Refuse it
          </Button>
        </Row>
      )}
      {replying.error && <p>{problemOf(replying.error)?.message}</p>}
    </Notice>
  );
}

/** Shows what a ceiling cuts or lets out, before it is set. */
function CeilingSheet({
  wanted,
  calendars,
  onClose,
}: {
  wanted: Wanted;
  calendars: readonly Calendar[];
  onClose: () => void;
}) {
  const { calendarId, audience, glass, requestId } = wanted;
  const calendar = calendars.find((c) => c.id === calendarId);
  const { data: windows } = useWindowsQuery();
  const { data: house } = useHouseQuery();
  const { data: watch } = useWatchQuery();
  const [setCeiling, setting] = useSetCeilingMutation();
  const [reply, replying] = useAnswerRequestMutation();
  const [now] = useState(() => Date.now());
  const question = useMemo((): RehearsalQuestion | null => {
    if (!windows || !watch) return null;
    const hit = windows.filter(
      (w) => !w.closedAt && (!calendarId || w.sources.some((s) => s.calendarId === calendarId)),
    );
    const pairs = hit.map((w) => {
      // Of what is locked down nothing is seen, whatever its ceilings.
      const ceilings = calendar?.lockedAt ? w.ceilings : withCeiling(w.ceilings, wanted);
      return { before: rehearsedWindow(w, w, now), after: rehearsedWindow(w, { ...w, ceilings }, now) };
    });
    return { kind: 'rehearsal', pairs, changes: [], watch, now };
  }, [windows, watch, calendarId, calendar, wanted, now]);
  const { answer, problem } = useAnswer(question);
  const refusal = problemOf(setting.error ?? replying.error);
  const demands = [
    ...(answer?.flatMap((r) => r.demands) ?? []),
    ...((refusal?.details['demands'] as Demand[] | undefined) ?? []),
  ];
  const confirming = useConfirming(
    demands,
    calendar?.name ?? house?.name ?? '',
    calendar ? 'the calendar’s name' : 'the house’s name',
  );
  const working = setting.isLoading || replying.isLoading;
  const go = async () => {
    const confirmed = confirming.accepted;
    const { error } = requestId
      ? await reply({ id: requestId, grant: true, confirmed })
      : await setCeiling({ calendarId, audience, glass, confirmed });
    if (!error) onClose();
  };
  const place = placeOf(calendarId, calendars);
  return (
    <Sheet title="What this ceiling changes outside" onClose={onClose} wide>
      <Stack>
        <p>
          {glass
            ? `${AUDIENCE_WORDS[audience].word} may get at most ${GLASS_WORDS[glass].word} of ${place}.`
            : `There is no ceiling of its own for ${AUDIENCE_WORDS[audience].word} of ${place}.`}{' '}
          It acts at once, in every window.
        </p>
        {problem && <Notice>{problem}</Notice>}
        {answer ? <RehearsalView rehearsals={answer} /> : <Loading what="Working out what it cuts" />}
        {refusal && <Notice>{refusal.message}</Notice>}
        <Confirmations {...confirming} />
        <Row>
          <OutsideButton isDisabled={!answer || working || !confirming.ready} onPress={() => void go()}>
            Set the ceiling now
          </OutsideButton>
          <Button onPress={onClose}>Leave it as it is</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}
