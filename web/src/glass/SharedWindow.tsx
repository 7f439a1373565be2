import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { Link } from 'react-router';
import { problemOf, useTakeOutMutation } from '../api/zonalApi';
import { OutsideButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { GlassMark } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Plate } from '../ui/Plate';
import { t } from '../texts/glass';
import { GLASS_WORDS } from '../texts/glassWords';

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
          {window.wording.description} <Link to="/windows">{t('backToWindows')}</Link>
        </Faded>
      </div>
      <p>{t('sharedHint')}</p>
      {problem && <ProblemNotice problem={problem} />}
      {window.sources.map(({ calendarId, glass, as }) => {
        const calendar = own.find((c) => c.id === calendarId);
        return (
          <Row key={calendarId}>
            {calendar && <Plate {...calendar} />}
            <span>
              {calendar?.name ?? (as || t('calendarOfOthers'))}: <GlassMark glass={glass} />{' '}
              {GLASS_WORDS[glass].word}, {GLASS_WORDS[glass].plain}
            </span>
            {calendar && (
              <OutsideButton
                isDisabled={taking.isLoading}
                onPress={() => void takeOut({ id: window.id, calendarId })}
              >
                {last ? t('removeAndClose') : t('removeNamed', { name: calendar.name })}
              </OutsideButton>
            )}
          </Row>
        );
      })}
      <h2>{t('itsKeys')}</h2>
      {window.keys.map((key) => (
        <Row key={key.id}>
          <span>{key.madeOutTo}</span>
          <CopyButton what={t('pageAddress')} text={key.see} />
          <CopyButton what={t('feedAddress')} text={key.feed} />
        </Row>
      ))}
    </Stack>
  );
}
