import type { OutwardWindow, ReachView, WindowReach } from '@zonal/core/api';
import { reachTable, plainName } from '@zonal/core/forms';
import { type Audience, type Glass } from '@zonal/core/glass';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useWindowReachQuery, useWindowsQuery } from '../../api/zonalApi';
import { isRefused } from '../../api/fetchTrouble';
import { Waiting } from '../../api/Waiting';
import { Button } from '../../ui/Button';
import { ChoiceStrip } from '../../ui/Choice';
import { Faded, Row, Stack } from '../../ui/layout';
import { Empty } from '../../ui/Notice';
import { saveFile } from '../../ui/saveFile';
import { Alerts } from './Alerts';
import { InTime } from './InTime';
import { LIVE } from './ReachPage';
import { Spread } from './Spread';
import { Subscribers } from './Subscribers';
import { byWords, percent, readersWords } from '../../ui/timeWords';
import { t } from '../../texts/outside';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../../texts/glassWords';

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 1.2rem;
  align-items: start;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** Whether the subscribers of one window are in sync: how its changes spread, who is behind, who will not know in time. */
export function ReachWindowPage() {
  const { id = '' } = useParams();
  const windows = useWindowsQuery();
  const { data, error } = useWindowReachQuery(id, { pollingInterval: LIVE });
  if (!data || !windows.data || isRefused(error))
    return <Waiting what={t('counting')} error={error ?? windows.error} />;
  const window = windows.data.find((w) => w.id === id);
  if (!window) return <Empty>{t('noReachWindow')}</Empty>;
  return <WindowPage key={id} window={window} reach={data} />;
}

function WindowPage({ window, reach }: { window: OutwardWindow; reach: WindowReach }) {
  const now = Date.parse(reach.at);
  const [chosen, setChosen] = useState(0);
  const view = reach.views[chosen] ?? reach.views[0];
  const { name } = window.wording;
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <div>
          <h1>{t('reachOf', { name })}</h1>
          <Faded>
            <Link to="/reach">{t('linkAllWindows')}</Link> ·{' '}
            <Link to={`/windows/${window.id}`}>{t('linkStudio')}</Link> ·{' '}
            <Link to={`/windows/${window.id}/ledger`}>{t('linkLedger')}</Link>
          </Faded>
        </div>
        <Button onPress={() => saveFile(reachTable(reach), `${plainName(name, 'window')}-reach.csv`)}>
          <Download aria-hidden="true" /> {t('subscribersCsv')}
        </Button>
      </Row>
      {!view && <Empty>{t('noAddressYet')}</Empty>}
      {view && (
        <>
          {reach.views.length > 1 && (
            <ChoiceStrip
              label={t('seenBy')}
              value={String(reach.views.indexOf(view))}
              options={reach.views.map(({ audience, cap }, i) => ({
                value: String(i),
                text: audienceText(audience, cap),
              }))}
              onChange={(i) => setChosen(Number(i))}
            />
          )}
          <p role="status">
            {view.next.readers === 0
              ? t('noProgramYet')
              : t.rich('holdLatest', {
                  share: percent(view.holding / view.next.readers),
                  readers: readersWords(view.next.readers),
                  rest: restWords(view, now),
                  strong: (text) => <strong>{text}</strong>,
                })}
          </p>
          <Alerts windowId={window.id} now={now} />
          <Halves>
            <section aria-labelledby="spread">
              <Stack>
                <h2 id="spread">{t('howSpread')}</h2>
                <Spread key={`${view.audience}|${view.cap}`} view={view} />
              </Stack>
            </section>
            <InTime window={window} urgentBy={reach.urgentBy} />
          </Halves>
          <Subscribers window={window} reach={reach} />
        </>
      )}
    </Stack>
  );
}

function audienceText(audience: Audience, cap: Glass | null): string {
  const { word } = AUDIENCE_WORDS[audience];
  return cap ? word + t('atMostCap', { cap: GLASS_WORDS[cap].word }) : word;
}

/** Returns when those who do not have the latest version should get it. */
function restWords({ holding, next }: ReachView, now: number): string {
  const { readers, nineInTenBy, never } = next;
  const nine =
    holding < readers * 0.9 &&
    (nineInTenBy ? t('andNineBy', { time: byWords(nineInTenBy, now) }) : t('andNineNot'));
  return [nine, never > 0 && t('andNever', { readers: readersWords(never) })].filter(Boolean).join('');
}
