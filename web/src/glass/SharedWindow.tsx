import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { GLASS_WORDS } from '@zonal/core/glass';
import { Link } from 'react-router';
import { problemOf, useTakeOutMutation } from '../api/zonalApi';
import { OutsideButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { GlassMark } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Plate } from '../ui/Plate';

/** A window that shows calendars of others too: one sees it and its addresses, and can take one's own calendars out. */
export function SharedWindow({ window, own }: { window: OutwardWindow; own: readonly Calendar[] }) {
  const [takeOut, taking] = useTakeOutMutation();
  const problem = problemOf(taking.error);
  const last = window.sources.length === 1;
  return (
    <Stack>
      <div>
        <h1>{window.wording.name}</h1>
        <Faded>
          {window.wording.description} <Link to="/windows">Back to Windows</Link>
        </Faded>
      </div>
      <p>
        This window shows calendars of which you are no publisher. Whoever is a publisher to all of them
        changes it; you can take yours out.
      </p>
      {problem && <ProblemNotice problem={problem} />}
      {window.sources.map(({ calendarId, glass, as }) => {
        const calendar = own.find((c) => c.id === calendarId);
        return (
          <Row key={calendarId}>
            {calendar && <Plate {...calendar} />}
            <span>
              {calendar?.name ?? (as || 'A calendar of others')}: <GlassMark glass={glass} />{' '}
              {GLASS_WORDS[glass].word}, {GLASS_WORDS[glass].plain}
            </span>
            {calendar && (
              <OutsideButton
                isDisabled={taking.isLoading}
                onPress={() => void takeOut({ id: window.id, calendarId })}
              >
                {last ? 'Take it out, and close the window' : `Take ${calendar.name} out`}
              </OutsideButton>
            )}
          </Row>
        );
      })}
      <h2>Its keys</h2>
      {window.keys.map((key) => (
        <Row key={key.id}>
          <span>{key.madeOutTo}</span>
          <CopyButton what="page address" text={key.see} />
          <CopyButton what="feed address" text={key.feed} />
        </Row>
      ))}
    </Stack>
  );
}
