import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useOpenWindowMutation,
  useSaveWindowMutation,
  useShutWindowMutation,
  useWindowsQuery,
} from '../api/zonalApi';
import type { Calendar, OutwardWindow, WindowInput } from '../api/types';
import { Button, OutsideButton } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { Addresses } from './Addresses';
import { blankDraft, draftOf, lackOf } from './draft';
import { GlassPanel } from './GlassPanel';
import { InsidePanel } from './InsidePanel';
import { OutsidePanel } from './OutsidePanel';

const Columns = styled.div`
  display: grid;
  grid-template-columns: 22.5rem 16.5rem minmax(0, 1fr);
  border: 1px solid var(--line);
  background: var(--sheet);
  > section {
    padding: 0.8rem 0.8rem 1.2rem;
    min-width: 0;
  }
  > section + section {
    border-left: 3px double var(--line);
  }
  @media (max-width: 70rem) {
    grid-template-columns: 1fr 1fr;
    > section:last-child {
      grid-column: 1 / -1;
      border-left: 0;
      border-top: 3px double var(--line);
    }
  }
  @media (max-width: 44rem) {
    grid-template-columns: 1fr;
    > section + section {
      border-left: 0;
      border-top: 3px double var(--line);
    }
  }
`;

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.6rem 1.5rem;
  align-items: center;
  h1 {
    overflow-wrap: anywhere;
  }
`;

const Live = styled.span`
  color: var(--outside);
  font-size: 0.9rem;
`;

/** Inside, glass, outside: the rules of one window with what they let out. */
export function Studio() {
  const { id } = useParams();
  const calendars = useCalendarsQuery();
  const windows = useWindowsQuery();
  if (calendars.isLoading || windows.isLoading) return <Loading what="Fetching the window" />;
  const problem = problemOf(calendars.error ?? windows.error);
  if (problem) return <Notice>{problem.message}</Notice>;
  const window = windows.data?.find((w) => w.id === id);
  if (id !== 'new' && !window)
    return <Empty>There is no such window. It may have been deleted; go back to Windows.</Empty>;
  return <Desk key={id} calendars={calendars.data ?? []} window={window ?? null} />;
}

function Desk({ calendars, window }: { calendars: readonly Calendar[]; window: OutwardWindow | null }) {
  const navigate = useNavigate();
  const [draft, setDraft] = useState<WindowInput>(() => (window ? draftOf(window) : blankDraft(calendars)));
  const [open, opening] = useOpenWindowMutation();
  const [save, saving] = useSaveWindowMutation();
  const [shut, shutting] = useShutWindowMutation();
  const [asking, setAsking] = useState(false);
  const set = (part: Partial<WindowInput>) => setDraft((d) => ({ ...d, ...part }));
  const problem = problemOf(opening.error ?? saving.error ?? shutting.error);
  const lack = lackOf(draft);
  const changed = !window || JSON.stringify(draft) !== JSON.stringify(draftOf(window));
  const closed = !!window?.closedAt;

  const publish = async () => {
    if (!window) {
      const result = await open(draft);
      if (result.data) void navigate(`/windows/${result.data.id}`, { replace: true });
      return;
    }
    const result = await save({ id: window.id, body: draft });
    if (result.data) setDraft(draftOf(result.data));
  };
  const setShut = async (close: boolean) => {
    if (!window) return;
    const result = await shut({ id: window.id, close });
    setAsking(false);
    if (result.data) set({ version: result.data.version });
  };

  return (
    <Stack>
      <Head>
        <div>
          <h1>{draft.name.trim() || 'New window'}</h1>
          {closed ? (
            <Faded>Closed: its addresses answer that it is gone.</Faded>
          ) : window && !changed ? (
            <Live>What you see at the right is visible outside now.</Live>
          ) : (
            <Faded>
              {window
                ? 'Changed here only: outside, readers still see the window as it was.'
                : 'Not outside yet.'}
            </Faded>
          )}
        </div>
        <Row>
          {window && changed && <Button onPress={() => setDraft(draftOf(window))}>Discard changes</Button>}
          {!closed && (
            <OutsideButton
              isDisabled={!!lack || !changed || opening.isLoading || saving.isLoading}
              onPress={() => void publish()}
            >
              {window ? 'Show this outside' : 'Open the window'}
            </OutsideButton>
          )}
          {window && !closed && !asking && <Button onPress={() => setAsking(true)}>Close the window</Button>}
          {closed && <OutsideButton onPress={() => void setShut(false)}>Open it again</OutsideButton>}
        </Row>
      </Head>
      {problem && <Notice>{problem.message}</Notice>}
      {problem?.code === 'version-conflict' && window && (
        <Row>
          <Button onPress={() => setDraft(draftOf(problem.details['current'] as OutwardWindow))}>
            Take theirs
          </Button>
          <Button
            onPress={() => {
              set({ version: (problem.details['current'] as OutwardWindow).version });
              saving.reset();
            }}
          >
            Keep mine, and look again before showing it
          </Button>
        </Row>
      )}
      {asking && (
        <Notice>
          <p>
            Page, embed and feed of this window will answer “closed” at once. Programs keep what they have
            fetched already. You can open it again later, with the same addresses.
          </p>
          <Row>
            <OutsideButton onPress={() => void setShut(true)}>Close it for everybody</OutsideButton>
            <Button onPress={() => setAsking(false)}>Leave it open</Button>
          </Row>
        </Notice>
      )}
      {lack && changed && <Faded>{lack}</Faded>}
      <Columns>
        <section aria-labelledby="inside">
          <InsidePanel calendars={calendars} draft={draft} set={set} />
        </section>
        <section aria-labelledby="glass">
          <GlassPanel draft={draft} set={set} isNew={!window} />
        </section>
        <section aria-labelledby="outside">
          <OutsidePanel draft={draft} window={window} />
        </section>
      </Columns>
      {window && !closed && <Addresses window={window} />}
    </Stack>
  );
}
